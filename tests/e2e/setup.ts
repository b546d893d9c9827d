import { startApp } from '../support/app'
import { keepAside, useServer } from '../support/database'
import { demoAside, demoDatabase, expect, inDatabase } from './support'

/** One application with the demo for all journeys; each signs in by itself. */
export default async function setup(): Promise<() => Promise<void>> {
  const stopServer = useServer()
  const app = await startApp(demoDatabase)
  await inDatabase(async db => {
    // The application asks the registrar as soon as it starts; what comes of it is part of where tests begin.
    await expect(async () => {
      const states = await db('fetches').pluck('state')
      expect(states.length).toBeGreaterThan(0)
      expect(states).not.toContain('waiting')
    }).toPass({ timeout: 60_000 })
    await keepAside(db, demoDatabase, demoAside)
  })
  Object.assign(process.env, {
    NORTHTIDE_E2E_URL: app.url,
    NORTHTIDE_E2E_REGISTRAR: app.registrar,
    NORTHTIDE_E2E_MAIL: app.mail,
  })
  return async () => {
    await app.stop()
    stopServer()
  }
}
