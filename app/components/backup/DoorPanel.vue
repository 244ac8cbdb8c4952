<script setup lang="ts">
import type { Session } from '#shared/api'

/** Who may come in. */
const session = shallowRef<Session | null>(null)
const result = await api<Session>('session')
if (result.ok) session.value = result.data
async function leave() {
  await api<Session>('session', { method: 'DELETE' })
  window.location.assign('/enter')
}
</script>

<template>
  <section v-if="session" class="sheet stack" aria-labelledby="door-title">
    <h2 id="door-title">Who may come in</h2>
    <template v-if="session.locked">
      <p class="told">
        <StateMark state="settled" /> <span>This workshop has a password, and this browser gave it.</span>
      </p>
      <p class="soft small">
        A new one is set, or taken away, with <code>npm run password</code> where Redpoll runs; whoever was in
        is asked again then.
      </p>
      <div><el-button @click="leave">Leave on this device</el-button></div>
    </template>
    <template v-else>
      <p class="told">
        <StateMark state="note" />
        <span>No password: everybody who can reach this address may read and change everything.</span>
      </p>
      <p class="soft small">
        Redpoll answers only this computer unless it is started with <code>--host</code>. Before you do that,
        set a password with <code>npm run password</code> where it runs.
      </p>
    </template>
  </section>
</template>

<style scoped>
.told {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
</style>
