declare module 'elkjs/lib/elk-worker.min.js?url' {
  const url: string
  export default url
}
declare module 'elkjs/lib/elk-api.js' {
  export { default } from 'elkjs/lib/elk-api'
}
