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
import { findCourseBySource } from '../server/courses/courses.queries'
import { present } from '../core/present'
import { grantDuty, setPassword } from '../server/people/people'
import { findByLogin, findPerson, type Person } from '../server/people/people.queries'
import { readShares, shareCourse } from '../server/sharing/shares'
import { makeTemplate } from '../server/sharing/templates'
import { isTimeZone } from '../server/calendars/zones'
import type { Knex } from 'knex'

const file = (name: string): Uint8Array => readFileSync(new URL(`files/${name}`, import.meta.url))
const archive = (name: string) => openZip(name, bufferSource(file(name)), readLimits)
/** Name, password and duty of those who sign in; the same as in `sign-ins.txt`. */
export const signIns = [
  { login: 'marchetti', password: 'slack-water' },
  { login: 'okonjo', password: 'neap-tide' },
  { login: 'sorrel', password: 'warm-proof' },
  { login: 'corrigall', password: 'fog-signal' },
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
    { key: 'hyd235-01-2027u', cartridge: null, document: 'hyd-235-01-summer-2027.course.json' },
    {
      key: 'wvg201-01-2026a',
      cartridge: 'wvg-201-01-autumn-2026.imscc',
      document: 'wvg-201-01-autumn-2026.course.json',
    },
    {
      key: 'wvg201-01-2027s',
      cartridge: 'wvg-201-01-spring-2027.imscc',
      document: 'wvg-201-01-spring-2027.course.json',
    },
    ...['01', '02'].map(section => ({
      key: `bkg115-${section}-2026a`,
      cartridge: 'bkg-115-autumn-2026.imscc',
      document: `bkg-115-${section}-autumn-2026.course.json`,
    })),
    {
      key: 'orn130-01-2026a',
      cartridge: 'orn-130-01-autumn-2026.imscc',
      document: 'orn-130-01-autumn-2026.course.json',
    },
    { key: 'orn130-01-2027s', cartridge: null, document: 'orn-130-01-spring-2027.course.json' },
    {
      key: 'lth220-01-2026a',
      cartridge: 'lth-220-01-autumn-2026.imscc',
      document: 'lth-220-01-autumn-2026.course.json',
    },
    { key: 'lth220-01-2027s', cartridge: null, document: 'lth-220-01-spring-2027.course.json' },
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

/** The code that opens Weave Structures to whoever gives it: it stands in `sign-ins.txt`. */
const weaveCode = 'WARP-7K4M'
/** What a visitor finds made already, through the services that everyone uses: two templates and a course shared by a code. */
export async function showcase(db: Knex): Promise<void> {
  const person = async (login: string): Promise<Person> =>
    present(await findPerson(db, present(await findByLogin(db, login)).id))
  const course = async (key: string): Promise<string> => present(await findCourseBySource(db, key)).id
  const [marchetti, brandt, aumont] = [
    await person('marchetti'),
    await person('brandt'),
    await person('aumont'),
  ]
  const hydrography = await course('hyd240-01-2026a')
  await makeTemplate(db, marchetti, hydrography, {
    title: 'Tides, unit by unit',
    subject: 'Hydrography',
    arrangement: 'units',
    about: 'Seven units of two weeks, each with a log, a lab sheet, a problem set and a quiz.',
  })
  const { id } = await makeTemplate(db, brandt, await course('hyd240-02-2027s'), {
    title: 'What every hydrography course begins with',
    subject: 'Hydrography',
    arrangement: 'weeks',
    about: 'The department’s first unit, to begin a new course from.',
  })
  const [department] = (await readShares(db, brandt, id)).departments
  if (department) await shareCourse(db, brandt, id, { withheld: [], days: null, org: department.id })
  await shareCourse(
    db,
    aumont,
    await course('wvg201-01-2026a'),
    { withheld: [], days: null, org: null },
    () => weaveCode,
  )
}

if (process.argv[1] === new URL(import.meta.url).pathname) {
  const db = database()
  const [{ count }] = (await db('courses').count({ count: '*' })) as [{ count: number }]
  if (process.argv.includes('--if-empty') && Number(count) > 0) process.exit(0)
  for (const finding of await loadDemo(db))
    console.error(`${finding.severity}: ${finding.where}: ${finding.message}`)
  await showcase(db)
  await closeDatabase()
}
