import { fileURLToPath } from 'node:url'
import { defineConfig } from 'vitest/config'

export default defineConfig({
  resolve: { alias: { '~': fileURLToPath(new URL('./app', import.meta.url)) } },
  test: {
    include: [
      '{app,core,demo,server,shared}/**/*.test.ts',
      'tests/{api,casebook,gates,handbook,truth}/**/*.test.ts',
    ],
    testTimeout: 60_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
  },
})
