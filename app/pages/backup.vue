<script setup lang="ts">
useHead({ title: 'Backup · Redpoll' })
const restore = useRestore()
onMounted(() => {
  // a job or a workshop that was chosen on the bench
  if (chosenBackup.value) void restore.open(chosenBackup.value)
  chosenBackup.value = null
})
function fromCopy(name: string) {
  void restore.openCopy(name)
  void landIn('#restore-title')
}
</script>

<template>
  <div>
    <AppHeader title="Backup" />
    <main id="main" class="keeping">
      <div class="stack">
        <section class="sheet stack" aria-labelledby="backup-title">
          <h2 id="backup-title">Back up</h2>
          <p>
            One file with everything: jobs, shelf, parts, logs, pictures and settings, as JSON, CSV and
            pictures. Keep it on another disk than this one.
          </p>
          <div><a class="button primary" href="/api/backup" download>Back up the workshop</a></div>
          <p class="soft small">
            One job alone, with its fans, logs and pictures, leaves by <em>Export</em> on the bench. A timer can
            do <code>npm run backup</code> while Redpoll rests.
          </p>
        </section>
        <RestorePanel :restore="restore" />
      </div>
      <div class="stack">
        <CopiesPanel @restore="fromCopy" />
        <DoorPanel />
      </div>
    </main>
  </div>
</template>

<style scoped>
.keeping {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 12px;
  align-items: start;
  padding: 0 20px 24px;
}
@media (max-width: 900px) {
  .keeping {
    grid-template-columns: minmax(0, 1fr);
    padding: 0 12px 20px;
  }
}
</style>
