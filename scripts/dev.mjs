// npm run dev: the development server, its data apart from those of npm start.
import { checkNode, ensurePackages, run } from './lib.mjs'

checkNode()
await ensurePackages()
run('npx', ['nuxt', 'dev', '--host', '127.0.0.1', ...process.argv.slice(2)], {
  env: { REDPOLL_DATA: '.data-dev', ...process.env },
})
