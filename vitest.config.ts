import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'core',
          include: [
            'core/**/*.test.ts',
            'shared/**/*.test.ts',
            'server/**/*.test.ts',
            'demo/**/*.test.ts',
            'app/**/*.test.ts',
          ],
        },
      },
      {
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          globalSetup: ['tests/integration/server.ts'],
          testTimeout: 60_000,
          hookTimeout: 60_000,
        },
      },
      { test: { name: 'fuzz', include: ['tests/fuzz/**/*.test.ts'] } },
    ],
  },
})
