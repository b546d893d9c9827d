import { readFileSync } from 'node:fs'
import type { IncomingMessage } from 'node:http'
import { Readable } from 'node:stream'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sayingKey } from '../../core/gather/saying'
import { fieldKey } from '../../core/gather/gather'
import type { CourseWhole } from '../../shared/api/courses'
import type { GatherReply } from '../../shared/api/gathering'
import type { ImportWish, UploadReply } from '../../shared/api/uploads'
import { readCourse } from '../../server/courses/lines'
import { readGathering } from '../../server/exchange/gathering'
import { askForImport, receiveUpload, viewUpload } from '../../server/exchange/uploads'
import { startRunner } from '../../server/jobs/runner'
import type { Person } from '../../server/people/people.queries'
import { jobKinds } from '../../server/work/kinds'
import { useDemo } from '../support/demo'

const demo = useDemo('gathering')
let stop: () => Promise<void>
beforeAll(() => {
  process.env.DB_NAME = 'northtide_gathering'
  stop = startRunner(demo.db, jobKinds, { pause: 50 })
})
afterAll(() => stop())

const demoFile = (name: string): Buffer => readFileSync(new URL(`../../demo/files/${name}`, import.meta.url))
async function until(who: Person, id: string, state: UploadReply['state']): Promise<UploadReply> {
  for (const end = Date.now() + 60_000; ;) {
    const view = await viewUpload(demo.db, who, id)
    if (view.state === state) return view
    if (Date.now() > end) throw new Error(`still ${view.state}: ${view.problem}`)
    await new Promise(resolve => setTimeout(resolve, 30))
  }
}
/** Sends a file, which is read. */
async function sent(who: Person, name: string, bytes: Buffer): Promise<string> {
  const stream = Object.assign(Readable.from([bytes]), { headers: {} }) as unknown as IncomingMessage
  const { id } = await receiveUpload(demo.db, who, name, stream)
  await until(who, id, 'read')
  return id
}
const term = '2026-autumn'
const asCourse = (more: Partial<Extract<ImportWish, { as: 'course' }>> = {}) => ({
  as: 'course' as const,
  term,
  code: 'HYD 240',
  section: '09',
  title: 'Tidal Hydrography, as it was sent',
  ...more,
})
async function broughtIn(who: Person, id: string, request: ReturnType<typeof asCourse>) {
  await askForImport(demo.db, who, id, request)
  const { outcome } = await until(who, id, 'imported')
  return { outcome: outcome!, course: await readCourse(demo.db, who, outcome!.courseId!) }
}
/** What a course says of each of its items, with categories by their titles. */
function saidOf({ nodes, categories }: CourseWhole): Record<string, unknown> {
  const titles = new Map(categories.map(({ lineage, title }) => [lineage, title]))
  return Object.fromEntries(
    nodes
      .filter(({ type }) => type === 'item')
      .map(({ identifier, opens, due, closes, points, category, state, exam }) => [
        identifier ?? '',
        { opens, due, closes, points, category: titles.get(category ?? '') ?? null, state, exam },
      ]),
  )
}
const filesOf = (reply: GatherReply, ...names: string[]): string[] =>
  names.map(name => reply.files.find(file => file.name === name)!.id)

describe('a package with what other files say of it', () => {
  it('is the course that the demo has, date for date, brought in by one who teaches it', async () => {
    const { marchetti } = demo.people
    const id = await sent(marchetti, 'tides.imscc', demoFile('hyd-240-01-autumn-2026.imscc'))
    await sent(marchetti, 'roster.zip', demoFile('port-ellery.oneroster.zip'))
    await sent(marchetti, 'tides.course.json', demoFile('hyd-240-01-autumn-2026.course.json'))
    const reply = await readGathering(demo.db, marchetti, id, { term: term })
    expect(reply.files.map(({ as }) => as).sort()).toEqual(['course-json', 'line-items'])
    const beside = filesOf(reply, 'roster.zip', 'tides.course.json')
    const { outcome, course } = await broughtIn(marchetti, id, asCourse({ beside }))
    const there = await readCourse(demo.db, demo.people.ellwood, demo.courses.old)
    expect(saidOf(course)).toEqual(saidOf(there))
    const dated = course.nodes.filter(({ due }) => due !== null)
    expect(dated.length).toBeGreaterThan(30)
    // Students whom the bundle names are lines of this course alone, with what they got; all else about students stays out, and that is said.
    expect(course.studentData).toMatchObject({ students: 31, submissions: 0, posts: 0 })
    expect(course.studentData.grades).toBe(1069)
    const lines = await demo.db('people').where({ of_course: outcome.courseId ?? '' })
    expect(lines).toHaveLength(31)
    expect(lines.every(({ login, password }) => login === null && password === null)).toBe(true)
    expect(outcome.findings.map(({ code }) => code)).toEqual(expect.arrayContaining(['students-stay-out']))
    // The others are used up with it.
    await expect(askForImport(demo.db, marchetti, id, asCourse({ beside }))).rejects.toMatchObject({
      status: 409,
    })
    const outcomes = []
    for (const file of beside) outcomes.push((await viewUpload(demo.db, marchetti, file)).outcome?.courseId)
    // The bundle is of other courses too: it may come again with them.
    expect(outcomes).toEqual([undefined, outcome.courseId])
  })
  it('takes the dates of a sheet, in any order of columns, over those of others; or of another file where one says so', async () => {
    const { marchetti } = demo.people
    const id = await sent(marchetti, 'tides.imscc', demoFile('hyd-240-01-autumn-2026.imscc'))
    await sent(marchetti, 'tides.course.json', demoFile('hyd-240-01-autumn-2026.course.json'))
    const before = await readGathering(demo.db, marchetti, id, { term: term })
    const json = before.files[0]!
    const [first, second] = json.sayings.filter(({ values }) => values.due)
    const titleOf = (identifier: string | null | undefined): string =>
      before.items.find(item => item.identifier === identifier || item.resource === identifier)!.title
    const titles = [titleOf(first?.identifier), titleOf(second?.identifier)]
    const sheet = [
      'Due,Points,Item,Opens',
      `2026-10-01 17:00,12,"${titles[0]!.toUpperCase()}",2026-09-20`,
      `2026-10-02,,"${titles[1]}",none`,
      '2026-10-03,,Nobody knows this,',
    ].join('\n')
    // Sent anew under its name, a file stands in for the one before.
    await sent(marchetti, 'dates.csv', Buffer.from('Item,Due\nNothing,2026-10-09'))
    await sent(marchetti, 'dates.csv', Buffer.from(sheet))
    const reply = await readGathering(demo.db, marchetti, id, { term: term })
    expect(reply.files.filter(({ name }) => name === 'dates.csv')).toHaveLength(1)
    const lines = reply.files.find(({ name }) => name === 'dates.csv')!.sayings
    const [one, two] = titles.map(title => reply.items.find(item => item.title === title)!.identifier)
    const { course, outcome } = await broughtIn(
      marchetti,
      id,
      asCourse({
        section: '10',
        beside: filesOf(reply, 'dates.csv', 'tides.course.json'),
        choices: { [fieldKey(two!, 'due')]: 'tides.course.json' },
        pairs: { [sayingKey(lines[0]!)]: one! },
      }),
    )
    const item = (identifier: string | undefined) =>
      course.nodes.find(node => node.type === 'item' && node.identifier === identifier)
    expect(item(one)).toMatchObject({
      opens: '2026-09-20T08:00',
      due: '2026-10-01T17:00',
      points: 120_000,
    })
    expect(item(two)).toMatchObject({ opens: null, due: second?.values.due })
    expect(outcome.findings.filter(({ code }) => code === 'saying-unmet')).toMatchObject([
      { where: 'dates.csv, row 4', message: expect.stringContaining('Nobody knows this') },
    ])
  })
  it('shows and brings in one’s own files alone', async () => {
    const { marchetti, sorrel } = demo.people
    const theirs = await sent(sorrel, 'theirs.course.json', demoFile('hyd-240-01-autumn-2026.course.json'))
    const id = await sent(marchetti, 'tides.imscc', demoFile('hyd-240-01-autumn-2026.imscc'))
    const reply = await readGathering(demo.db, marchetti, id, { term: term })
    expect(reply.files.map(file => file.id)).not.toContain(theirs)
    await expect(
      askForImport(demo.db, marchetti, id, asCourse({ section: '11', beside: [theirs] })),
    ).rejects.toMatchObject({ status: 404 })
    await expect(readGathering(demo.db, marchetti, theirs, { term: term })).rejects.toMatchObject({
      status: 404,
    })
  })
})
