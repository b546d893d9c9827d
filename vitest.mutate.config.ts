import { defineConfig } from 'vitest/config'

// Which tests look at what `npm run mutate` has changed: of core its own, of the server those that run it against the database.
// Instrumented code is slower, several times where it runs together without end.
const ofCore = { include: ['core/**/*.test.ts'], testTimeout: 60_000 }
const ofServer = {
  include: ['tests/integration/{run,run-details,undo,run-jobs,places,sections}.test.ts'],
  globalSetup: ['tests/integration/server.ts'],
  testTimeout: 120_000,
  hookTimeout: 60_000,
}
export default defineConfig({
  test: process.env.NORTHTIDE_MUTATED?.startsWith('server') ? ofServer : ofCore,
})
