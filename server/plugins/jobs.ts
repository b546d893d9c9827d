import { database } from '../db/connection'
import { logSeldom } from '../http/logger'
import { startHeavyThread } from '../jobs/heavy'
import { startRunner } from '../jobs/runner'
import { scheduleFetch } from '../registrar/registrar'
import { startForgetting } from '../work/forget'
import { lightKinds } from '../work/kinds'

interface App {
  hooks: { hook: (name: 'close', work: () => Promise<void>) => void }
}

/** Every process of the application works jobs off beside answering requests, and sees when the registrar is to be asked, unless NORTHTIDE_JOBS=off. */
export default (app: App): void => {
  if (process.env.NORTHTIDE_JOBS === 'off') return
  const stop = startRunner(database(), lightKinds, { pause: 500 })
  const stopForgetting = startForgetting(database())
  const stopHeavy = startHeavyThread(database())
  const look = (): void => {
    scheduleFetch(database()).catch((error: unknown) => logSeldom('no fetch could be asked for', error))
  }
  const clock = setInterval(look, 20_000)
  look()
  app.hooks.hook('close', async () => {
    clearInterval(clock)
    stopForgetting()
    await Promise.all([stop(), stopHeavy()])
  })
}
