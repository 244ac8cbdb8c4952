<script setup lang="ts">
import type { BuildSheet } from '#core/build'

/** All sittings on paper: boxes to tick, values to write in, the wiring, and each template small. */
defineProps<{ sheet: BuildSheet; templates: { name: string; svg: string }[]; wired: boolean }>()
const drawing = useTemplateRef<HTMLElement>('drawing')
/** The drawing of the wiring, once it is laid out. */
const wiring = () => drawing.value?.querySelector<SVGSVGElement>('svg[role="img"]') ?? null
defineExpose({ wiring })
</script>

<template>
  <div class="paper-sheet" inert>
    <h2>{{ sheet.title }}</h2>
    <section v-for="s in sheet.sittings" :key="s.name">
      <h3>{{ s.name }}</h3>
      <p v-if="s.tools.length" class="small">On the table: {{ s.tools.join('; ') }}.</p>
      <p v-for="c in s.cautions" :key="c.say" class="warn">
        <strong>{{ c.say }}</strong> {{ c.rest }}
      </p>
      <div v-for="step in s.steps" :key="step.title" class="line">
        <span class="box">{{ step.done ? '×' : '' }}</span>
        <span class="words"
          ><strong>{{ step.title }}</strong> {{ step.text }} <em v-if="step.note">{{ step.note }}</em></span
        >
        <span v-if="step.value !== null" class="value">{{ step.value || '________' }}</span>
      </div>
    </section>
    <section v-if="wired" class="whole">
      <h3>Wiring</h3>
      <div ref="drawing"><FeedDiagram /></div>
    </section>
    <section v-if="templates.length" class="whole">
      <h3>Templates, not to scale</h3>
      <div class="thumbs">
        <figure v-for="t in templates" :key="t.name">
          <PrintDrawing :svg="t.svg" />
          <figcaption>{{ t.name }}</figcaption>
        </figure>
      </div>
    </section>
    <h3>Not checked</h3>
    <ul>
      <li v-for="n in sheet.notChecked" :key="n">{{ n }}</li>
    </ul>
    <p>
      <strong>{{ sheet.last }}</strong>
    </p>
  </div>
</template>

<style scoped>
.paper-sheet {
  position: absolute;
  left: -10000px;
  width: 1000px;
}
.line {
  display: flex;
  gap: 8px;
  padding: 3px 0;
  break-inside: avoid;
}
.box {
  flex: none;
  width: 14px;
  height: 14px;
  border: 1px solid #000;
  line-height: 12px;
  text-align: center;
}
.words {
  flex: 1;
}
.value {
  flex: none;
  font-family: var(--mono);
}
.warn {
  border-left: 3px solid #000;
  padding-left: 8px;
  break-inside: avoid;
}
.whole {
  break-inside: avoid;
}
.thumbs {
  display: flex;
  flex-wrap: wrap;
  gap: 10px;
}
figure {
  width: 45%;
  margin: 0;
}
@media print {
  .paper-sheet {
    position: static;
    width: auto;
    font-size: 11pt;
  }
}
</style>
