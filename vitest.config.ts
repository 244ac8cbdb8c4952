import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: [
      'core/**/*.test.ts',
      'demo/**/*.test.ts',
      'shared/**/*.test.ts',
      'tests/api/**/*.test.ts',
      'tests/handbook/**/*.test.ts',
    ],
    testTimeout: 60_000,
    hookTimeout: 120_000,
    maxWorkers: 2,
  },
})
