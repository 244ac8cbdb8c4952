<script setup lang="ts">
import { copyPlace, namePlace, placeName, placesInUse } from '#core/document'

/** The places of the stream's fans: which one is shown, what it is called, its like, whether it counts. One alone never shows. */
const job = useJobStore()
const plan = computed(() => job.plan!)
const options = computed(() =>
  plan.value.places.map((place) => ({
    value: place.id,
    label: placeName(plan.value, place) + (place.aside ? ', put aside' : ''),
  })),
)
const shown = computed({
  get: () => plan.value.place.id,
  set: (id) => {
    job.chosenPlace = id
  },
})
const naming = ref(false)
const rename = (name: string) =>
  job.change((d) => namePlace(d, d.place, name), `place.${shown.value}.name`, 'Name of the place')
/** Where the air still comes through one, another may be put aside. */
const mayGo = computed(() => plan.value.place.aside || placesInUse(plan.value).length > 1)
function putAside() {
  const name = placeName(plan.value, plan.value.place)
  const aside = !plan.value.place.aside
  // it stays the one that is shown
  job.chosenPlace = shown.value
  job.change(
    (d) => {
      d.place.aside = aside
    },
    '',
    `${name} ${aside ? 'put aside' : 'taken up again'}`,
  )
}
const others = computed(() => plan.value.places.filter((p) => p.id !== shown.value))
/** What is told of another place is told of this one too; its fans stay. */
const likeIt = (from: string) =>
  job.change(
    (d) =>
      copyPlace(
        d.places.find((p) => p.id === from)!,
        d.place,
      ),
    '',
    'The place as the other one',
  )
</script>

<template>
  <div v-if="options.length > 1" class="row place-bar" role="group" aria-label="Places of the fans">
    <SegmentChoice v-model="shown" label="Place of the fans" :options="options" />
    <el-popover v-model:visible="naming" trigger="click" :width="280" placement="bottom-start">
      <template #reference>
        <el-button text size="small" :aria-expanded="naming">Name, put aside</el-button>
      </template>
      <div class="stack">
        <TextField
          label="Name of this place"
          :model-value="placeName(plan, plan.place)"
          :maxlength="60"
          @update:model-value="rename"
        />
        <div class="row">
          <el-button size="small" :disabled="!mayGo" @click="putAside">
            {{ plan.place.aside ? 'Take it up again' : 'Put it aside' }}
          </el-button>
          <el-button v-for="p in others" :key="p.id" size="small" @click="likeIt(p.id)">
            Tell it like {{ placeName(plan, p) }}
          </el-button>
        </div>
      </div>
    </el-popover>
  </div>
</template>
