<script setup lang="ts">
import type { Station } from '#core/plan'

/** Ten stations in the end; those that are built stand here, each with its headline figure and its state. */
const props = defineProps<{ jobId: string; stations: Station[]; current: string }>()
const { say } = useUnits()
const rows = computed(() =>
  props.stations.map((s, i) => ({
    ...s,
    text: say(s.headline),
    to: `/job/${props.jobId}/${s.key}`,
    key_: String((i + 1) % 10),
  })),
)
</script>

<template>
  <aside class="rail">
    <NuxtLink to="/" class="brand" aria-label="Redpoll, back to the bench">
      <img src="/mark.svg" alt="" width="18" height="18" />
      <span>Redpoll</span>
    </NuxtLink>
    <nav aria-label="Stations">
      <ol>
        <li v-for="row in rows" :key="row.key" :class="{ current: row.key === current }">
          <NuxtLink
            :to="row.to"
            :aria-current="row.key === current ? 'page' : undefined"
            :title="`${row.title}, key ${row.key_}`"
          >
            <StateMark :state="row.state" />
            <span class="text">
              <span class="title">{{ row.title }}</span>
              <span class="headline mono">{{ row.text }}</span>
            </span>
          </NuxtLink>
        </li>
      </ol>
    </nav>
    <nav class="foot" aria-label="Elsewhere">
      <NuxtLink to="/"> Bench </NuxtLink>
      <NuxtLink to="/shelf"> Shelf </NuxtLink>
      <NuxtLink to="/sums"> Sums </NuxtLink>
    </nav>
  </aside>
</template>

<style scoped>
.rail {
  background: var(--sheet);
  border-right: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  min-height: 100vh;
  position: sticky;
  top: 0;
  height: 100vh;
  overflow-y: auto;
}
.brand {
  display: flex;
  align-items: center;
  gap: 8px;
  font-weight: 700;
  font-size: 17px;
  color: var(--ink);
  text-decoration: none;
  padding: 13px 18px 10px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li a {
  display: grid;
  grid-template-columns: 18px 1fr;
  gap: 10px;
  align-items: start;
  padding: 7px 12px 7px 14px;
  border-left: 4px solid transparent;
  color: var(--ink);
  text-decoration: none;
}
li a svg {
  margin-top: 3px;
}
li a:hover {
  background: var(--sheet-soft);
}
li.current a {
  background: var(--cap-soft);
  border-left-color: var(--cap);
}
.text {
  display: grid;
  min-width: 0;
}
.title {
  font-weight: 650;
}
li.current .title {
  color: var(--cap);
}
.headline {
  font-size: 12px;
  letter-spacing: -0.2px;
  color: var(--ink-soft);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.foot {
  margin-top: auto;
  padding: 12px 14px;
  display: flex;
  gap: 6px;
}
.foot a {
  color: var(--ink-soft);
  padding: 4px 8px;
  text-decoration: none;
  border-radius: 5px;
}
.foot a:hover {
  background: var(--sheet-soft);
  color: var(--ink);
}
/* a bar of marks that shows where one is: the open station has its name, the others tell it to who asks */
@media (max-width: 760px) {
  .rail {
    position: sticky;
    z-index: 30;
    height: auto;
    min-height: 0;
    border-right: 0;
    border-bottom: 1px solid var(--line);
    flex-direction: row;
    align-items: center;
    overflow: visible;
  }
  .brand span,
  .headline,
  .foot {
    display: none;
  }
  .brand {
    padding: 8px 4px 8px 10px;
  }
  nav:first-of-type {
    flex: 1;
    min-width: 0;
    overflow-x: auto;
  }
  ol {
    display: flex;
    justify-content: space-between;
  }
  li {
    flex: 1 1 auto;
  }
  li a {
    display: flex;
    justify-content: center;
    align-items: center;
    gap: 6px;
    min-height: 44px;
    padding: 6px 4px;
    border-left: 0;
    border-bottom: 3px solid transparent;
    white-space: nowrap;
  }
  li a svg {
    margin: 0;
  }
  li.current a {
    border-bottom-color: var(--cap);
  }
  li:not(.current) .title {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
}
</style>
