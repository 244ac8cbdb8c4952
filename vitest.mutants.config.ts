import { defineConfig } from 'vitest/config'
import config from './vitest.config'

/** The tests that mutants of the core are held against: those that need no server. */
export default defineConfig({
  ...config,
  test: {
    ...config.test,
    include: ['core/**/*.test.ts', 'demo/**/*.test.ts', 'tests/{casebook,handbook,truth}/**/*.test.ts'],
  },
})
