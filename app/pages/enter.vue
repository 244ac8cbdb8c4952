<script setup lang="ts">
import type { Session } from '#shared/api'

/** The door of a workshop that has a password. */
useHead({ title: 'Come in · Redpoll' })
const route = useRoute()
const password = ref('')
const problem = ref('')
const busy = ref(false)
onMounted(() => landIn('.door'))

/** Only to a page of our own. */
const to = computed(() => {
  const wanted = String(route.query.to ?? '/')
  return /^\/(?![/\\])/.test(wanted) ? wanted : '/'
})
async function comeIn() {
  if (busy.value) return
  problem.value = password.value ? '' : 'The password is wanted.'
  if (problem.value) return
  busy.value = true
  const result = await api<Session>('session', { method: 'POST', body: { password: password.value } })
  busy.value = false
  // everything is read anew, as somebody who is inside
  if (result.ok) return window.location.assign(to.value)
  problem.value = result.message
  password.value = ''
  void landIn('.door')
}
</script>

<template>
  <main id="main" class="enter">
    <img src="/mark.svg" alt="" width="40" height="40" />
    <h1>This workshop has a password</h1>
    <el-form class="door" @submit.prevent="comeIn">
      <FieldShell id="password" label="Password" :error="problem">
        <el-input
          id="password"
          v-model="password"
          type="password"
          show-password
          autocomplete="current-password"
          :aria-invalid="problem ? 'true' : undefined"
        />
      </FieldShell>
      <el-button type="primary" native-type="submit" :loading="busy">Come in</el-button>
    </el-form>
    <p class="small soft">
      Ask whoever started Redpoll. What you typed and was not saved waits in this browser.
    </p>
  </main>
</template>

<style scoped>
.enter {
  min-height: 100vh;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 10px;
  padding: 24px;
  text-align: center;
}
.door {
  display: grid;
  gap: 10px;
  width: min(320px, 90vw);
  text-align: left;
}
</style>
