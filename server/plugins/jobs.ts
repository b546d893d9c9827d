import { database } from '../db/connection'
import { startRunner } from '../jobs/runner'

interface App { hooks: { hook: (name: 'close', work: () => Promise<void>) => void } }

/** Every process of the application works jobs off beside answering requests, unless NORTHTIDE_JOBS=off. */
export default (app: App): void => {
  if (process.env.NORTHTIDE_JOBS === 'off') return
  const stop = startRunner(database())
  app.hooks.hook('close', stop)
}
