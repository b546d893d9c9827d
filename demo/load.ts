// npm run demo:load [-- --if-empty] : loads the demo files through the readers and services that everyone uses.
import { readFileSync } from 'node:fs'
import { readLimits } from '../core/formats/limits'
import { readCartridge } from '../core/formats/cartridge/read'
import type { Finding } from '../core/formats/findings'
import { readCourseDocument, readTermCalendar } from '../core/formats/json/documents'
import { readOneRoster } from '../core/formats/oneroster/read'
import { closeDatabase, database } from '../server/db/connection'
import { bufferSource, openZip } from '../server/exchange/files/zip'
import { importCourse, importTerm } from '../server/exchange/import-course'
import { importRoster } from '../server/registrar/roster'
import { grantDuty, setPassword } from '../server/people/people'
import { isTimeZone } from '../server/calendars/zones'
import type { Knex } from 'knex'

const file = (name: string): Uint8Array => readFileSync(new URL(`files/${name}`, import.meta.url))
const archive = (name: string) => openZip(name, bufferSource(file(name)), readLimits)
/** Name, password and duty of those who sign in; the same as in `sign-ins.txt`. */
export const signIns = [
  { login: 'marchetti', password: 'slack-water' },
  { login: 'okonjo', password: 'neap-tide' },
  { login: 'brandt', password: 'spring-range', duty: 'coordinator', org: 'org-hydrography' },
  { login: 'ellwood', password: 'chart-datum', duty: 'office', org: 'org-port-ellery' },
] as const

/** Loads everything; returns what the readers and services found. */
export async function loadDemo(db: Knex): Promise<Finding[]> {
  const findings: Finding[] = []
  for (const term of ['2026-autumn', '2027-spring', '2027-summer'])
    await importTerm(db, readTermCalendar(`term-${term}.json`, file(`term-${term}.json`), isTimeZone))
  const { roster, findings: found } = await readOneRoster(await archive('port-ellery.oneroster.zip'))
  findings.push(...found, ...(await importRoster(db, roster)).findings)
  const classes = [
    {
      key: 'hyd240-01-2026a',
      cartridge: 'hyd-240-01-autumn-2026.imscc',
      document: 'hyd-240-01-autumn-2026.course.json',
    },
    { key: 'hyd240-01-2027s', cartridge: null, document: 'hyd-240-01-spring-2027.course.json' },
    {
      key: 'hyd240-02-2027s',
      cartridge: 'hyd-240-02-spring-2027.imscc',
      document: 'hyd-240-02-spring-2027.course.json',
    },
  ]
  for (const { key, cartridge, document } of classes) {
    const read = cartridge === null ? null : await readCartridge(await archive(cartridge), { courseKey: key })
    findings.push(
      ...(read?.findings ?? []),
      ...(await importCourse(db, {
        classKey: key,
        content: read?.content ?? null,
        roster,
        document: readCourseDocument(document, file(document)),
      })),
    )
  }
  for (const entry of signIns) {
    await setPassword(db, entry.login, entry.password)
    if ('duty' in entry) await grantDuty(db, entry.login, entry.org, entry.duty)
  }
  return findings
}

if (process.argv[1] === new URL(import.meta.url).pathname) {
  const db = database()
  const [{ count }] = (await db('courses').count({ count: '*' })) as [{ count: number }]
  if (process.argv.includes('--if-empty') && Number(count) > 0) process.exit(0)
  for (const finding of await loadDemo(db))
    console.error(`${finding.severity}: ${finding.where}: ${finding.message}`)
  await closeDatabase()
}
