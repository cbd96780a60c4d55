import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: [
      'core/**/*.test.ts',
      'relay/**/*.test.ts',
      'web/**/*.test.ts',
      'web/**/*.test.tsx',
      'demo/**/*.test.ts',
      'terminal/**/*.test.ts',
      'scripts/**/*.test.ts',
    ],
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
})
