import { startApp } from '../support/app'
import { useServer } from '../support/database'

/** One application with the demo for all journeys; each signs in by itself. */
export default async function setup(): Promise<() => Promise<void>> {
  const stopServer = useServer()
  const app = await startApp('northtide_e2e')
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
