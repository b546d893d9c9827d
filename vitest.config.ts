import { fileURLToPath } from 'node:url'
import vue from '@vitejs/plugin-vue'
import unimport from 'unimport/unplugin'
import { defineConfig } from 'vitest/config'

const here = (path: string): string => fileURLToPath(new URL(path, import.meta.url))

export default defineConfig({
  test: {
    coverage: {
      provider: 'v8',
      // Components are shown in the browser: what of them runs there is not counted here.
      include: ['core/**/*.ts', 'server/**/*.ts', 'shared/**/*.ts', 'app/**/*.ts'],
      exclude: ['**/*.test.ts'],
      reporter: ['text-summary'],
    },
    projects: [
      {
        test: {
          name: 'core',
          // Pure functions keep nothing between files; without a fresh world for each, half the time is saved.
          isolate: false,
          // Generous: in ./test two other things go on beside, on two cores.
          testTimeout: 60_000,
          include: ['core/**/*.test.ts', 'shared/**/*.test.ts', 'server/**/*.test.ts', 'demo/**/*.test.ts'],
        },
      },
      {
        // Pages and their parts without a browser; what Nuxt imports by itself is imported here too.
        plugins: [vue(), unimport.vite({ presets: ['vue', 'pinia'], dirs: [here('./app/composables')] })],
        resolve: {
          alias: { '#imports': here('./app/testing/address.ts'), '~~': here('.'), '~': here('./app') },
        },
        test: {
          name: 'app',
          include: ['app/**/*.test.ts'],
          environment: 'happy-dom',
          testTimeout: 60_000,
        },
      },
      {
        resolve: { alias: { '~~': here('.'), '~': here('./app') } },
        test: {
          name: 'integration',
          // A test takes the garbage collector's part: what something waits with must outlive it.
          execArgv: ['--expose-gc'],
          include: ['tests/integration/**/*.test.ts'],
          globalSetup: ['tests/integration/server.ts'],
          testTimeout: 120_000,
          hookTimeout: 60_000,
        },
      },
      { test: { name: 'fuzz', include: ['tests/fuzz/**/*.test.ts'] } },
    ],
  },
})
