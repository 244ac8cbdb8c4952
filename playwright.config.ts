import { availableParallelism } from 'node:os'
import { defineConfig } from '@playwright/test'

const args = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
]

export default defineConfig({
  testDir: './tests/e2e',
  timeout: 120_000,
  expect: { timeout: 10_000 },
  // a busy machine may lose a key once: told as flaky; twice is a failure
  retries: 1,
  // files side by side, each worker with a demo workshop of its own
  workers: Math.min(2, availableParallelism()),
  reporter: process.env.PLAYWRIGHT_JSON_OUTPUT_NAME ? [['list'], ['json']] : [['list']],
  outputDir: '.cache/playwright',
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: { executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium', args },
    locale: 'en-GB',
    // nothing is waited for while it moves, and no processor draws what nobody sees; motion has a test of its own
    contextOptions: { reducedMotion: 'reduce' },
  },
})
