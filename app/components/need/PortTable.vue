<script setup lang="ts">
import { newPort, portSchema } from '#core/document'
import type { Port } from '#core/document'

/** The equipment's own openings: where it draws in and blows out, whatever the plan adds. */
const job = useJobStore()
const ports = computed(() => job.plan?.ports ?? [])
const sides = optionsOf({
  front: 'front',
  back: 'back',
  left: 'left',
  right: 'right',
  top: 'top',
  bottom: 'bottom',
})
const add = (role: Port['role']) =>
  job.change((d) => {
    d.ports.push(newPort(newId('port'), role))
  })
const edit = (id: string, key: keyof Port, value: unknown) =>
  job.change(
    (d) =>
      assign(
        d.ports.find((p) => p.id === id),
        key,
        value,
      ),
    `port.${id}.${key}`,
  )
const remove = (port: Port) =>
  job.removeWithUndo(`${port.name || 'Opening'} removed.`, (d) => {
    d.ports = d.ports.filter((p) => p.id !== port.id)
  })
const fieldsOf = (port: Port): Field<keyof Port>[] => [
  { key: 'name', label: port.role === 'in' ? 'Draws in by' : 'Blows out by', text: true },
  { key: 'side', label: 'Side', options: sides },
  { key: 'areaM2', label: 'Free area', quantity: 'area' },
  { key: 'flowM3s', label: 'Its own fan', quantity: 'flow' },
]
</script>

<template>
  <div class="stack">
    <div v-for="port in ports" :key="port.id" class="port">
      <FieldGrid
        tight
        :record="port"
        :fields="fieldsOf(port)"
        :shape="portSchema.shape"
        @set="(key, value) => edit(port.id, key, value)"
      />
      <el-button text class="icon" :aria-label="`Remove ${port.name}`" @click="remove(port)"> × </el-button>
    </div>
    <div class="row">
      <el-button size="small" @click="add('in')">+ Its own intake</el-button>
      <el-button size="small" @click="add('out')">+ Its own outlet</el-button>
    </div>
  </div>
</template>

<style scoped>
.port {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 8px;
  align-items: end;
}
</style>
