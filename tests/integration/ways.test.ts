import { countsOf } from '../../core/student-data/student-data'
import { describe, expect, it } from 'vitest'
import { ruleSchema } from '../../core/dates/rule'
import { logMore } from '../../shared/api/log-actions'
import { useDemo } from '../support/demo'
import { loadOutline } from '../../server/courses/content.queries'
import { readCourse } from '../../server/courses/lines'
import { readItem } from '../../server/courses/item'
import { countStudentData } from '../../server/courses/student-data.queries'
import { planDateTable } from '../../server/exchange/dates-out'
import { viewLog } from '../../server/log/log'
import type { Person } from '../../server/people/people.queries'
import { changeDuty, delegate, readPeople } from '../../server/people/people'
import { effectOf } from '../../server/runs/effect'
import { discardPlan, listPlans, readPlan, savePlan } from '../../server/plans/plans'
import { chooseSections } from '../../server/plans/sections'
import {
  planFurtherShells,
  attachShell,
  shareDecisions,
  startAwaited,
  startPlan,
} from '../../server/plans/start'
import { readRun, runPlan } from '../../server/runs/runs'
import { askForRun, cancelRun } from '../../server/runs/run-jobs'
import { enterCode, readShares, revokeShare, shareCourse } from '../../server/sharing/shares'
import { json } from '../../server/db/rows'
import { orgOfCourse } from '../../server/courses/courses.queries'
import {
  changeTemplate,
  deleteTemplate,
  keepsTemplate,
  makeTemplate,
  readTemplates,
  retireTemplate,
} from '../../server/sharing/templates'
import {
  guardNewCourse,
  listShells,
  makeCourse,
  preferCourse,
  shellLines,
  waysInto,
} from '../../server/shells/shells'
import { savePastRule } from '../../server/shells/past'
import { noStudentData } from '../support/student-data'
import { colleagueOf } from './support'

const demo = useDemo('ways')
const colleague = () => colleagueOf(demo)
const count = async (table: string, where = {}): Promise<number> =>
  Number((await demo.db(table).where(where).count({ n: '*' }).first())!.n)
const run = async (who: Person, plan: string): Promise<string> =>
  runPlan(demo.db, who, plan, (await effectOf(demo.db, plan)).fingerprint)

const idOf = async (table: 'terms' | 'orgs', key: string): Promise<string> => {
  const [row] = await demo
    .db(table)
    .where(table === 'terms' ? 'code' : 'source_id', key)
    .select('id')
  return row?.id ?? ''
}

describe('a share code', () => {
  it('opens a course to take from, without its students and what it withheld out, until it is taken back', async () => {
    const { marchetti } = demo.people
    const { person, shell } = await colleague()
    await expect(
      startPlan(demo.db, person, { sources: [demo.courses.old], target: shell }),
    ).rejects.toMatchObject({ status: 404 })
    const { id, code } = await shareCourse(demo.db, marchetti, demo.courses.old, {
      withheld: ['quiz'],
      days: 30,
      org: null,
    })
    expect(
      await enterCode(demo.db, person, ` ${code!.toLowerCase().replace('-', ' ')} `, '192.0.2.1'),
    ).toEqual({
      courseId: demo.courses.old,
    })
    const seen = await readCourse(demo.db, person, demo.courses.old)
    expect(seen).toMatchObject({
      course: { role: 'shared', students: 0 },
      studentData: { students: 0, submissions: 0 },
      package: null,
      may: { share: false },
    })
    expect(seen.nodes.some(node => node.kind === 'quiz')).toBe(false)
    const plan = await startPlan(demo.db, person, { sources: [demo.courses.old], target: shell })
    expect((await effectOf(demo.db, plan)).effect.added.byKind).not.toHaveProperty('quiz')
    expect((await listShells(demo.db, person)).courses.map(course => course.id)).toEqual([shell])

    await revokeShare(demo.db, marchetti, demo.courses.old, id)
    // The plan opens and says which course it is and who took it back; of what the course holds it shows nothing.
    const opened = await readPlan(demo.db, person, plan)
    expect(opened).toMatchObject({
      closed: [{ course: demo.courses.old, how: 'taken-back', by: 'I. Marchetti' }],
      source: { course: { code: 'HYD 240', section: '01', items: 0 }, nodes: [], categories: [] },
    })
    await expect(effectOf(demo.db, plan)).rejects.toMatchObject({
      status: 403,
      told: { title: 'HYD 240-01 may not be rolled from any more' },
    })
    await expect(enterCode(demo.db, person, code!, '192.0.2.1')).rejects.toMatchObject({
      told: { errors: [{ message: expect.stringContaining('taken this code back') as string }] },
    })
    expect((await listPlans(demo.db, person)).plans.map(line => line.id)).toContain(plan)
    await discardPlan(demo.db, person, plan)
  })
  it('that has run out, or was never given, opens nothing', async () => {
    const { person } = await colleague()
    const { code } = await shareCourse(demo.db, demo.people.marchetti, demo.courses.old, {
      withheld: [],
      days: 1,
      org: null,
    })
    process.env.NORTHTIDE_NOW = '2027-01-07T20:00:00-04:00'
    await expect(enterCode(demo.db, person, code!, '192.0.2.1')).rejects.toMatchObject({
      told: { errors: [{ message: expect.stringContaining('valid until') as string }] },
    })
    process.env.NORTHTIDE_NOW = '2027-01-05T20:00:00-04:00'
    await expect(enterCode(demo.db, person, 'AAAA-AAAA', '192.0.2.1')).rejects.toMatchObject({ status: 400 })
    expect(
      (await readShares(demo.db, demo.people.marchetti, demo.courses.old)).shares.map(line => [
        line.state,
        line.uses,
      ]),
    ).toEqual([
      ['holds', 0],
      ['revoked', 1],
    ])
  })
  it('taken back from one of two sources leaves the other, and the one can be taken out of the plan', async () => {
    const { marchetti } = demo.people
    const { person, shell } = await colleague()
    const own = await makeCourse(demo.db, person, {
      code: 'BKG 116',
      section: '',
      title: 'Crusts',
      term: '2027-spring',
    })
    await demo.db('items').insert({
      course_id: own.id,
      lineage: own.id,
      kind: 'page',
      title: 'Crusts of the week',
      position: 0,
      state: 'visible',
      exam: false,
      settings: json({}),
    })
    const { id, code } = await shareCourse(demo.db, marchetti, demo.courses.old, {
      withheld: [],
      days: null,
      org: null,
    })
    await enterCode(demo.db, person, code!, '192.0.2.1')
    const plan = await startPlan(demo.db, person, { sources: [demo.courses.old, own.id], target: shell })
    await revokeShare(demo.db, marchetti, demo.courses.old, id)
    const opened = await readPlan(demo.db, person, plan)
    expect(opened.closed.map(({ course }) => course)).toEqual([demo.courses.old])
    expect(opened.source.nodes).toEqual([])
    expect(opened.more[0]?.nodes.map(({ title }) => title)).toEqual(['Crusts of the week'])
    await savePlan(demo.db, person, plan, opened.revision, { document: opened.document, sources: [own.id] })
    const { effect } = await effectOf(demo.db, plan)
    expect(effect.added.items).toBe(1)
    expect((await readPlan(demo.db, person, plan)).closed).toEqual([])
    // The log says what became of the sources, in words, and is searched as a line reads.
    const find = async (q: string) => (await viewLog(demo.db, person, { q })).lines
    const [line] = await find('changed the sources BKG 115-01')
    expect(line?.detail).toEqual({ added: [], removed: ['HYD 240-01, Autumn 2026'] })
    expect(logMore(line!.action, line!.detail)).toBe('took out HYD 240-01, Autumn 2026')
    expect((await find('A. Quist sources')).length).toBe(1)
    await discardPlan(demo.db, person, plan)
  })
  it('for a department opens it to those who work there, and to no others', async () => {
    const { person, shell } = await colleague()
    const { id } = await shareCourse(demo.db, demo.people.marchetti, demo.courses.old, {
      withheld: [],
      days: null,
      org: (await readShares(demo.db, demo.people.marchetti, demo.courses.old)).departments[0]!.id,
    })
    await expect(
      startPlan(demo.db, person, { sources: [demo.courses.old], target: shell }),
    ).rejects.toMatchObject({ status: 404 })
    await demo.db('enrolments').insert({
      id: '0199aaaa-0000-7000-8000-000000000009',
      course_id: demo.courses.template,
      person_id: person.id,
      role: 'assistant',
      origin: 'registrar',
    })
    expect(await startPlan(demo.db, person, { sources: [demo.courses.old], target: shell })).toBeTruthy()
    await demo.db('enrolments').where({ id: '0199aaaa-0000-7000-8000-000000000009' }).delete()
    await revokeShare(demo.db, demo.people.marchetti, demo.courses.old, id)
  })
})

describe('when courses are past', () => {
  it('is laid down by the office, at the revision it was read at, and written into the log', async () => {
    const { ellwood, marchetti } = demo.people
    const seen = async (who: Person) => (await listShells(demo.db, who)).pastRule
    expect(await seen(marchetti)).toEqual({
      pastAfter: 0,
      archivedAfter: 730,
      revision: 0,
      may: { edit: false },
    })
    await savePastRule(demo.db, ellwood, 0, { pastAfter: 40, archivedAfter: 365 })
    expect(await seen(ellwood)).toMatchObject({ pastAfter: 40, revision: 1, may: { edit: true } })
    const terms = (await listShells(demo.db, marchetti)).terms
    expect(terms.find(term => term.code === '2026-autumn')?.when).toBe('underway')
    await expect(savePastRule(demo.db, ellwood, 0, { pastAfter: 1, archivedAfter: 2 })).rejects.toMatchObject(
      { status: 409 },
    )
    await savePastRule(demo.db, ellwood, 1, { pastAfter: 0, archivedAfter: 730 })
    const [line] = (await viewLog(demo.db, ellwood, { q: 'changed when courses' })).lines
    expect(logMore(line!.action, line!.detail)).toBe('past after 0 days · archived after 730 days')
  })
})
describe('a template', () => {
  it('is made from a course, without students, and is one’s own until it is offered', async () => {
    const { marchetti } = demo.people
    const { person } = await colleague()
    const bodies = await count('bodies')
    const { id } = await makeTemplate(demo.db, marchetti, demo.courses.old, {
      title: 'Tides, week by week',
      subject: 'Hydrography',
      arrangement: 'weeks',
      about: '',
    })
    expect(await count('bodies')).toBe(bodies)
    expect(await countStudentData(demo.db, id)).toEqual({ students: 0, ...noStudentData })
    expect((await loadOutline(demo.db, id)).map(node => [node.title, node.due])).toEqual(
      (await loadOutline(demo.db, demo.courses.old)).map(node => [node.title, node.due]),
    )
    const [mine] = (await readTemplates(demo.db, marchetti)).templates
    expect(mine).toMatchObject({
      subject: 'Hydrography',
      own: true,
      offeredTo: [],
      course: { id, title: 'Tides, week by week', origin: 'template' },
    })
    expect(mine!.shape.length).toBeGreaterThan(5)
    expect((await readTemplates(demo.db, person)).templates).toEqual([])
    await shareCourse(demo.db, demo.people.brandt, id, {
      withheld: [],
      days: null,
      org: await idOf('orgs', 'org-hydrography'),
    })
    expect((await readTemplates(demo.db, demo.people.okonjo)).templates.map(line => line.course.id)).toEqual([
      id,
    ])
    await expect(
      makeTemplate(demo.db, marchetti, demo.courses.empty, {
        title: 'Nothing',
        subject: 'x',
        arrangement: 'units',
        about: '',
      }),
    ).rejects.toMatchObject({ status: 409 })
    expect(await count('courses', { title: 'Nothing' })).toBe(0)
  })
  it('is renamed, retired and deleted by whoever made it; what was rolled from it stays', async () => {
    const { marchetti, okonjo, ellwood } = demo.people
    const facts = { title: 'Harbour days', subject: 'Hydrography', arrangement: 'units', about: '' } as const
    const { id } = await makeTemplate(demo.db, marchetti, demo.courses.old, facts)
    const mine = async (who: Person) =>
      (await readTemplates(demo.db, who)).templates.find(line => line.course.id === id)
    const asked = (person: Person) => keepsTemplate.allow({ db: demo.db, person, params: { id } })
    expect([await asked(marchetti), await asked(ellwood)]).toEqual([true, true])
    expect(await asked(okonjo)).toMatchObject({ status: 404 })
    await changeTemplate(demo.db, marchetti, id, { ...facts, title: 'Harbour weeks', arrangement: 'weeks' })
    expect(await mine(marchetti)).toMatchObject({ course: { title: 'Harbour weeks' }, arrangement: 'weeks' })

    const { shell, person } = await colleague()
    const { code } = await shareCourse(demo.db, marchetti, id, { withheld: [], days: null, org: null })
    await enterCode(demo.db, person, code!, '192.0.2.1')
    const plan = await startPlan(demo.db, person, { sources: [id], target: shell })
    await run(person, plan)
    const filled = await loadOutline(demo.db, shell)
    expect(filled.length).toBeGreaterThan(90)

    await retireTemplate(demo.db, marchetti, id, true)
    expect((await mine(marchetti))?.retired).toBe(true)
    expect(await mine(person)).toBeUndefined()
    await expect(
      startPlan(demo.db, marchetti, { sources: [id], target: demo.courses.empty }),
    ).rejects.toMatchObject({ told: { title: 'This template has been retired' } })
    await retireTemplate(demo.db, marchetti, id, false)
    expect((await mine(marchetti))?.retired).toBe(false)

    await deleteTemplate(demo.db, marchetti, id)
    expect(await mine(marchetti)).toBeUndefined()
    expect(await loadOutline(demo.db, shell)).toEqual(filled)
    const record = (await listPlans(demo.db, person)).plans.find(line => line.id === plan)
    expect((await readRun(demo.db, person, record!.run!.id)).source.title).toBe('Harbour weeks')
    await expect(retireTemplate(demo.db, marchetti, id, true)).rejects.toMatchObject({ status: 404 })
  })
})

describe('a plan', () => {
  it('of several sources takes them in order: what the first holds does not come again from the second', async () => {
    const { marchetti } = demo.people
    const [template] = (await readTemplates(demo.db, marchetti)).templates
    const plan = await startPlan(demo.db, marchetti, {
      sources: [template!.course.id, demo.courses.template],
      target: demo.courses.empty,
    })
    const one = await loadOutline(demo.db, template!.course.id)
    const two = await loadOutline(demo.db, demo.courses.template)
    const first = new Set(one.map(node => node.lineage))
    const reply = await readPlan(demo.db, marchetti, plan)
    expect([reply.source.course.id, ...reply.more.map(side => side.course.id)]).toEqual([
      template!.course.id,
      demo.courses.template,
    ])
    const { effect } = await effectOf(demo.db, plan)
    // What is taken along of it names the dates of every source.
    expect((await planDateTable(demo.db, plan)).rows).toHaveLength(effect.added.items)
    expect(effect.added.items).toBe(
      one.filter(node => node.type === 'item').length +
        two.filter(node => node.type === 'item' && !first.has(node.lineage)).length,
    )
    const id = await run(marchetti, plan)
    const there = await loadOutline(demo.db, demo.courses.empty)
    expect(there.filter(node => node.type === 'item')).toHaveLength(effect.added.items)
    const record = await readRun(demo.db, marchetti, id)
    expect(record.entries.every(entry => entry.title !== '')).toBe(true)
    await expect(
      savePlan(demo.db, marchetti, plan, 1, {
        document: reply.document,
        sources: [demo.courses.old, demo.courses.old],
      }),
    ).rejects.toMatchObject({ status: 409 })
  })
  it('against a term has a calendar and no shell; the shell is attached when it has come', async () => {
    const { marchetti, ellwood } = demo.people
    const plan = await startAwaited(demo.db, marchetti, {
      sources: [demo.courses.old],
      term: '2027-summer',
      mode: 'roll',
    })
    expect(
      await startAwaited(demo.db, marchetti, {
        sources: [demo.courses.old],
        term: '2027-summer',
        mode: 'roll',
      }),
    ).toBe(plan)
    const before = await readPlan(demo.db, marchetti, plan)
    expect(before).toMatchObject({
      target: { course: { origin: 'awaited', term: { code: '2027-summer' }, students: 0 } },
      may: { edit: true, run: false },
      fits: [],
    })
    await expect(run(marchetti, plan)).rejects.toMatchObject({ status: 409 })
    expect((await listShells(demo.db, marchetti)).waiting.map(entry => entry.planId)).toEqual([plan])
    const summer = await idOf('terms', '2027-summer')
    const org = (await orgOfCourse(demo.db, demo.courses.old)) ?? ''
    const shell = '0199aaaa-0000-7000-8000-000000000010'
    await demo.db('courses').insert({
      id: shell,
      source_id: 'hyd240-summer',
      term_id: summer,
      org_id: org,
      code: 'HYD 240',
      section: '01',
      title: 'Tidal Hydrography',
      created_at: '2027-01-01 00:00:00',
    })
    await demo.db('enrolments').insert({
      id: shell,
      course_id: shell,
      person_id: marchetti.id,
      role: 'instructor',
      is_primary: true,
      origin: 'registrar',
    })
    expect((await readPlan(demo.db, marchetti, plan)).fits.map(course => course.id)).toEqual([shell])
    expect((await shellLines(demo.db, marchetti, [shell]))[0]!.fits).toMatchObject([{ planId: plan }])
    await expect(attachShell(demo.db, marchetti, plan, demo.courses.template)).rejects.toMatchObject({
      status: 400,
    })
    await attachShell(demo.db, marchetti, plan, shell)
    expect(await count('courses', { origin: 'awaited' })).toBe(0)
    await run(ellwood, plan)
    expect((await loadOutline(demo.db, shell)).length).toBe(
      (await loadOutline(demo.db, demo.courses.old)).length,
    )
    expect((await listShells(demo.db, marchetti)).waiting).toEqual([])
  })
  it('is made for further shells with the same decisions, each with its own dates, and gives them new decisions when asked', async () => {
    const { marchetti } = demo.people
    const made = await makeCourse(demo.db, marchetti, {
      term: '2027-spring',
      code: 'HYD 241',
      section: '',
      title: 'Tides for Sailors',
    })
    const plan = await startPlan(demo.db, marchetti, {
      sources: [demo.courses.old],
      target: demo.courses.template,
    })
    expect(await planFurtherShells(demo.db, marchetti, plan, [made.id])).toEqual({ made: 1, there: 0 })
    expect(await planFurtherShells(demo.db, marchetti, plan, [made.id])).toEqual({ made: 0, there: 1 })
    const reply = await readPlan(demo.db, marchetti, plan)
    expect(reply.set.map(entry => [entry.course.id, entry.state])).toEqual([[made.id, 'draft']])
    const leave = reply.source.nodes.filter(node => node.kind === 'quiz').map(node => node.lineage)
    await savePlan(demo.db, marchetti, plan, reply.revision, {
      document: { ...reply.document, carry: { ...reply.document.carry, leave } },
    })
    expect(await shareDecisions(demo.db, marchetti, plan)).toEqual({ made: 1, there: 0 })
    expect((await readPlan(demo.db, marchetti, reply.set[0]!.id)).document.carry.leave).toEqual(leave)
    await expect(
      planFurtherShells(demo.db, demo.people.brandt, plan, [demo.courses.empty]),
    ).rejects.toMatchObject({
      status: 403,
    })
    await discardPlan(demo.db, marchetti, reply.set[0]!.id)
    await discardPlan(demo.db, marchetti, plan)
  })
  it('sets names and windows with the run, keeps them when the registrar says its own again, and refuses what cannot be meant', async () => {
    const { marchetti } = demo.people
    const { id: target } = await makeCourse(demo.db, marchetti, {
      term: '2027-spring',
      code: 'HYD 242',
      section: '',
      title: 'Tides for Pilots',
    })
    const plan = await startPlan(demo.db, marchetti, { sources: [demo.courses.old], target })
    const { document, revision } = await readPlan(demo.db, marchetti, plan)
    expect(document.windows).toEqual({
      enrolFrom: '2026-12-07',
      enrolTo: '2027-01-31',
      openFrom: '2026-12-30',
      openTo: '2027-05-05',
    })
    const windows = { ...document.windows!, openTo: '2026-12-01' }
    await savePlan(demo.db, marchetti, plan, revision, {
      document: { ...document, names: { title: 'Pilotage', label: 'Evenings' }, windows },
    })
    await expect(run(marchetti, plan)).rejects.toMatchObject({
      status: 409,
      told: { title: expect.stringContaining('windows') as string },
    })
    expect(await loadOutline(demo.db, target)).toEqual([])
    await savePlan(demo.db, marchetti, plan, revision + 1, {
      document: { ...document, names: { title: 'Pilotage', label: 'Evenings' } },
    })
    const record = await readRun(demo.db, marchetti, await run(marchetti, plan))
    expect(record.course).toEqual(
      expect.arrayContaining([
        { field: 'shown_title', before: 'Tides for Pilots', after: 'Pilotage' },
        { field: 'open_to', before: null, after: '2027-05-05' },
      ]),
    )
    expect((await readCourse(demo.db, marchetti, target)).course).toMatchObject({
      title: 'Pilotage',
      label: 'Evenings',
      windows: document.windows,
    })
    await expect(
      makeCourse(demo.db, marchetti, {
        term: '2027-spring',
        code: 'HYD 243',
        section: '',
        title: 'Copy of Pilotage',
      }),
    ).rejects.toMatchObject({ told: { errors: [{ field: 'title' }] } })
  })
  it('of one content for several sections: each shows it with the dates of its own meetings, and keeps its own roster', async () => {
    const { marchetti } = demo.people
    const make = async (section: string, weekday: 1 | 2 | 4): Promise<string> => {
      const { id } = await makeCourse(demo.db, marchetti, {
        term: '2027-spring',
        code: 'HYD 260',
        section,
        title: 'Tides in Two Hours',
      })
      await demo.db('meetings').insert({ course_id: id, position: 0, weekday, start: '10:00', end: '11:00' })
      return id
    }
    const [one, two] = [await make('01', 1), await make('02', 4)]
    const plan = await startPlan(demo.db, marchetti, { sources: [demo.courses.old], target: one })
    const { document, revision } = await readPlan(demo.db, marchetti, plan)
    await savePlan(demo.db, marchetti, plan, revision, {
      document: { ...document, dates: { ...document.dates, rule: ruleSchema.parse({ method: 'meetings' }) } },
    })
    const student = async (course: string, source: string): Promise<void> => {
      await demo.db.raw(
        `INSERT INTO enrolments (id, course_id, person_id, role, origin) SELECT UUID(), ?, id, 'student', 'hand' FROM people WHERE source_id = ?`,
        [course, source],
      )
    }
    await student(one, 'st-2026-001')
    await student(two, 'st-2026-001')
    const sections = async () =>
      (await readPlan(demo.db, marchetti, plan)).sections.find(entry => entry.course.id === two)!
    expect((await sections()).faults).toEqual(['1 student is on both rosters'])
    await expect(chooseSections(demo.db, marchetti, plan, [two])).rejects.toMatchObject({ status: 409 })
    await demo.db('enrolments').where({ course_id: two, role: 'student' }).delete()
    await student(two, 'st-2026-002')
    const stale = (await effectOf(demo.db, plan)).fingerprint
    await chooseSections(demo.db, marchetti, plan, [two])
    await expect(runPlan(demo.db, marchetti, plan, stale)).rejects.toMatchObject({ status: 409 })
    // What the section gets is told before the run, and its own label and windows are decided with the rest.
    const chosen = await readPlan(demo.db, marchetti, plan)
    const windows = { enrolFrom: null, enrolTo: null, openFrom: '2027-01-04', openTo: null }
    await savePlan(demo.db, marchetti, plan, chosen.revision, {
      document: { ...chosen.document, sections: { [two]: { label: 'Thursdays', windows } } },
    })
    const told = (await effectOf(demo.db, plan)).sections
    expect(told).toMatchObject([{ course: two, byMeetings: true }])
    const items = await count('items')
    const record = await readRun(demo.db, marchetti, await run(marchetti, plan))
    expect(record.sections.map(section => section.id)).toEqual([two])
    expect((await count('items')) - items).toBe(record.effect.added.items)
    const [first, second] = [await loadOutline(demo.db, one), await loadOutline(demo.db, two)]
    expect(second.map(node => [node.lineage, node.title])).toEqual(
      first.map(node => [node.lineage, node.title]),
    )
    const written = first.flatMap((node, at) =>
      (['opens', 'due', 'closes'] as const)
        .filter(field => node[field] !== second[at]![field])
        .map(field => ({
          lineage: node.lineage,
          title: node.title,
          field,
          shell: node[field],
          section: second[at]![field],
        })),
    )
    expect(told[0]!.differences).toEqual(written)
    expect((await readCourse(demo.db, marchetti, two)).course).toMatchObject({ label: 'Thursdays', windows })
    expect((await readCourse(demo.db, marchetti, one)).course.label).not.toBe('Thursdays')
    const weekdays = (nodes: typeof first): number[] =>
      [...new Set(nodes.flatMap(node => node.due ?? []).map(due => new Date(`${due}Z`).getUTCDay()))].sort()
    expect(
      first.filter((node, at) => node.due !== null && node.due !== second[at]!.due).length,
    ).toBeGreaterThan(20)
    expect(weekdays(first)).not.toEqual(weekdays(second))
    expect(await readCourse(demo.db, marchetti, two)).toMatchObject({
      course: { sharesWith: one, items: record.effect.added.items, students: 1 },
    })
    expect(
      (await readItem(demo.db, marchetti, two, second.find(node => node.kind === 'page')!.lineage)).html,
    ).toBeTruthy()
    // It is no shell to roll into by itself, and can be rolled from with its own dates.
    await expect(
      startPlan(demo.db, marchetti, { sources: [demo.courses.old], target: two }),
    ).rejects.toMatchObject({ status: 409 })
    const { id: next } = await makeCourse(demo.db, marchetti, {
      term: '2027-summer',
      code: 'HYD 260',
      section: '',
      title: 'Tides in One Hour',
    })
    await run(marchetti, await startPlan(demo.db, marchetti, { sources: [two], target: next }))
    expect((await loadOutline(demo.db, next)).length).toBe(second.length)
    // What comes into the content later comes into both, dated in each.
    const more = await startPlan(demo.db, marchetti, { sources: [demo.courses.template], target: one })
    await run(marchetti, more)
    expect((await loadOutline(demo.db, two)).length).toBeGreaterThan(second.length)
  })
  it('shows who is writing into its shell, and waits for them', async () => {
    const { marchetti, ellwood } = demo.people
    const { id: target } = await makeCourse(demo.db, marchetti, {
      term: '2027-spring',
      code: 'HYD 244',
      section: '',
      title: 'Tides for Painters',
    })
    const plan = await startPlan(demo.db, marchetti, { sources: [demo.courses.old], target })
    const other = await startPlan(demo.db, marchetti, { sources: [demo.courses.template], target })
    const asked = { fingerprint: (await effectOf(demo.db, other)).fingerprint, origin: '' }
    await askForRun(demo.db, ellwood, other, asked)
    expect((await readPlan(demo.db, marchetti, plan)).writing).toMatchObject({ by: 'M. Ellwood' })
    expect((await shellLines(demo.db, marchetti, [target]))[0]!.writing).toMatchObject({ by: 'M. Ellwood' })
    const own = { fingerprint: (await effectOf(demo.db, plan)).fingerprint, origin: '' }
    await expect(askForRun(demo.db, marchetti, plan, own)).rejects.toMatchObject({
      status: 409,
      told: { detail: expect.stringContaining('M. Ellwood') as string },
    })
    await cancelRun(demo.db, ellwood, other)
    await run(marchetti, plan)
    // A draft hides no run: the row tells both, and one's own draft before a colleague's.
    const { okonjo } = demo.people
    await demo.db.raw(
      `INSERT INTO enrolments (id, course_id, person_id, role, origin) VALUES (UUID(), ?, ?, 'assistant', 'hand')`,
      [target, okonjo.id],
    )
    const mine = await startPlan(demo.db, marchetti, { sources: [demo.courses.template], target })
    const theirs = await startPlan(demo.db, okonjo, { sources: [demo.courses.old], target })
    const [row] = await shellLines(demo.db, marchetti, [target])
    expect([row?.plan?.id, row?.lastRun?.by]).toEqual([mine, 'I. Marchetti'])
    expect((await shellLines(demo.db, okonjo, [target]))[0]?.plan?.id).toBe(theirs)
  })
  it('in place moves the course itself, after a snapshot that holds all of it, students and their work', async () => {
    const { marchetti } = demo.people
    const old = demo.courses.old
    const students = await countStudentData(demo.db, old)
    const outline = await loadOutline(demo.db, old)
    await expect(
      startAwaited(demo.db, marchetti, { sources: [old], term: '2026-autumn', mode: 'in-place' }),
    ).rejects.toMatchObject({ status: 400 })
    await expect(
      startAwaited(demo.db, demo.people.okonjo, { sources: [old], term: '2027-summer', mode: 'in-place' }),
    ).rejects.toMatchObject({ status: 403 })
    const plan = await startAwaited(demo.db, marchetti, {
      sources: [old],
      term: '2027-summer',
      mode: 'in-place',
    })
    const { effect } = await effectOf(demo.db, plan)
    expect(effect.added).toEqual({ units: 0, items: 0, categories: 0, byKind: {} })
    expect(effect.kept.items).toBe(outline.filter(node => node.type === 'item').length)
    const planned = await readPlan(demo.db, marchetti, plan)
    expect(planned).toMatchObject({ mode: 'in-place', may: { run: true } })
    const record = await readRun(demo.db, marchetti, await run(marchetti, plan))
    const snapshot = record.snapshot!
    expect(snapshot).toMatchObject({ origin: 'snapshot', term: { name: 'Autumn 2026' } })
    expect(await countStudentData(demo.db, snapshot.id)).toEqual(students)
    expect(await loadOutline(demo.db, snapshot.id)).toEqual(outline)
    const after = await readCourse(demo.db, marchetti, old)
    expect(after).toMatchObject({
      course: { term: { name: 'Summer 2027' }, items: snapshot.items },
      // What last term's students did is in the snapshot alone; who they were, until the office's sweep.
      studentData: { ...countsOf(() => 0), students: students.students },
    })
    expect(after.nodes.filter(node => node.due).length).toBeGreaterThan(10)
    expect(after.nodes.every(node => node.due === null || node.due > '2027-05')).toBe(true)
    expect(effect.dates.dates).toBe(
      after.nodes.reduce((sum, node) => sum + [node.opens, node.due, node.closes].filter(Boolean).length, 0),
    )
    // What the registrar says of the old class is said of the snapshot from now on.
    expect(await demo.db('courses').where({ source_id: 'hyd240-01-2026a' }).first('id')).toEqual({
      id: snapshot.id,
    })
    expect((await readPlan(demo.db, marchetti, plan)).source.course.id).toBe(snapshot.id)
    await expect(
      startPlan(demo.db, marchetti, { sources: [demo.courses.template], target: snapshot.id }),
    ).rejects.toMatchObject({ status: 409 })
  })
})

describe('people', () => {
  it('an assistant runs where an instructor lets them, and not where the registrar has taken them off', async () => {
    const { marchetti, okonjo } = demo.people
    const state = async () => (await shellLines(demo.db, okonjo, [demo.courses.template]))[0]?.mayRun
    expect(await state()).toBe(false)
    await delegate(demo.db, marchetti, demo.courses.template, { person: okonjo.id, mayRun: true })
    expect(await state()).toBe(true)
    await demo
      .db('enrolments')
      .where({ person_id: okonjo.id, course_id: demo.courses.template })
      .update({ dropped_at: '2027-01-01 00:00:00' })
    expect(await state()).toBeUndefined()
    await expect(
      delegate(demo.db, marchetti, demo.courses.template, { person: okonjo.id, mayRun: false }),
    ).rejects.toMatchObject({ status: 400 })
    await demo
      .db('enrolments')
      .where({ person_id: okonjo.id, course_id: demo.courses.template })
      .update({ dropped_at: null, may_run: false })
  })
  it('duties are given and taken; the last of the academic office stays', async () => {
    const { ellwood, okonjo } = demo.people
    const org = (await readPeople(demo.db, '')).orgs.find(
      entry => entry.name === 'Department of Hydrography',
    )!.id
    await changeDuty(demo.db, ellwood, okonjo.id, { org, duty: 'coordinator', holds: true })
    expect((await readPeople(demo.db, 'okon')).people[0]).toMatchObject({
      duties: [{ duty: 'coordinator' }],
      instructs: 0,
    })
    await changeDuty(demo.db, ellwood, okonjo.id, { org, duty: 'coordinator', holds: false })
    const own = (await readPeople(demo.db, 'ellwood')).people[0]!
    await expect(
      changeDuty(demo.db, ellwood, ellwood.id, { org: own.duties[0]!.orgId, duty: 'office', holds: false }),
    ).rejects.toMatchObject({ status: 409 })
    expect((await readPeople(demo.db, 'ellwood')).people[0]!.duties).toHaveLength(1)
  })
  it('find in the log what was done, by whom; others see what is theirs', async () => {
    const read = async (who: Person, q: string) => (await viewLog(demo.db, who, { q })).lines
    expect((await read(demo.people.ellwood, 'rolled place marchetti'))[0]).toMatchObject({
      by: 'I. Marchetti',
      action: 'plan.run-in-place',
      course: { code: 'HYD 240' },
    })
    expect((await read(demo.people.ellwood, 'duty')).length).toBeGreaterThan(1)
    expect(await read(demo.people.marchetti, 'duty')).toEqual([])
    const { person } = await colleague()
    expect(
      (await read(person, '')).every(line => line.by === 'A. Quist' || line.course?.code === 'BKG 115'),
    ).toBe(true)
    const first = await viewLog(demo.db, demo.people.ellwood, { q: '', from: '2027-01-05', to: '2027-01-06' })
    expect(first.lines.length).toBeGreaterThan(20)
    expect(
      (await viewLog(demo.db, demo.people.ellwood, { q: '', before: first.lines[3]!.id })).lines[0],
    ).toEqual(first.lines[4])
    expect((await viewLog(demo.db, demo.people.ellwood, { q: '', to: '2026-12-31' })).lines).toEqual([])
  })
})

describe('the first page', () => {
  it('keeps what a person pins, hides and calls by a name of their own for them alone', async () => {
    const { marchetti, okonjo } = demo.people
    await preferCourse(demo.db, marchetti, demo.courses.empty, { pinned: true, label: 'Morning people' })
    await preferCourse(demo.db, marchetti, demo.courses.empty, { hidden: true })
    const of = async (who: Person) =>
      (await listShells(demo.db, who)).courses.find(course => course.id === demo.courses.empty)
    expect(await of(marchetti)).toMatchObject({ pinned: true, hidden: true, label: 'Morning people' })
    expect(await of(okonjo)).toMatchObject({ pinned: false, hidden: false, label: null })
  })
  it('suggests no shell as a source that only holds what a template put there', async () => {
    // The template's shell of spring is nearer to summer than the course of autumn, and nobody has rolled into it.
    expect(await count('runs', { target_course_id: demo.courses.template })).toBe(0)
    const { id } = await makeCourse(demo.db, demo.people.marchetti, {
      term: '2027-summer',
      code: 'HYD 240',
      section: '02',
      title: 'Tidal Hydrography again',
    })
    const line = (await shellLines(demo.db, demo.people.marchetti, [id]))[0]!
    expect(line.suggestion?.course.id).not.toBe(demo.courses.template)
    expect(line.suggestion).not.toBeNull()
  })
  it('says what a way costs: bodies are shared, so that rolling adds rows only', async () => {
    const ways = await waysInto(demo.db, demo.people.marchetti, demo.courses.template)
    expect(ways.suggestions.length).toBeGreaterThan(0)
    expect(ways.storage.suggestion).toMatchObject({ own: 0 })
    expect(ways.storage.suggestion!.bodies).toBeGreaterThan(10_000)
  })
  it('warns of the shell with a roster that a new course would stand beside', async () => {
    const guard = await guardNewCourse(demo.db, demo.people.marchetti, {
      term: '2027-spring',
      code: 'hyd-240',
      section: '',
      title: 'Tidal Hydrography',
    })
    expect(guard.shells.map(shell => shell.section).sort()).toEqual(['01', '02'])
    expect(guard.shells.every(shell => shell.students > 0)).toBe(true)
  })
})
