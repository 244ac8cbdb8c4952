<script setup lang="ts">
import { findingMessage, subjectKey, type Finding } from '#core/rules'

/** Findings, each with what it is and what to do; opened it tells why, what else the same cause raises, and what can be tried. */
const props = defineProps<{ findings: Finding[]; empty?: string }>()
const emit = defineEmits<{ went: [] }>()
const { units } = useUnits()
const keyOf = (f: Finding) => `${f.id}.${subjectKey(f)}`
const open = ref<string | null>(null)
const list = computed(() =>
  props.findings.map((f) => ({
    finding: f,
    key: keyOf(f),
    text: findingMessage(f, units.value),
    about: [f.stream?.name, f.subject?.name].filter(Boolean).join(', '),
  })),
)
</script>

<template>
  <ul v-if="list.length" class="findings">
    <li v-for="{ finding, key, text, about } in list" :key="key">
      <StateMark :state="finding.severity" />
      <div>
        <button
          type="button"
          class="message"
          :aria-expanded="open === key"
          @click="open = open === key ? null : key"
        >
          <strong>{{ about ? `${about}: ${text}` : text }}.</strong> <span>{{ finding.fix }}</span>
        </button>
        <FindingMore v-if="open === key" :finding="finding" @went="emit('went')" />
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
  grid-template-columns: 18px minmax(0, 1fr);
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
