import { spawn, type ChildProcess } from 'node:child_process'
import type { Server as HttpServer } from 'node:http'
import { createServer, type AddressInfo, type Server } from 'node:net'
import { fileURLToPath } from 'node:url'
import { connect, migrate } from '../../server/db/connection'
import { postOffice } from '../../standins/mail/server'
import { registrar } from '../../standins/registrar/server'
import { fillWithDemo, freshDatabase } from './database'

/** `registrar`: where its stand-in takes `POST /control`; `mail`: where `/letters.json` is. */
export interface RunningApp {
  url: string
  database: string
  registrar: string
  mail: string
  stop: () => Promise<void>
}

const listening = (server: Server): Promise<number> =>
  new Promise(resolve => server.listen(0, '127.0.0.1', () => resolve((server.address() as AddressInfo).port)))

const freePort = (): Promise<number> =>
  new Promise(resolve => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number }
      server.close(() => resolve(port))
    })
  })

const demoEvening = '2027-01-05T20:00:00-04:00'
/** The built application on a free port, with the demo in a database of its own, on the demo's evening. */
export async function startApp(name: string): Promise<RunningApp> {
  process.env.NORTHTIDE_NOW = demoEvening
  const address = await freshDatabase(name)
  const db = connect(address)
  await migrate(db)
  await fillWithDemo(db, name)
  await db.destroy()
  const office = registrar('estuary').server
  const { smtp, page } = postOffice()
  const [officePort, smtpPort, mailPort] = [
    await listening(office),
    await listening(smtp.server),
    await listening(page),
  ]
  const port = await freePort()
  const url = `http://127.0.0.1:${port}`
  const server: ChildProcess = spawn(
    process.execPath,
    [fileURLToPath(new URL('../../.output/server/index.mjs', import.meta.url))],
    {
      env: {
        NORTHTIDE_LOG_LEVEL: 'warn',
        ...process.env,
        HOST: '127.0.0.1',
        PORT: String(port),
        DB_NAME: name,
        NORTHTIDE_NOW: demoEvening,
        NORTHTIDE_REGISTRAR_URL: `http://127.0.0.1:${officePort}/oneroster.zip`,
        NORTHTIDE_REGISTRAR_TOKEN: 'estuary',
        NORTHTIDE_REGISTRAR_MINUTES: '10000',
        NORTHTIDE_REGISTRAR_SECONDS: '10',
        NORTHTIDE_SMTP_URL: `smtp://127.0.0.1:${smtpPort}`,
        NORTHTIDE_MAIL_FROM: 'Northtide <northtide@port-ellery.example>',
        NORTHTIDE_DESK_REGISTRAR: 'registrar@port-ellery.example',
        NORTHTIDE_DESK_SCHOOL: 'school-office@port-ellery.example',
        NORTHTIDE_DESK_HELP: 'help-desk@port-ellery.example',
      },
      stdio: ['ignore', 'inherit', 'inherit'],
    },
  )
  for (let attempt = 0; ; attempt++) {
    if (server.exitCode !== null) throw new Error(`the application stopped with ${server.exitCode}`)
    if (
      await fetch(`${url}/api/v1/health`).then(
        answer => answer.ok,
        () => false,
      )
    )
      break
    if (attempt > 150) throw new Error('the application did not answer in time')
    await new Promise(resolve => setTimeout(resolve, 200))
  }
  return {
    url,
    database: name,
    registrar: `http://127.0.0.1:${officePort}`,
    mail: `http://127.0.0.1:${mailPort}`,
    stop: async () => {
      await new Promise<void>(resolve => {
        server.once('exit', () => resolve())
        server.kill()
      })
      for (const each of [office, page] as HttpServer[]) {
        each.closeAllConnections()
        each.close()
      }
      smtp.server.close()
    },
  }
}
