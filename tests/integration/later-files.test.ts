import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { WallTime } from '../../core/calendar/schema'
import type { ImportWish } from '../../shared/api/uploads'
import { fieldKey } from '../../core/gather/gather'
import { present } from '../../core/present'
import { readEdits, undoEdit } from '../../server/editing/edits'
import { insertCourse } from '../../server/courses/courses.queries'
import { addRosterLines, enrolmentIds } from '../../server/courses/staff.queries'
import { readCourse } from '../../server/courses/lines'
import { listTerms } from '../../server/calendars/terms.queries'
import { readGathering } from '../../server/exchange/gathering'
import { broughtNow, sendNow } from '../../server/exchange/now'
import { askForImport, discardUpload } from '../../server/exchange/uploads'
import { listStaff, type Person } from '../../server/people/people.queries'
import { discardPlan } from '../../server/plans/plans'
import { effectOf } from '../../server/runs/effect'
import { itemXml, manifestOf, resourceXml, zipOfFiles } from '../support/archives'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'
import { readShells } from './support'

const demo = useDemo('later')
const marchetti = (): Person => demo.people.marchetti
const { run } = useRolls(demo, marchetti)

/** A package of pages: each by its identifier, with its title and its text. */
const packageOf = (
  pages: Readonly<Record<string, readonly [title: string, text: string]>>,
  title = 'Coastal Waters',
): Buffer =>
  zipOfFiles({
    'imsmanifest.xml': manifestOf(
      itemXml(
        'u1',
        'Getting your bearings',
        Object.entries(pages)
          .map(([id, [name]]) => itemXml(id, name, '', `r-${id}`))
          .join(''),
      ),
      Object.keys(pages)
        .map(id => resourceXml(`r-${id}`, 'webcontent', `${id}.html`))
        .join(''),
      '1.1.0',
      `<lom:lom><lom:general><lom:title><lom:string language="en">${title}</lom:string></lom:title></lom:general></lom:lom>`,
    ),
    ...Object.fromEntries(Object.entries(pages).map(([id, [, text]]) => [`${id}.html`, `<p>${text}</p>`])),
  })
const sent = (name: string, bytes: Buffer | string, who = marchetti()): Promise<string> =>
  sendNow(demo.db, who, name, Buffer.from(bytes))
type CourseWish = Partial<Extract<ImportWish, { as: 'course' }>>
async function brought(id: string, wish: CourseWish, who = marchetti()) {
  await askForImport(demo.db, who, id, { as: 'course', ...wish })
  return broughtNow(demo.db, id)
}
const nodesOf = async (course: string | undefined) =>
  new Map(
    (await readCourse(demo.db, marchetti(), course ?? '')).nodes.map(node => [
      node.identifier ?? node.title,
      node,
    ]),
  )
const first = {
  a: ['Welcome', 'Come aboard.'],
  b: ['Shore log', 'Write it up.'],
  c: ['Chart', 'See the chart.'],
} as const

describe('a course from files, and later files of it', () => {
  it('needs neither a code nor a term: a title and its first and last day make it a course with a term of its own', async () => {
    const id = await sent('coast.imscc', packageOf(first))
    await sent('dates.csv', 'Item,Due\nShore log,2025-10-03\n')
    const { files } = await readGathering(demo.db, marchetti(), id, { term: '' })
    const outcome = await brought(id, {
      title: 'Coastal Waters',
      span: { from: '2025-09-08', to: '2025-12-05' },
      beside: files.map(file => file.id),
    })
    expect(outcome.text).toBe('Kept as Coastal Waters, 8 Sep to 5 Dec 2025')
    expect((await nodesOf(outcome.courseId)).get('b')).toMatchObject({ due: '2025-10-03T23:59' })
    // Nobody else is offered the term; the course stands on the first page all the same.
    expect((await listTerms(demo.db)).map(({ code }) => code)).toEqual([
      '2027-summer',
      '2027-spring',
      '2026-autumn',
    ])
    expect((await readShells(demo, marchetti())).find(row => row.id === outcome.courseId)).toMatchObject({
      code: '',
      title: 'Coastal Waters',
    })
    const again = await sent('coast.imscc', packageOf(first))
    expect((await readGathering(demo.db, marchetti(), again, { term: '' })).courses).toMatchObject([
      { id: outcome.courseId, name: 'Coastal Waters', why: 'items', items: 3, isEmpty: false },
    ])
    await discardUpload(demo.db, marchetti(), again)
    await expect(
      askForImport(demo.db, marchetti(), again, {
        as: 'course',
        title: 'x',
        span: { from: '2025-09-08', to: '2025-09-10' },
      }),
    ).rejects.toThrow()
  })
  it('is compared three ways: what changed in the file is proposed, what was changed here stays, and silence changes nothing', async () => {
    const id = await sent('second.imscc', packageOf(first, 'Second Coast'))
    await sent(
      'second.csv',
      'Item,Due,Points\nShore log,2026-10-02 17:00,10\nWelcome,2026-09-11,\nChart,2026-10-09,5\n',
    )
    const { files } = await readGathering(demo.db, marchetti(), id, { term: '2026-autumn' })
    const { courseId: into = '' } = await brought(id, {
      title: 'Second Coast',
      term: '2026-autumn',
      beside: files.filter(({ name }) => name === 'second.csv').map(file => file.id),
    })
    // The very same package again proposes nothing, though it says nothing of dates.
    const same = await brought(await sent('second.imscc', packageOf(first, 'Second Coast')), { into })
    expect(same.text).toContain('was compared with Second Coast; nothing has changed there yet')
    expect((await effectOf(demo.db, same.planId ?? '')).effect).toMatchObject({
      added: { units: 0, items: 0 },
      replaced: 0,
      updated: { things: 0 },
      removed: { things: 0, places: 0 },
    })
    // Somebody moves a date here; the file has another title, another text, one page more and one fewer.
    await demo
      .db('items')
      .where({ course_id: into, identifier: 'b' })
      .update({ due: '2026-10-05T17:00' as WallTime })
    const later = packageOf(
      {
        a: ['Welcome aboard', 'Come aboard.'],
        b: ['Shore log', 'Write it up again.'],
        d: ['Tide tables', 'Read them.'],
      },
      'Second Coast',
    )
    const laterId = await sent('second.imscc', later)
    await sent('later.csv', 'Item,Due\nWelcome aboard,2026-09-14 09:00\nShore log,2026-10-02 17:00\n')
    const again = await readGathering(demo.db, marchetti(), laterId, { term: '2026-autumn' })
    expect(again.courses[0]).toMatchObject({ id: into, why: 'items', items: 2 })
    const { planId = '', courseId } = await brought(laterId, {
      into,
      beside: again.files.filter(({ name }) => name === 'later.csv').map(file => file.id),
    })
    expect(courseId).toBe(into)
    const before = await nodesOf(into)
    expect(before.size).toBe(4)
    const { effect } = await effectOf(demo.db, planId)
    expect(effect).toMatchObject({ added: { items: 1 }, settle: { places: 0 } })
    await run(planId)
    const after = await nodesOf(into)
    expect(after.get('a')).toMatchObject({ title: 'Welcome aboard', due: '2026-09-14T09:00' })
    expect(after.get('b')).toMatchObject({ due: '2026-10-05T17:00', points: 100_000 })
    expect(after.get('b')?.body).not.toBe(before.get('b')?.body)
    // What the file has no more stays, with what was said of it.
    expect(after.get('c')).toMatchObject({ due: '2026-10-09T23:59', points: 50_000 })
    expect(after.get('d')).toMatchObject({ title: 'Tide tables' })
    // Run again, it proposes nothing.
    const last = await brought(await sent('second.imscc', later), { into })
    expect((await effectOf(demo.db, last.planId ?? '')).effect).toMatchObject({
      added: { units: 0, items: 0 },
      replaced: 0,
      updated: { things: 0 },
      removed: { things: 0, places: 0 },
    })
    // The file stands in no list of courses.
    expect((await readShells(demo, marchetti())).filter(row => row.title === 'Second Coast')).toHaveLength(1)
  })
  it('goes into a class that holds nothing yet, of one who teaches it, and into nobody else’s', async () => {
    const { sorrel } = demo.people
    const { empty } = demo.courses
    const id = await sent('mine.imscc', packageOf(first, 'HYD 240: Mine'))
    expect(
      (await readGathering(demo.db, marchetti(), id, { term: '' })).courses.find(
        course => course.id === empty,
      ),
    ).toMatchObject({ why: 'code', isEmpty: true })
    const theirs = await sent('theirs.imscc', packageOf(first, 'HYD 240: Theirs'), sorrel)
    expect((await readGathering(demo.db, sorrel, theirs, { term: '' })).courses).toEqual([])
    await askForImport(demo.db, sorrel, theirs, { as: 'course', into: empty })
    await expect(broughtNow(demo.db, theirs)).rejects.toMatchObject({ status: 404 })
    expect((await nodesOf(empty)).size).toBe(0)
    const outcome = await brought(id, { into: empty })
    expect(outcome).toMatchObject({ courseId: empty, text: 'Brought into HYD 240-01 Tidal Hydrography' })
    expect((await nodesOf(empty)).get('a')).toMatchObject({ title: 'Welcome' })
  })
  it('takes a table of dates by itself: what was changed in the course stays unless one says otherwise, and all of it can be taken back', async () => {
    const id = await sent('third.imscc', packageOf(first, 'Third Coast'))
    const dates = await sent(
      'third.csv',
      'Item,Due,Category\nShore log,2026-10-02 17:00,Logs\nChart,2026-10-09 17:00,\n',
    )
    const { courseId: into = '' } = await brought(id, {
      title: 'Third Coast',
      term: '2026-autumn',
      beside: [dates],
    })
    const moved = { due: '2026-10-12T17:00' as WallTime }
    await demo.db('items').where({ course_id: into, identifier: 'c' }).update(moved)
    const text = 'Chart,2026-10-16 17:00,Charts\nSHORE LOG,2026-10-23 17:00,\n'
    const sheet = await sent('moved.csv', `Item,Due,Category\n${text}`)
    const { items, files } = await readGathering(demo.db, marchetti(), sheet, { course: into })
    const key = (title: string) => items.find(item => item.title === title)?.identifier ?? ''
    expect(items.filter(({ touched }) => touched.length > 0)).toMatchObject([
      { title: 'Chart', touched: ['due'] },
    ])
    expect(files[0]).toMatchObject({ id: sheet, as: 'sheet' })
    await askForImport(demo.db, marchetti(), sheet, { as: 'said', into })
    expect(await broughtNow(demo.db, sheet)).toMatchObject({
      text: 'Third Coast takes 2 dates and numbers of 2 items',
      findings: [
        { code: 'own-kept', message: expect.stringContaining('1 date or number stays as the course has it') },
      ],
    })
    const stands = await nodesOf(into)
    expect([stands.get('b')?.due, stands.get('c')?.due]).toEqual(['2026-10-23T17:00', '2026-10-12T17:00'])
    const { categories } = await readCourse(demo.db, marchetti(), into)
    expect(categories.map(({ title }) => title)).toEqual(['Logs', 'Charts'])
    expect(stands.get('c')?.category).toBe(categories[1]?.lineage)
    // Declined once, it is not taken by the same file again; chosen, it is.
    const again = await sent('moved.csv', `Item,Due\nChart,2026-10-16 17:00\n`)
    const choices = { [fieldKey(key('Chart'), 'due')]: 'moved.csv' }
    await askForImport(demo.db, marchetti(), again, { as: 'said', into, choices })
    await broughtNow(demo.db, again)
    expect((await nodesOf(into)).get('c')).toMatchObject({ due: '2026-10-16T17:00' })
    const [latest] = (await readEdits(demo.db, into)).edits
    expect(latest?.words).toBe('took 1 date or number of 1 item from moved.csv')
    await undoEdit(demo.db, marchetti(), { id: into, edit: latest?.id ?? '' })
    expect((await nodesOf(into)).get('c')).toMatchObject(moved)
    const far = await sent('far.csv', 'Item,Due\nChart,2106-10-16\n')
    await askForImport(demo.db, marchetti(), far, { as: 'said', into })
    expect((await broughtNow(demo.db, far)).findings).toMatchObject([{ code: 'date-far' }])
    expect((await nodesOf(into)).get('c')).toMatchObject(moved)
  })
  it('a bundle reaches the courses of whoever brings it: line items and results, nobody’s people, and no colleague’s course', async () => {
    const bundle = readFileSync(new URL('../../demo/files/port-ellery.oneroster.zip', import.meta.url))
    const { old } = demo.courses
    const graded = async () => (await readCourse(demo.db, marchetti(), old)).studentData.grades
    const [before, people] = [await graded(), await demo.db('people').count({ n: '*' }).first()]
    // Of a result and a date that are not as the registrar has them, the result is his, and the date the instructor's.
    const item = present(await demo.db('items').where({ course_id: old, title: 'Shore log 1' }).first())
    await demo.db('items').where({ course_id: old, lineage: item.lineage }).update({ due: null })
    await demo.db('grades').where({ item_lineage: item.lineage }).delete()
    expect(await graded()).toBeLessThan(before)
    const mine = await sent('mine.zip', bundle)
    await askForImport(demo.db, marchetti(), mine, { as: 'line-items' })
    const outcome = await broughtNow(demo.db, mine)
    expect(outcome.text).toBe('1 course got 0 dates and numbers of 0 items, and 1,069 results')
    expect(outcome.findings.map(({ code }) => code).sort()).toEqual([
      'own-kept',
      'roster-stays-out',
      'saying-unmet',
    ])
    expect(await graded()).toBe(before)
    expect((await nodesOf(old)).get(item.identifier ?? '')?.due).toBeNull()
    expect(await demo.db('people').count({ n: '*' }).first()).toEqual(people)
    const theirs = await sent('theirs.zip', bundle, demo.people.sorrel)
    await askForImport(demo.db, demo.people.sorrel, theirs, { as: 'line-items' })
    expect(await broughtNow(demo.db, theirs)).toMatchObject({
      text: 'None of its line items reaches a course',
      findings: [
        { code: 'line-items-stay-out', message: expect.stringContaining('others teach it') },
        { code: 'roster-stays-out' },
      ],
    })
  })
  it('two packages with one identifier become two courses, and each is proposed for the course that it is', async () => {
    const ids = []
    for (const name of ['North Coast', 'South Coast']) {
      const id = await sent(
        `${name}.imscc`,
        packageOf({ a: [`${name} welcome`, name], b: ['Log', name] }, name),
      )
      ids.push((await brought(id, { title: name, term: '2026-autumn' })).courseId)
    }
    expect(new Set(ids).size).toBe(2)
    const again = await sent(
      'South.imscc',
      packageOf({ a: ['South Coast welcome', 'x'], b: ['Log', 'y'] }, 'South Coast'),
    )
    const { courses } = await readGathering(demo.db, marchetti(), again, { term: '2026-autumn' })
    expect(courses[0]).toMatchObject({ id: ids[1], why: 'items' })
    expect(courses.map(({ id }) => id)).toContain(ids[0])
  })
  it('a table of another course changes nothing, and says of each line that it met nothing', async () => {
    const id = await sent('fourth.imscc', packageOf(first, 'Fourth Coast'))
    const { courseId: into = '' } = await brought(id, { title: 'Fourth Coast', term: '2026-autumn' })
    const before = await readCourse(demo.db, marchetti(), into)
    const sheet = await sent('bread.csv', 'Item,Due\nFirst loaf,2026-10-02\nSourdough,2026-10-09\n')
    await askForImport(demo.db, marchetti(), sheet, { as: 'said', into })
    const outcome = await broughtNow(demo.db, sheet)
    expect(outcome.text).toBe('Fourth Coast takes 0 dates and numbers of 0 items')
    expect(outcome.findings.map(({ code, where }) => [code, where])).toEqual([
      ['saying-unmet', 'bread.csv, row 2'],
      ['saying-unmet', 'bread.csv, row 3'],
    ])
    expect(await readCourse(demo.db, marchetti(), into)).toEqual(before)
    expect((await readEdits(demo.db, into)).edits).toEqual([])
  })
  it('what somebody looked at is what comes in, though a file is sent anew in between; one that is deleted stops it', async () => {
    const id = await sent('fifth.imscc', packageOf(first, 'Fifth Coast'))
    await sent('fifth.csv', 'Item,Due\nShore log,2026-10-02 17:00\n')
    const { files } = await readGathering(demo.db, marchetti(), id, { term: '2026-autumn' })
    const beside = files.filter(({ name }) => name === 'fifth.csv').map(file => file.id)
    await sent('fifth.csv', 'Item,Due\nShore log,2026-11-27 17:00\n')
    const { courseId } = await brought(id, { title: 'Fifth Coast', term: '2026-autumn', beside })
    expect((await nodesOf(courseId)).get('b')).toMatchObject({ due: '2026-10-02T17:00' })
    const more = await sent('sixth.imscc', packageOf(first, 'Sixth Coast'))
    const gone = await sent('sixth.csv', 'Item,Due\nShore log,2026-10-02 17:00\n')
    await askForImport(demo.db, marchetti(), more, {
      as: 'course',
      title: 'Sixth Coast',
      term: '2026-autumn',
      beside: [gone],
    })
    await discardUpload(demo.db, marchetti(), gone)
    await expect(broughtNow(demo.db, more)).rejects.toMatchObject({ status: 404 })
    expect((await readShells(demo, marchetti())).filter(row => row.title === 'Sixth Coast')).toEqual([])
  })
  it('asks in which order days and months stand, where a table leaves it open, and reads it so', async () => {
    const id = await sent('seventh.imscc', packageOf(first, 'Seventh Coast'))
    const sheet = await sent('seventh.csv', 'Item,Due\nShore log,10/02/2026\nChart,11/12/2026\n')
    const { files } = await readGathering(demo.db, marchetti(), id, { term: '2026-autumn' })
    const table = files.find(file => file.id === sheet)
    expect([table?.order, table?.sayings[0]?.values.due, table?.other?.sayings[0]?.values.due]).toEqual([
      'day-month',
      '2026-02-10',
      '2026-10-02',
    ])
    const { courseId } = await brought(id, {
      title: 'Seventh Coast',
      term: '2026-autumn',
      beside: [sheet],
      otherOrder: [sheet],
    })
    expect((await nodesOf(courseId)).get('c')).toMatchObject({ due: '2026-11-12T23:59' })
  })
  it('a file that is compared disappears with its plan', async () => {
    const files = () => demo.db('courses').where({ origin: 'file' }).pluck('id')
    const id = await sent('eighth.imscc', packageOf(first, 'Eighth Coast'))
    const { courseId: into = '' } = await brought(id, { title: 'Eighth Coast', term: '2026-autumn' })
    const before = await files()
    const { planId = '' } = await brought(await sent('eighth.imscc', packageOf(first, 'Eighth Coast')), {
      into,
    })
    expect((await files()).length).toBe(before.length + 1)
    await discardPlan(demo.db, marchetti(), planId)
    expect(await files()).toEqual(before)
  })
  it('lines of a roster that came with a course are in no other, and go with it', async () => {
    const { term_id: termId, org_id: orgId } = present(
      await demo.db('courses').where({ id: demo.courses.old }).first(),
    )
    const course = {
      sourceId: 'upload:gone',
      termId,
      orgId,
      code: '',
      section: '',
      title: 'Gone',
      language: null,
      personId: null,
    }
    const id = await insertCourse(demo.db, course)
    const names = {
      given_name: 'Brisa',
      family_name: 'Okoye',
      email: null,
      middle_name: null,
      nickname: null,
    }
    const line = { ...names, source_id: 'st-1', number: null, user_name: null, phone_keys: null }
    await addRosterLines(demo.db, id, [line])
    expect([...(await enrolmentIds(demo.db, id)).keys()]).toEqual(['st-1'])
    expect((await listStaff(demo.db, ['okoye'], 10)).length).toBe(0)
    const lines = () => demo.db('people').where({ of_course: id }).select('login', 'password')
    expect(await lines()).toEqual([{ login: null, password: null }])
    await demo.db('enrolments').where({ course_id: id }).delete()
    await demo.db('courses').where({ id }).delete()
    expect(await lines()).toEqual([])
  })
  it('compared by the academic office, a course JSON brings no records about students, and says nothing of each', async () => {
    const { ellwood } = demo.people
    const demoFile = (name: string) => readFileSync(new URL(`../../demo/files/${name}`, import.meta.url))
    const json = await sent('office.course.json', demoFile('hyd-240-01-autumn-2026.course.json'), ellwood)
    const id = await sent('office.imscc', demoFile('hyd-240-01-autumn-2026.imscc'), ellwood)
    const { planId, findings } = await brought(id, { into: demo.courses.old, beside: [json] }, ellwood)
    expect(planId).toBeDefined()
    expect(findings.map(({ code }) => code)).toEqual(['students-stay-out'])
  })
  it('a term calendar beside a package is the term that the course was taught in, and nobody else is offered it', async () => {
    const calendar = {
      id: 'elsewhere-2025',
      name: 'Autumn 2025 elsewhere',
      timeZone: 'America/Vancouver',
      classes: { from: '2025-09-08', to: '2025-12-05' },
      closures: [{ from: '2025-10-13', to: '2025-10-13', name: 'Harvest day' }],
    }
    const file = await sent('elsewhere.json', JSON.stringify(calendar))
    const id = await sent('ninth.imscc', packageOf(first, 'Ninth Coast'))
    const { calendars } = await readGathering(demo.db, marchetti(), id, {})
    expect(calendars).toEqual([
      { id: file, file: 'elsewhere.json', name: calendar.name, code: calendar.id, ...calendar.classes },
    ])
    const outcome = await brought(id, { title: 'Ninth Coast', calendar: file })
    expect(outcome.text).toBe('Kept as Ninth Coast, Autumn 2025 elsewhere')
    const row = await demo
      .db('courses')
      .where('courses.id', outcome.courseId)
      .join('terms', 'terms.id', 'term_id')
      .first('calendar', 'own')
    expect(row?.own).toBe(true)
    expect(row?.calendar).toMatchObject({ timeZone: 'America/Vancouver', closures: calendar.closures })
    expect((await listTerms(demo.db)).map(({ code }) => code)).not.toContain('elsewhere-2025')
    // It is used up with the package.
    const more = await sent('tenth.imscc', packageOf(first, 'Tenth Coast'))
    expect((await readGathering(demo.db, marchetti(), more, {})).calendars).toEqual([])
  })
  it('days of a calendar beside a package become closures of its own term; days that do not fit are refused by name', async () => {
    const events = ['Reading week', '20251110', '20251115', 'Founders day', '20251003', '20251004']
    const event = (at: number): string =>
      `BEGIN:VEVENT\r\nUID:${at}\r\nDTSTAMP:20250101T000000Z\r\nSUMMARY:${events[at]}\r\nDTSTART;VALUE=DATE:${events[at + 1]}\r\nDTEND;VALUE=DATE:${events[at + 2]}\r\nEND:VEVENT\r\n`
    await sent(
      'campus.ics',
      `BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Port Ellery//EN\r\n${event(0)}${event(3)}END:VCALENDAR\r\n`,
    )
    const id = await sent('eleventh.imscc', packageOf(first, 'Eleventh Coast'))
    const { days } = await readGathering(demo.db, marchetti(), id, {})
    expect(days.map(({ file, events: all }) => [file, all.map(({ title }) => title)])).toEqual([
      ['campus.ics', ['Founders day', 'Reading week']],
    ])
    const closures = [{ from: '2025-11-10', to: '2025-11-14', name: 'Reading week' }]
    const span = { from: '2025-09-08', to: '2025-12-05', closures }
    const { courseId } = await brought(id, { title: 'Eleventh Coast', span })
    const row = await demo
      .db('courses')
      .where('courses.id', courseId)
      .join('terms', 'terms.id', 'term_id')
      .first('calendar')
    expect(row?.calendar).toMatchObject({ closures: [{ ...closures[0], kind: '' }] })
    const other = await sent('twelfth.imscc', packageOf(first, 'Twelfth Coast'))
    await expect(
      brought(other, {
        title: 'x',
        span: { ...span, closures: [{ from: span.from, to: span.to, name: 'All of it' }] },
      }),
    ).rejects.toMatchObject({ code: 'days-do-not-fit' })
  })
  it('goes into whichever course one chooses, and the dates of that course’s term are those that can be meant', async () => {
    const id = await sent('thirteenth.imscc', packageOf({ q: ['Lone page', 'Alone.'] }, 'Thirteenth Coast'))
    expect((await readGathering(demo.db, marchetti(), id, {})).courses).toEqual([])
    const { courses } = await readGathering(demo.db, marchetti(), id, { course: demo.courses.old })
    expect(courses).toMatchObject([{ id: demo.courses.old, why: 'chosen', isEmpty: false }])
    const { planId } = await brought(id, { into: demo.courses.old })
    expect(planId).toBeDefined()
    const anothers = await readGathering(demo.db, demo.people.sorrel, id, {}).catch(error => error.code)
    expect(anothers).toBe('not-found')
    // A colleague's course cannot be chosen.
    const mine = await sent('mine.imscc', packageOf(first, 'Mine'), demo.people.sorrel)
    await expect(
      readGathering(demo.db, demo.people.sorrel, mine, { course: demo.courses.old }),
    ).rejects.toMatchObject({ status: 404 })
  })
  it('says what stays out: the settings of a course JSON without its package, and those of a second one', async () => {
    const document = (title: string) =>
      JSON.stringify({
        format: 'northtide-course',
        version: 2,
        class: 'none',
        meetings: [],
        categories: [],
        rubrics: [{ identifier: 'r', title, criteria: [] }],
        items: [{ identifier: 'b', due: '2026-10-16T12:00' }],
      })
    const alone = await sent('fourteenth.json', document('Of the first'))
    const id = await sent('fourteenth.imscc', packageOf(first, 'Fourteenth Coast'))
    const { courseId: into = '' } = await brought(id, { title: 'Fourteenth Coast', term: '2026-autumn' })
    await askForImport(demo.db, marchetti(), alone, { as: 'said', into })
    const said = await broughtNow(demo.db, alone)
    expect(said.findings.map(({ code, message }) => [code, message])).toEqual([
      [
        'rest-stays-out',
        'dates, points, categories and grading periods count; what it says beside them (rubrics) comes together with the package',
      ],
    ])
    const [one, two] = [
      await sent('one.json', document('Of one')),
      await sent('two.json', document('Of two')),
    ]
    const package15 = await sent('fifteenth.imscc', packageOf(first, 'Fifteenth Coast'))
    const { courseId, findings } = await brought(package15, {
      title: 'Fifteenth Coast',
      term: '2026-autumn',
      beside: [one, two],
    })
    expect(findings.map(({ code }) => code)).toEqual(['second-course-json'])
    expect(await demo.db('rubrics').where({ course_id: courseId }).pluck('title')).toEqual(['Of one'])
  })
})
