<script setup lang="ts">
import type { Toast } from '~/composables/useToast'

const { toasts, dismiss } = useToast()
function act(toast: Toast) {
  toast.action?.run()
  dismiss(toast.id)
}
</script>

<template>
  <div class="toasts" role="status" aria-live="polite">
    <div v-for="toast in toasts" :key="toast.id" class="toast" :class="toast.tone">
      <span>{{ toast.text }}</span>
      <el-button v-if="toast.action" size="small" @click="act(toast)">
        {{ toast.action.label }}
      </el-button>
      <el-button text size="small" class="icon" aria-label="Dismiss" @click="dismiss(toast.id)"> × </el-button>
    </div>
  </div>
</template>

<style scoped>
.toasts {
  position: fixed;
  inset: auto 16px 16px auto;
  display: grid;
  gap: 8px;
  z-index: 3000;
  justify-items: end;
}
.toast {
  display: flex;
  align-items: center;
  gap: 10px;
  background: var(--sheet);
  border: 1px solid var(--line-strong);
  border-left: 4px solid var(--teal);
  border-radius: 6px;
  padding: 7px 8px 7px 12px;
  box-shadow: 0 4px 16px rgb(0 0 0 / 0.16);
  max-width: min(440px, calc(100vw - 32px));
}
.toast.bad {
  border-left-color: var(--stop);
}
</style>
