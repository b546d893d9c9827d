// npm run demo:load [-- --if-empty] : loads the demo files through the readers and services that everyone uses.
import { readFileSync } from 'node:fs'
import { readLimits } from '../core/formats/limits'
import type { Finding } from '../core/formats/findings'
import { readTermCalendar } from '../core/formats/json/documents'
import { readOneRoster } from '../core/formats/oneroster/read'
import { closeDatabase, database } from '../server/db/connection'
import { bufferSource, openZip } from '../server/exchange/files/zip'
import { importTerm } from '../server/exchange/import-course'
import { broughtNow, sendNow } from '../server/exchange/now'
import { askForImport, discardUpload } from '../server/exchange/uploads'
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

/** Each class of the demo that gets anything, by its key: its course JSON, its package where it has content, and whether the bundle has line items of it. */
const classes: readonly { key: string; json: string; cartridge?: string; isGraded?: true }[] = [
  {
    key: 'hyd240-01-2026a',
    json: 'hyd-240-01-autumn-2026',
    cartridge: 'hyd-240-01-autumn-2026',
    isGraded: true,
  },
  { key: 'hyd240-01-2027s', json: 'hyd-240-01-spring-2027' },
  { key: 'hyd240-02-2027s', json: 'hyd-240-02-spring-2027', cartridge: 'hyd-240-02-spring-2027' },
  { key: 'hyd235-01-2027u', json: 'hyd-235-01-summer-2027' },
  { key: 'wvg201-01-2026a', json: 'wvg-201-01-autumn-2026', cartridge: 'wvg-201-01-autumn-2026' },
  { key: 'wvg201-01-2027s', json: 'wvg-201-01-spring-2027', cartridge: 'wvg-201-01-spring-2027' },
  { key: 'bkg115-01-2026a', json: 'bkg-115-01-autumn-2026', cartridge: 'bkg-115-autumn-2026' },
  { key: 'bkg115-02-2026a', json: 'bkg-115-02-autumn-2026', cartridge: 'bkg-115-autumn-2026' },
  { key: 'orn130-01-2026a', json: 'orn-130-01-autumn-2026', cartridge: 'orn-130-01-autumn-2026' },
  { key: 'orn130-01-2027s', json: 'orn-130-01-spring-2027' },
  { key: 'lth220-01-2026a', json: 'lth-220-01-autumn-2026', cartridge: 'lth-220-01-autumn-2026' },
  { key: 'lth220-01-2027s', json: 'lth-220-01-spring-2027' },
]
const rosterFile = 'port-ellery.oneroster.zip'

/** Loads everything as the academic office does on the page Files; returns what was found. */
export async function loadDemo(db: Knex): Promise<Finding[]> {
  const findings: Finding[] = []
  for (const term of ['2026-autumn', '2027-spring', '2027-summer'])
    await importTerm(db, readTermCalendar(`term-${term}.json`, file(`term-${term}.json`), isTimeZone))
  const { roster, findings: found } = await readOneRoster(await archive(rosterFile))
  findings.push(...found, ...(await importRoster(db, roster)).findings)
  for (const entry of signIns) {
    await setPassword(db, entry.login, entry.password)
    if ('duty' in entry) await grantDuty(db, entry.login, entry.org, entry.duty)
  }
  const office = await personOf(db, 'ellwood')
  const bundle = await sendNow(db, office, rosterFile, file(rosterFile))
  for (const each of classes) findings.push(...(await bringIn(db, office, { ...each, bundle })))
  await discardUpload(db, office, bundle)
  return findings
}
const personOf = async (db: Knex, login: string): Promise<Person> =>
  present(await findPerson(db, present(await findByLogin(db, login)).id))
const courseOf = async (db: Knex, key: string): Promise<string> =>
  present(await findCourseBySource(db, key)).id
/** Brings a class's files in, together with its line items and results where it has a package. */
async function bringIn(
  db: Knex,
  office: Person,
  { key, json, cartridge, isGraded, bundle }: (typeof classes)[number] & { bundle: string },
): Promise<readonly Finding[]> {
  const said = `${json}.course.json`
  const document = await sendNow(db, office, said, file(said))
  const content = cartridge && (await sendNow(db, office, `${cartridge}.imscc`, file(`${cartridge}.imscc`)))
  const sent = content ?? document
  await askForImport(
    db,
    office,
    sent,
    content
      ? { as: 'course', into: await courseOf(db, key), beside: isGraded ? [document, bundle] : [document] }
      : { as: 'course-json' },
  )
  const { findings } = await broughtNow(db, sent)
  for (const id of new Set([sent, document])) await discardUpload(db, office, id)
  return findings
}

/** The code that opens Weave Structures to whoever gives it: it stands in `sign-ins.txt`. */
const weaveCode = 'WARP-7K4M'
/** What a visitor finds made already, through the services that everyone uses: two templates and a course shared by a code. */
export async function showcase(db: Knex): Promise<void> {
  const [marchetti, brandt, aumont] = [
    await personOf(db, 'marchetti'),
    await personOf(db, 'brandt'),
    await personOf(db, 'aumont'),
  ]
  const hydrography = await courseOf(db, 'hyd240-01-2026a')
  await makeTemplate(db, marchetti, hydrography, {
    title: 'Tides, unit by unit',
    subject: 'Hydrography',
    arrangement: 'units',
    about: 'Seven units of two weeks, each with a log, a lab sheet, a problem set and a quiz.',
  })
  const { id } = await makeTemplate(db, brandt, await courseOf(db, 'hyd240-02-2027s'), {
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
    await courseOf(db, 'wvg201-01-2026a'),
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
