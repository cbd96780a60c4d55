import { defineConfig } from 'vitest/config'

/** End-to-end tests: one browser, one file after the other, so that two cores are enough. */
export default defineConfig({
  test: {
    include: ['e2e/**/*.test.ts'],
    setupFiles: ['e2e/failed.ts'],
    fileParallelism: false,
    testTimeout: 400_000,
    hookTimeout: 240_000,
  },
})
