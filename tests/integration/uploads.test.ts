import { bodyBytes } from '../../server/courses/bodies.queries'
import { readFileSync } from 'node:fs'
import { Readable } from 'node:stream'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { UploadReply } from '../../shared/api/uploads'
import { useDemo } from '../support/demo'
import { closureCalendar, closureTable, hostilePackage, oddPackage } from '../support/samples'
import { loadTermCalendar } from '../../server/calendars/terms.queries'
import { readCourse } from '../../server/courses/lines'
import { readItem } from '../../server/courses/item'
import { readFile } from '../../server/exchange/files/read'
import { bufferSource } from '../../server/exchange/files/zip'
import { saveReport, loadReport, keptPackage } from '../../server/exchange/uploads.queries'
import {
  askForImport,
  coursePackage,
  discardUpload,
  listUploads,
  receiveUpload,
  viewUpload,
} from '../../server/exchange/uploads'
import { beat, claimJob } from '../../server/jobs/jobs.queries'
import { startRunner } from '../../server/jobs/runner'
import { type Person } from '../../server/people/people.queries'
import { jobKinds } from '../../server/work/kinds'

const demo = useDemo('uploads')
const ofFiles = { read: jobKinds.read, import: jobKinds.import }
let stop: () => Promise<void>
beforeAll(() => {
  process.env.DB_NAME = 'northtide_uploads'
})
afterAll(async () => {
  await stop?.()
})
const run = (): void => {
  stop = startRunner(demo.db, jobKinds, { pause: 50 })
}
const pause = async (): Promise<void> => {
  await stop()
  stop = async () => {}
}

const bundle = readFileSync(new URL('../../demo/files/port-ellery.oneroster.zip', import.meta.url))
const send = async (who: Person, name: string, bytes: Uint8Array, headers = {}): Promise<string> =>
  (await receiveUpload(demo.db, who, name, Object.assign(Readable.from([Buffer.from(bytes)]), { headers })))
    .id
async function until(who: Person, id: string, ...states: UploadReply['state'][]): Promise<UploadReply> {
  for (const end = Date.now() + 30_000; ;) {
    const view = await viewUpload(demo.db, who, id)
    if (states.includes(view.state)) return view
    if (Date.now() > end) throw new Error(`still ${view.state}: ${view.problem}`)
    await new Promise(resolve => setTimeout(resolve, 30))
  }
}
const count = async (table: string): Promise<number> =>
  Number((await demo.db(table).count({ n: '*' }).first())!.n)

describe('a file', () => {
  it('that waits can be claimed by one holder at a time; one who lost it writes nothing; after three tries it is given up', async () => {
    const id = await send(demo.people.marchetti, 'odd.imscc', oddPackage())
    // Whoever works off the registrar's lists or mail is not given a file, nor kept waiting by one.
    expect(await claimJob(demo.db, { fetch: jobKinds.fetch, mail: jobKinds.mail })).toBeNull()
    const first = (await claimJob(demo.db, ofFiles))!
    expect([first.subject, await claimJob(demo.db, ofFiles)]).toEqual([id, null])
    expect(await beat(demo.db, first, { done: 1, total: 2 })).toBe(true)
    const lapse = () => demo.db('jobs').where({ id: first.id }).update({ lease_until: '2000-01-01 00:00:00' })
    await lapse()
    const second = (await claimJob(demo.db, ofFiles))!
    expect([
      second.id,
      await beat(demo.db, first, { done: 2, total: 2 }),
      await beat(demo.db, second, { done: 0, total: 2 }),
    ]).toEqual([first.id, false, true])
    const report = await readFile('odd.imscc', bufferSource(oddPackage()))
    await saveReport(demo.db, id, report, first)
    expect(await loadReport(demo.db, id)).toBeNull()
    await lapse()
    await claimJob(demo.db, ofFiles)
    await lapse()
    expect(await claimJob(demo.db, ofFiles)).toBeNull()
    expect(await viewUpload(demo.db, demo.people.marchetti, id)).toMatchObject({
      state: 'failed',
      problem: expect.stringContaining('3 times'),
    })
    await discardUpload(demo.db, demo.people.marchetti, id)
    expect([await count('uploads'), await count('upload_parts')]).toEqual([0, 0])
  })
  it('without a name, without bytes or over the limit is not kept', async () => {
    const { marchetti } = demo.people
    await expect(send(marchetti, ' / ', oddPackage())).rejects.toMatchObject({
      status: 400,
      told: { errors: [{ field: 'name' }] },
    })
    await expect(send(marchetti, 'a.imscc', new Uint8Array())).rejects.toMatchObject({
      status: 400,
      told: { errors: [{ field: 'file' }] },
    })
    process.env.NORTHTIDE_LIMIT_UPLOAD_BYTES = '1000'
    await expect(send(marchetti, 'a.imscc', new Uint8Array(1001))).rejects.toMatchObject({ status: 413 })
    await expect(
      send(marchetti, 'a.imscc', new Uint8Array(10), { 'content-length': '1001' }),
    ).rejects.toMatchObject({ status: 413 })
    // Four times the limit may lie aside; then something must go first.
    const waiting = []
    for (let n = 0; n < 4; n++) waiting.push(await send(marchetti, 'a.imscc', new Uint8Array(1000)))
    await expect(send(marchetti, 'a.imscc', new Uint8Array(10))).rejects.toMatchObject({ status: 409 })
    for (const id of waiting) await discardUpload(demo.db, marchetti, id)
    delete process.env.NORTHTIDE_LIMIT_UPLOAD_BYTES
    expect([await count('uploads'), await count('upload_parts')]).toEqual([0, 0])
  })
  it('is read in a thread of its own into what the read command says; nothing is in any course', async () => {
    run()
    const items = await count('items')
    const id = await send(demo.people.marchetti, '/tmp/odd.imscc', oddPackage())
    const view = await until(demo.people.marchetti, id, 'read')
    const told = await readFile('odd.imscc', bufferSource(oddPackage()))
    expect(view.report).toMatchObject({
      findings: told.findings,
      counts: told.counts,
      format: 'common-cartridge',
      version: '1.1',
      title: 'HYD 110: Coastal Waters',
    })
    expect(view.report!.outline.map(line => [line.depth, line.title]).slice(0, 3)).toEqual([
      [0, 'Getting your bearings'],
      [1, 'Welcome aboard'],
      [1, 'Chart of the harbour'],
    ])
    expect(view.may).toMatchObject({ keepAsCourse: true, importRoster: false, addClosures: false })
    expect(await count('items')).toBe(items)
    expect((await listUploads(demo.db, demo.people.marchetti)).uploads.map(upload => upload.name)).toEqual([
      'odd.imscc',
    ])
    expect((await listUploads(demo.db, demo.people.okonjo)).uploads).toEqual([])
    await discardUpload(demo.db, demo.people.marchetti, id)
  })
  it('made to do harm is refused, and cannot be taken in', async () => {
    const id = await send(demo.people.marchetti, 'notes.imscc', hostilePackage())
    const view = await until(demo.people.marchetti, id, 'refused')
    expect(view.report!.findings).toMatchObject([
      { severity: 'error', where: 'notes.imscc', message: expect.stringContaining('outside the archive') },
    ])
    await expect(
      askForImport(demo.db, demo.people.marchetti, id, {
        as: 'course',
        term: view.terms[0]!.code,
        code: 'X 1',
        section: '',
        title: 'X',
      }),
    ).rejects.toMatchObject({ status: 409 })
  })
  it('is stopped while it is read: the thread ends and nothing is left of it', async () => {
    const event = (n: number): string =>
      `BEGIN:VEVENT\r\nUID:${n}\r\nDTSTART;VALUE=DATE:20270222\r\nSUMMARY:Day ${n}\r\nEND:VEVENT\r\n`
    const id = await send(
      demo.people.marchetti,
      'long.ics',
      Buffer.from(
        `BEGIN:VCALENDAR\r\n${Array.from({ length: 150_000 }, (_, n) => event(n)).join('')}END:VCALENDAR\r\n`,
      ),
    )
    await until(demo.people.marchetti, id, 'reading')
    await discardUpload(demo.db, demo.people.marchetti, id)
    // The next file is read: what was stopped no longer holds the runner.
    const next = await send(demo.people.marchetti, 'closures.ics', closureCalendar())
    expect((await until(demo.people.marchetti, next, 'read')).report!.events).toHaveLength(2)
    expect(await demo.db('jobs').where({ subject: id }).pluck('state')).toEqual(['cancelled'])
    expect(await demo.db('uploads').where({ id })).toEqual([])
  })
})

describe('taking in', () => {
  it('a package makes one course of its person’s, whole, with the package as it came', async () => {
    const { marchetti } = demo.people
    const id = await send(marchetti, 'odd.imscc', oddPackage())
    const { terms, term } = await until(marchetti, id, 'read')
    expect(term).toBe(terms.find(entry => entry.name === 'Autumn 2026')!.code)
    const request = {
      as: 'course',
      term: term!,
      code: 'HYD 110',
      section: '',
      title: 'Coastal Waters',
    } as const
    await expect(askForImport(demo.db, marchetti, id, { ...request, term: 'never' })).rejects.toMatchObject({
      told: { errors: [{ field: 'term' }] },
    })

    // It fails half-way: nothing of the course is there, and the file can be taken again.
    await demo.db.raw(
      `CREATE TRIGGER fails BEFORE INSERT ON items FOR EACH ROW SIGNAL SQLSTATE '45000' SET MESSAGE_TEXT = 'disk on fire'`,
    )
    await askForImport(demo.db, marchetti, id, request)
    const failed = await until(marchetti, id, 'read')
    await demo.db.raw('DROP TRIGGER fails')
    expect([failed.outcome, failed.problem]).toEqual([null, expect.stringContaining('Nothing was changed')])
    expect(await demo.db('courses').where({ code: 'HYD 110' })).toEqual([])

    await askForImport(demo.db, marchetti, id, request)
    await expect(askForImport(demo.db, marchetti, id, request)).rejects.toMatchObject({ status: 409 })
    const { outcome } = await until(marchetti, id, 'imported')
    const course = await readCourse(demo.db, marchetti, outcome!.courseId!)
    expect(course.nodes.map(node => node.title)).toEqual([
      'Getting your bearings',
      'Welcome aboard',
      'Chart of the harbour',
      'Tide tables, 2019',
      'Work of this unit',
      'Quizzes from the old system',
      'Check-in quiz',
      'Placement',
      'spare.html',
    ])
    expect(course).toMatchObject({
      package: { name: 'odd.imscc', size: oddPackage().length },
      course: { role: 'instructor', students: 0, instructors: ['I. Marchetti'] },
    })
    const welcome = course.nodes.find(node => node.title === 'Welcome aboard')!
    const chart = course.nodes.find(node => node.title === 'Chart of the harbour')!
    expect((await readItem(demo.db, marchetti, outcome!.courseId!, welcome.lineage)).html).toContain(
      `/courses/${outcome!.courseId}/items/${chart.lineage}`,
    )
    const parts: Buffer[] = []
    const { hash, size } = await coursePackage(demo.db, outcome!.courseId!)
    for await (const part of bodyBytes(demo.db, hash, 0, size - 1)) parts.push(part)
    expect(Buffer.concat(parts).equals(oddPackage())).toBe(true)
    expect(await demo.db('upload_parts').where({ upload_id: id })).toEqual([])
    // It goes on standing there when the file is taken off the list.
    await discardUpload(demo.db, marchetti, id)
    expect(await keptPackage(demo.db, outcome!.courseId!)).toMatchObject({ name: 'odd.imscc' })
    await expect(keptPackage(demo.db, demo.courses.empty)).resolves.toBeNull()
  })
  it('a roster is for the academic office, and deletes nobody', async () => {
    const { marchetti, ellwood } = demo.people
    const mine = await send(marchetti, 'roster.zip', bundle)
    await until(marchetti, mine, 'read')
    await expect(askForImport(demo.db, marchetti, mine, { as: 'roster', tables: [] })).rejects.toMatchObject({
      status: 403,
    })
    const before = [await count('people'), await count('enrolments'), await count('courses')]
    const id = await send(ellwood, 'roster.zip', bundle)
    await until(ellwood, id, 'read')
    await askForImport(demo.db, ellwood, id, { as: 'roster', tables: [] })
    expect((await until(ellwood, id, 'imported')).outcome!.text).toContain('Nothing was deleted')
    expect([await count('people'), await count('enrolments'), await count('courses')]).toEqual(before)
  })
  it('a term calendar in JSON makes the term or brings it up to date; another JSON document is told as one', async () => {
    const { ellwood, marchetti } = demo.people
    const summer = readFileSync(new URL('../../demo/files/term-2027-summer.json', import.meta.url), 'utf8')
    const calendar = JSON.parse(summer) as { id: string; name: string; closures: object[] }
    const later = { ...calendar, id: '2028-summer', name: 'Summer 2028', closures: [] }
    const id = await send(ellwood, 'summer.json', Buffer.from(JSON.stringify(later)))
    const view = await until(ellwood, id, 'read')
    expect(view).toMatchObject({
      report: { format: 'term-calendar', title: 'Summer 2028', counts: { closures: 0 } },
      may: { importCalendar: true },
    })
    await askForImport(demo.db, ellwood, id, { as: 'calendar' })
    expect((await until(ellwood, id, 'imported')).outcome?.text).toBe('Summer 2028 was added')
    expect((await loadTermCalendar(demo.db, '2028-summer')).name).toBe('Summer 2028')
    // Teaching staff may look at it only; a fault names its field.
    const mine = await send(marchetti, 'summer.json', Buffer.from(summer))
    expect((await until(marchetti, mine, 'read')).report?.events).toMatchObject([{ title: 'Victoria Day' }])
    await expect(askForImport(demo.db, marchetti, mine, { as: 'calendar' })).rejects.toMatchObject({
      status: 403,
    })
    const refusalOf = async (text: string): Promise<string | undefined> => {
      const sent = await send(marchetti, 'x.json', Buffer.from(text))
      const { report } = await until(marchetti, sent, 'refused')
      return report?.findings[0]?.message
    }
    expect(await refusalOf(JSON.stringify({ ...calendar, timeZone: 'Mars/Olympus' }))).toContain('timeZone')
    expect(await refusalOf('{"recipes": []}')).toContain('a JSON document')
    expect(await refusalOf('{"classes": ')).toBeDefined()
  })
  it('a course in JSON goes into the class it names, where that holds nothing yet', async () => {
    const { ellwood } = demo.people
    const document = (key: string) => ({
      format: 'northtide-course',
      version: 1,
      class: key,
      meetings: [{ weekday: 2, start: '18:00', end: '20:00' }],
      categories: [{ identifier: 'c', title: 'Field notes', weight: '100' }],
    })
    const bring = async (key: string): Promise<UploadReply> => {
      const id = await send(ellwood, 'course.json', Buffer.from(JSON.stringify(document(key))))
      expect((await until(ellwood, id, 'read')).report).toMatchObject({
        format: 'course-json',
        counts: { categories: 1, meetings: 1 },
      })
      await askForImport(demo.db, ellwood, id, { as: 'course-json' })
      return until(ellwood, id, 'imported', 'read')
    }
    const empty = await demo
      .db('courses')
      .whereNotIn('id', demo.db('items').select('course_id'))
      .where({ origin: 'registrar' })
      .first('id', 'source_id')
    const { outcome } = await bring(empty!.source_id)
    const course = await readCourse(demo.db, ellwood, outcome!.courseId!)
    expect(course.categories.map(({ title }) => title)).toEqual(['Field notes'])
    expect(course.course.meetings).toMatchObject([{ weekday: 2, start: '18:00' }])
    const { problem } = await bring('hyd240-01-2026a')
    expect(problem).toContain('Nothing was changed')
  })
  it('days of a table become closures of a term, those that do not fit it none', async () => {
    const { ellwood } = demo.people
    const id = await send(ellwood, 'closures.csv', closureTable())
    const view = await until(ellwood, id, 'read')
    expect(view.report!.table!.roles).toEqual({ title: 1, first: 0, last: 2, order: 'day-month' })
    const [heritage, reading] = view.report!.events
    const term = view.terms.find(entry => entry.name === 'Spring 2027')!.code
    expect(view.term).toBe(term)
    await expect(
      askForImport(demo.db, ellwood, id, {
        as: 'closures',
        term,
        events: [{ title: 'Backwards', firstDay: '2027-03-02', lastDay: '2027-03-01' }],
      }),
    ).rejects.toMatchObject({ status: 400 })
    await askForImport(demo.db, ellwood, id, { as: 'closures', term, events: [heritage!, reading!] })
    await until(ellwood, id, 'imported')
    expect((await loadTermCalendar(demo.db, term)).closures.map(closure => closure.name)).toEqual(
      expect.arrayContaining(['Heritage day', 'Reading week']),
    )
  })
  it('waits while no runner is at work, and is done when one is', async () => {
    await pause()
    const id = await send(demo.people.marchetti, 'closures.ics', closureCalendar())
    expect((await viewUpload(demo.db, demo.people.marchetti, id)).state).toBe('waiting')
    run()
    await until(demo.people.marchetti, id, 'read')
  })
})
