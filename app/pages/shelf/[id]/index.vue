<script setup lang="ts">
import type { Fan } from '#core/document'
import { asClaimed, newFan } from '#core/document'

/** One fan: a new one, a duplicate, or one from the shelf. */
const route = useRoute('shelf-id')
const shelf = useShelfStore()
const isNew = computed(() => route.params.id === 'new')
const stored = shallowRef(isNew.value ? null : await shelf.fetchOne(route.params.id))
const like = typeof route.query.like === 'string' ? await shelf.fetchOne(route.query.like) : null
if (!isNew.value && !stored.value)
  throw createError({
    statusCode: 404,
    statusMessage: 'Not found',
    message: 'There is no fan at this address. It may have been deleted.',
    fatal: true,
  })

function start(): Fan {
  if (route.query.draft && shelf.draft) return structuredClone(toRaw(shelf.draft))
  if (stored.value) return structuredClone(toRaw(stored.value.fan))
  const id = newId('fan')
  return like
    ? {
        // what a carton has shown is that one's: the copy has its sheet
        ...structuredClone(like.fan.curveShare === null ? toRaw(like.fan) : asClaimed(toRaw(like.fan))),
        id,
        model: `${like.fan.model} copy`,
        owned: false,
        tests: [],
        cartons: [],
        sheetPoints: [],
      }
    : newFan(id)
}
const fan = shallowRef<Fan>(start())
const first = JSON.stringify(fan.value)
const kept = ref(false)
const address = route.path
onBeforeUnmount(() => {
  if (!kept.value && JSON.stringify(fan.value) !== first) shelf.leaveUnsaved(fan.value, address)
})
const title = computed(() => (isNew.value ? 'New fan' : `${fan.value.maker} ${fan.value.model}`))
useHead({ title: () => `${title.value} · Redpoll` })
</script>

<template>
  <div>
    <AppHeader :title="title" />
    <main id="main">
      <FanEditor
        v-model="fan"
        :revision="stored?.revision ?? null"
        :for-job="typeof route.query.for === 'string' ? route.query.for : undefined"
        :for-stream="typeof route.query.stream === 'string' ? route.query.stream : undefined"
        @saved="kept = true"
      />
    </main>
  </div>
</template>
