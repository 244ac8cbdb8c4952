<script setup lang="ts">
import { findingMessage, type Finding } from '#core/rules'

const props = defineProps<{ findings: Finding[]; empty?: string }>()
const { units } = useUnits()
const open = ref<string | null>(null)
const mark = { stop: 'stop', fix: 'fix', note: 'note' } as const
const list = computed(() =>
  props.findings.map((f) => ({
    ...f,
    text: findingMessage(f, units.value),
    cure: f.fix.charAt(0).toUpperCase() + f.fix.slice(1),
  })),
)
</script>

<template>
  <ul v-if="list.length" class="findings">
    <li v-for="finding in list" :key="finding.id">
      <StateMark :state="mark[finding.severity]" />
      <div>
        <button
          type="button"
          class="message"
          :aria-expanded="open === finding.id"
          @click="open = open === finding.id ? null : finding.id"
        >
          <strong>{{ finding.text }}.</strong> <span>{{ finding.cure }}.</span>
        </button>
        <p v-if="open === finding.id" class="small soft">
          Why: {{ finding.why }}. Rule <span class="mono">{{ finding.id }}</span>, source {{ finding.source }}.
        </p>
      </div>
    </li>
  </ul>
  <p v-else-if="empty" class="soft small">
    {{ empty }}
  </p>
</template>

<style scoped>
.findings {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
li {
  display: grid;
  grid-template-columns: 18px 1fr;
  gap: 6px;
  align-items: start;
}
li > svg {
  margin-top: 5px;
}
.message {
  border: 0;
  background: none;
  color: inherit;
  text-align: left;
  padding: 1px 2px;
  min-height: 24px;
  cursor: pointer;
  line-height: 1.35;
}
.message:hover {
  background: var(--sheet-soft);
}
.message span {
  color: var(--ink-soft);
}
</style>
