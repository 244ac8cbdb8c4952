<script setup lang="ts">
import { countPiece, dropStale, piecesOf, staleOf, type MountReport, type Piece } from '#core/mount'

/** What of the place the air passes, and whether the air path counts it: one chain. */
const props = defineProps<{ mount: MountReport }>()
const { store, plan } = useFit()
const pieces = computed(() => piecesOf(plan.value, props.mount))
const stale = computed(() => staleOf(plan.value, pieces.value))
function stateOf({ found, own, off, element }: Piece): { words: string; button: string } {
  if (!found) return { words: 'not counted in the air path', button: 'Count it there' }
  const name = found.name || element.name
  if (off)
    return own
      ? { words: 'the air path counts it with other values', button: 'Correct it there' }
      : { words: `the air path has “${name}” there, with other values`, button: 'Give it these' }
  return { words: own ? 'counted in the air path' : `counted in the air path as “${name}”`, button: '' }
}
const count = (piece: Piece) =>
  store.change((d) => countPiece(d, piece), `fit.piece.${piece.key}`, piece.name.toLowerCase())
const drop = () =>
  store.change((d) => dropStale(d, stale.value), 'fit.stale', stale.value.map((e) => e.name).join(', '))
</script>

<template>
  <ul v-if="pieces.length || stale.length" class="pieces small" aria-label="Counted in the air path">
    <li v-for="p in pieces" :key="p.key" class="row">
      <span class="wide">{{ p.name }}: {{ stateOf(p).words }}</span>
      <el-button
        v-if="stateOf(p).button"
        size="small"
        :aria-label="`${p.name}: ${stateOf(p).button}`"
        @click="count(p)"
        >{{ stateOf(p).button }}</el-button
      >
    </li>
    <li v-if="stale.length" class="row">
      <span class="wide">
        {{ stale.map((e) => e.name).join(', ') }}: counted in the air path, and no longer there
      </span>
      <el-button size="small" @click="drop">Take it out</el-button>
    </li>
  </ul>
</template>

<style scoped>
.pieces {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 4px;
}
.wide {
  flex: 1;
}
</style>
