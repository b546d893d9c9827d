import { spawn, type ChildProcess } from 'node:child_process'
import { createServer } from 'node:net'
import { fileURLToPath } from 'node:url'
import { loadDemo } from '../../demo/load'
import { connect, migrate } from '../../server/db/connection'
import { freshDatabase } from './database'

export interface RunningApp { url: string, database: string, stop: () => Promise<void> }

const freePort = (): Promise<number> => new Promise((resolve) => {
  const server = createServer().listen(0, '127.0.0.1', () => {
    const { port } = server.address() as { port: number }
    server.close(() => resolve(port))
  })
})

/** The built application on a free port, with the demo in a database of its own, on the demo's evening. */
export async function startApp(name: string): Promise<RunningApp> {
  const address = await freshDatabase(name)
  const db = connect(address)
  await migrate(db)
  await loadDemo(db)
  await db.destroy()
  const port = await freePort()
  const url = `http://127.0.0.1:${port}`
  const server: ChildProcess = spawn(process.execPath, [fileURLToPath(new URL('../../.output/server/index.mjs', import.meta.url))], {
    env: { ...process.env, HOST: '127.0.0.1', PORT: String(port), DB_NAME: name, NORTHTIDE_NOW: '2027-01-05T20:00:00-04:00', NORTHTIDE_SESSION_SECRET: 'only-for-tests-only-for-tests-only-for-tests' },
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  for (let attempt = 0; ; attempt++) {
    if (server.exitCode !== null) throw new Error(`the application stopped with ${server.exitCode}`)
    if (await fetch(`${url}/api/v1/health`).then(answer => answer.ok, () => false)) break
    if (attempt > 150) throw new Error('the application did not answer in time')
    await new Promise(resolve => setTimeout(resolve, 200))
  }
  return { url, database: name, stop: () => new Promise((resolve) => { server.once('exit', () => resolve()); server.kill() }) }
}
