import { spawn, type ChildProcess } from 'node:child_process'
import { createServer } from 'node:net'
import { fileURLToPath } from 'node:url'

const built = fileURLToPath(new URL('../../.output/server/index.mjs', import.meta.url))
export const freePort = (): Promise<number> =>
  new Promise(resolve => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number }
      server.close(() => resolve(port))
    })
  })
export interface ChildApp {
  url: string
  process: ChildProcess
  /** What it wrote into its log. */
  log: string[]
  /** Resolves once it answers; rejects where it ended or did not in time. */
  ready: Promise<void>
}
/** The built application as a process of its own on a free port. `env` beside DB_*: what it is given. */
export async function spawnApp(env: Record<string, string>): Promise<ChildApp> {
  const port = await freePort()
  const url = `http://127.0.0.1:${port}`
  const process_ = spawn(process.execPath, [built], {
    env: { NORTHTIDE_LOG_LEVEL: 'warn', ...process.env, HOST: '127.0.0.1', PORT: String(port), ...env },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  const log: string[] = []
  process_.stdout.on('data', (text: Buffer) => log.push(...String(text).split('\n').filter(Boolean)))
  return { url, process: process_, log, ready: answers(url, process_) }
}
async function answers(url: string, child: ChildProcess): Promise<void> {
  for (let attempt = 0; attempt < 600; attempt++) {
    if (child.exitCode !== null) throw new Error(`the application stopped with ${child.exitCode}`)
    const isReady = await fetch(`${url}/api/v1/ready`).then(
      answer => answer.ok,
      () => false,
    )
    if (isReady) return
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Error('the application did not answer in time')
}
/** Stops a process, whatever it is doing, and waits until it is gone. */
export async function killNow(child: ChildProcess): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return
  const gone = new Promise(resolve => child.once('exit', resolve))
  child.kill('SIGKILL')
  await gone
}
