<script setup lang="ts">
import { endTour, goInTour, tourSteps } from '~/composables/useTour'
import { tourAt } from '~/composables/useTourStep'

/** The tour over the real parts: one step at a time, as its station may first have to be opened. */
const step = computed(() => (tourAt.value === null ? null : tourSteps[tourAt.value]!))
const target = shallowRef<HTMLElement | null>(null)
/** How often a part is looked for, every 60 ms: what is worked out first may be late. */
const TRIES = 40
const SETTLE_MS = 250
watch(
  step,
  async (now) => {
    target.value = null
    for (let tries = 0; now && tries < TRIES && step.value === now; tries++) {
      await new Promise((resolve) => setTimeout(resolve, 60))
      const found = document.querySelector<HTMLElement>(now.at)
      if (!found?.getClientRects().length) continue
      found.scrollIntoView({ block: 'center' })
      target.value = found
      // the tour's own focus comes first
      await new Promise((resolve) => setTimeout(resolve, SETTLE_MS))
      return landIn('.next-step')
    }
  },
  { immediate: true },
)
const last = computed(() => tourAt.value === tourSteps.length - 1)
</script>

<template>
  <el-tour
    v-if="step && target"
    :key="tourAt ?? 0"
    :model-value="true"
    :current="0"
    :show-close="true"
    :z-index="3500"
    @close="endTour"
  >
    <el-tour-step :target="target" placement="bottom">
      <template #header>
        <h2 class="title">{{ step.title }}</h2>
      </template>
      <p>{{ step.text }}</p>
      <p class="small soft">{{ (tourAt ?? 0) + 1 }} of {{ tourSteps.length }}</p>
      <div class="row steps">
        <el-button v-if="tourAt" size="small" @click="goInTour(tourAt - 1)">Back</el-button>
        <el-button class="next-step" size="small" type="primary" @click="goInTour((tourAt ?? 0) + 1)">{{
          last ? 'Done' : 'Next'
        }}</el-button>
        <el-button size="small" text @click="endTour">Leave the tour</el-button>
      </div>
    </el-tour-step>
  </el-tour>
</template>

<style>
.el-tour__footer {
  display: none;
}
.steps {
  margin-top: 8px;
}
</style>
