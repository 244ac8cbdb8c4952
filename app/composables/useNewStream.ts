/** One more air stream, from wherever it is asked for: it is shown, and its name is asked at once. */
export function useNewStream() {
  const job = useJobStore()
  const naming = useState('naming-stream', () => false)
  async function addStream() {
    job.newAirStream(`Stream ${(job.report?.streams.length ?? 1) + 1}`)
    await nextTick()
    naming.value = true
    landIn('.stream-name input')
  }
  return { naming, addStream }
}
