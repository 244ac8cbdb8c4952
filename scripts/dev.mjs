// npm run dev: the development server, its data apart from those of npm start.
import { checkNode, ensurePackages, run } from './lib.mjs'

checkNode()
await ensurePackages()
// what the server makes is for its owner only; a worker, which it runs in here, may not say so itself
process.umask(0o077)
run('npx', ['nuxt', 'dev', '--host', '127.0.0.1', ...process.argv.slice(2)], {
  env: { REDPOLL_DATA: '.data-dev', ...process.env },
})
