<script setup lang="ts">
import type { CurveSeries } from '~/components/lineup/CurveChart.vue'

/** The path's own curve with its band, the need, and the picked fan where it meets the path. */
const job = useJobStore()
const shelf = useShelfStore()
const { show } = useUnits()
const uncertainty = useUncertaintyReport()
const report = computed(() => job.report!)
const series = computed((): CurveSeries[] => {
  const c = report.value.selection?.candidate
  return c
    ? [
        {
          id: 'pick',
          label: `${c.count} × ${c.model} at ${show(c.driveV, 'voltage')}`,
          points: candidateCurve(c, shelf.known, report.value),
          tone: 'pick',
          operating: c.flow !== null && c.pressure !== null ? { flow: c.flow, pressure: c.pressure } : null,
        },
      ]
    : []
})
const widest = computed(() =>
  Math.max(series.value[0]?.points.at(-1)?.flow ?? 0, (report.value.path.atFlow ?? 0.01) * 1.4),
)
const path = computed(() => bandedPath(report.value, uncertainty.value, widest.value))
</script>

<template>
  <section v-if="report.path.complete" class="sheet" aria-label="How the path answers">
    <CurveChart
      :series="series"
      :path="path"
      :need="report.selectionContext.needFlow"
      :design="report.selectionContext.designFlow"
      :height="168"
    />
    <ChanceLine />
  </section>
</template>
