import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { connect, migrate } from '../../server/db/connection'
import { loadDemo } from '../../demo/load'
import { killNow, spawnApp } from '../support/child-app'
import { must, type Attack } from './world'

const script = fileURLToPath(new URL('../../scripts/mariadb', import.meta.url))
export const database: Attack[] = [
  {
    name: 'the database goes away, and comes back',
    quick: false,
    run: async () => {
      const folder = mkdtempSync(join(tmpdir(), 'nt-away.'))
      execFileSync(script, ['start', folder], { stdio: 'inherit' })
      const env = Object.fromEntries(
        readFileSync(join(folder, 'env'), 'utf8')
          .split('\n')
          .filter(Boolean)
          .map(each => each.split('=', 2) as [string, string]),
      )
      const address = {
        host: env.DB_HOST ?? '',
        port: Number(env.DB_PORT),
        user: env.DB_USER ?? '',
        password: env.DB_PASSWORD ?? '',
        database: 'northtide',
      }
      const db = connect(address)
      await migrate(db)
      await loadDemo(db)
      await db.destroy()
      const app = await spawnApp({ ...env, DB_NAME: 'northtide', NORTHTIDE_LOG_LEVEL: 'warn' })
      try {
        await app.ready
        const ask = (path: string) => fetch(app.url + path, { headers: { cookie: 'northtide=x' } })
        must((await ask('/api/v1/health')).status === 200, 'it was not well before')
        execFileSync(script, ['stop', folder], { stdio: 'inherit' })
        const [before, begun] = [app.log.length, performance.now()]
        for (let at = 0; at < 50; at++) await ask('/api/v1/shells')
        for (const path of ['/api/v1/health', '/api/v1/ready', '/api/v1/shells']) {
          const answer = await ask(path)
          must(answer.status === 503, `${path} was told ${answer.status}`)
          must(Number(answer.headers.get('retry-after')) > 0, `${path} did not say when to ask again`)
        }
        const lines = app.log.slice(before)
        const seconds = Math.ceil((performance.now() - begun) / 1000) + 1
        must(lines.length <= seconds, `${lines.length} lines of log in ${seconds} s`)
        execFileSync(script, ['start', folder], { stdio: 'inherit' })
        for (let attempt = 0; ; attempt++) {
          if ((await ask('/api/v1/health')).status === 200) break
          must(attempt < 100, 'it did not come back')
          await new Promise(resolve => setTimeout(resolve, 100))
        }
        return `503 with Retry-After meanwhile, ${lines.length} lines of log for 53 requests; well again after`
      } finally {
        await killNow(app.process)
        execFileSync(script, ['drop', folder], { stdio: 'inherit' })
        rmSync(folder, { recursive: true, force: true })
      }
    },
  },
]
