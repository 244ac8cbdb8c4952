<script setup lang="ts">
import type { Session, TicketShown } from '#shared/api'

/** Who may come in. */
const session = shallowRef<Session | null>(null)
const result = await api<Session>('session')
if (result.ok) session.value = result.data
const tickets = shallowRef<TicketShown[]>([])
const problem = ref('')
async function list() {
  const got = await api<TicketShown[]>('tickets')
  problem.value = got.ok ? '' : got.message
  if (got.ok) tickets.value = got.data
}
if (session.value?.locked) await list()
const what = ({ agent }: TicketShown) => (/mobile|android|tablet/i.test(agent) ? 'Phone or tablet' : 'Computer')
async function end({ id, own }: TicketShown) {
  if (own) return leave()
  const ended = await api(`tickets/${id}`, { method: 'DELETE' })
  await list()
  if (!ended.ok) problem.value = ended.message
}
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
        <StateMark state="settled" /> <span>This workshop has a password; this browser is signed in.</span>
      </p>
      <p class="soft small">
        Set a new one with <code>npm run password</code> where Redpoll runs; everyone then has to enter it
        again. A browser stays signed in for 30 days.
      </p>
      <el-alert v-if="problem" type="error" :closable="false" :title="problem" role="alert" />
      <el-table :data="tickets" row-key="id" size="small" aria-label="Signed-in browsers">
        <el-table-column label="Browser" min-width="100">
          <template #default="{ row }">
            <span :title="row.agent">{{ row.own ? 'This browser' : what(row as TicketShown) }}</span>
          </template>
        </el-table-column>
        <el-table-column label="Last seen" min-width="120">
          <template #default="{ row }">{{ localTime(row.seenAt) }}</template>
        </el-table-column>
        <el-table-column label="Do" width="100">
          <template #default="{ row }">
            <el-button
              text
              size="small"
              :aria-label="
                row.own
                  ? 'Sign out this browser'
                  : `Sign out ${what(row as TicketShown)}, last seen ${localTime(row.seenAt)}`
              "
              @click="end(row as TicketShown)"
              >Sign out</el-button
            >
          </template>
        </el-table-column>
      </el-table>
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
