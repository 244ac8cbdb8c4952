<script setup lang="ts">
import type { NuxtError } from '#app'

const props = defineProps<{ error: NuxtError }>()
const missing = computed(() => props.error.statusCode === 404)
if (!missing.value) console.error(props.error)
const home = () => clearError({ redirect: '/' })
</script>

<template>
  <main class="lost">
    <div class="sheet stack">
      <h1>{{ missing ? 'This page is not here' : 'Something went wrong' }}</h1>
      <p>
        {{
          missing
            ? error.message || 'There is no job, fan or page at this address. It may have been deleted.'
            : 'The page could not be shown. What you had saved is safe.'
        }}
      </p>
      <div>
        <el-button type="primary" @click="home">Go to the bench</el-button>
      </div>
    </div>
  </main>
</template>

<style scoped>
.lost {
  min-height: 100vh;
  display: grid;
  place-items: center;
  padding: 20px;
}
.lost .sheet {
  max-width: 460px;
}
</style>
