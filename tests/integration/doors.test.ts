import { beforeAll, describe, expect, it } from 'vitest'
import { noRoster, type Roster } from '../../core/formats/oneroster/read'
import { isTheOffice } from '../../server/auth/may'
import { insertSession, seeSession } from '../../server/auth/sessions.queries'
import { departmentsOf, readableCourses } from '../../server/courses/access'
import { loadOutline } from '../../server/courses/content.queries'
import { readCourse } from '../../server/courses/lines'
import { readItem, readItemFile } from '../../server/courses/item'
import { viewLog } from '../../server/log/log'
import { changeDuty } from '../../server/people/people'
import { findPerson, setDuty, type Person } from '../../server/people/people.queries'
import { runsPlan } from '../../server/plans/access'
import { effectOf } from '../../server/runs/effect'
import { readPlan } from '../../server/plans/plans'
import { chooseSections } from '../../server/plans/sections'
import { startAwaited, startPlan } from '../../server/plans/start'
import { importRoster, type RosterOptions } from '../../server/registrar/roster'
import { runPlan } from '../../server/runs/runs'
import { enterCode, revokeShare, shareCourse } from '../../server/sharing/shares'
import { makeTemplate, readTemplates } from '../../server/sharing/templates'
import { useDemo } from '../support/demo'
import { colleagueOf } from './support'

const demo = useDemo('doors')
const facts = { title: 'Taken along', subject: 'Hydrography', arrangement: 'weeks' as const, about: '' }
let guest: Person
beforeAll(async () => {
  guest = (await colleagueOf(demo)).person
})
/** Lets the guest have the old course by a code, without its quizzes. */
async function withoutQuizzes(): Promise<string> {
  const { marchetti } = demo.people
  const share = await shareCourse(demo.db, marchetti, demo.courses.old, {
    withheld: ['quiz'],
    days: 30,
    org: null,
  })
  await enterCode(demo.db, guest, share.code!, '192.0.2.1')
  return share.id
}
const orgOf = async (id: string) => (await demo.db('courses').where({ id }).first('org_id'))?.org_id

describe('what a share leaves out', () => {
  it('is left out of a template that the guest makes, and of its picture', async () => {
    const share = await withoutQuizzes()
    const { id } = await makeTemplate(demo.db, guest, demo.courses.old, facts)
    const nodes = await loadOutline(demo.db, id)
    expect(nodes.filter(node => node.kind === 'quiz')).toEqual([])
    const given = await loadOutline(demo.db, demo.courses.old, new Set(['quiz']))
    expect(nodes.map(node => node.title)).toEqual(given.map(node => node.title))
    const { templates } = await readTemplates(demo.db, guest)
    expect(templates.flatMap(line => line.shape).flatMap(unit => unit.kinds)).not.toContainEqual(
      expect.objectContaining({ kind: 'quiz' }),
    )
    await revokeShare(demo.db, demo.people.marchetti, demo.courses.old, share)
  })
  it('is left out of a picture of a template that a department was offered without it', async () => {
    const { marchetti, okonjo, brandt } = demo.people
    const { id } = await makeTemplate(demo.db, marchetti, demo.courses.old, { ...facts, title: 'Offered' })
    const org = await orgOf(demo.courses.old)
    await shareCourse(demo.db, brandt, id, { withheld: ['quiz'], days: null, org: org! })
    const [offered] = (await readTemplates(demo.db, okonjo)).templates.filter(line => line.course.id === id)
    expect(offered?.shape.length).toBeGreaterThan(0)
    expect(offered?.shape.flatMap(unit => unit.kinds).some(({ kind }) => kind === 'quiz')).toBe(false)
  })
  it('takes with it what stands below it: neither the page nor the bytes of a file nested there are given', async () => {
    const share = await withoutQuizzes()
    const quiz = (await loadOutline(demo.db, demo.courses.old)).find(node => node.kind === 'quiz')!
    const file = (await loadOutline(demo.db, demo.courses.old)).find(node => node.kind === 'file')!
    const inOld = { course_id: demo.courses.old, lineage: file.lineage }
    expect((await readItemFile(demo.db, guest, demo.courses.old, file.lineage)).size).toBeGreaterThan(0)
    await demo.db('items').where(inOld).update({ parent_lineage: quiz.lineage })
    for (const read of [readItem, readItemFile])
      await expect(read(demo.db, guest, demo.courses.old, file.lineage)).rejects.toMatchObject({
        status: 404,
      })
    await demo.db('items').where(inOld).update({ parent_lineage: file.parent })
    await revokeShare(demo.db, demo.people.marchetti, demo.courses.old, share)
  })
})

describe('a code', () => {
  it('makes nobody a member of the department: what is made from the course belongs to one’s own', async () => {
    const before = await departmentsOf(demo.db, guest)
    const share = await withoutQuizzes()
    const { id: template } = await makeTemplate(demo.db, guest, demo.courses.old, {
      ...facts,
      title: 'Taken once more',
    })
    const plan = await startAwaited(demo.db, guest, {
      sources: [demo.courses.old],
      term: '2027-spring',
      mode: 'roll',
    })
    const place = (await demo.db('plans').where({ id: plan }).first('target_course_id'))?.target_course_id
    const own = await orgOf((await colleagueOf(demo)).shell)
    expect(await orgOf(template)).toBe(own)
    expect(await orgOf(place!)).toBe(own)
    expect(await departmentsOf(demo.db, guest)).toEqual(before)
    await revokeShare(demo.db, demo.people.marchetti, demo.courses.old, share)
    expect(await departmentsOf(demo.db, guest)).toEqual(before)
  })
  it('makes no member of one who was put on a course by hand: the registrar says who belongs where', async () => {
    const { ellwood } = demo.people
    const before = await departmentsOf(demo.db, guest)
    await demo.db('enrolments').insert({
      id: '0199aaaa-0000-7000-8000-00000000000a',
      course_id: demo.courses.empty,
      person_id: guest.id,
      role: 'instructor',
      is_primary: false,
      origin: 'hand',
    })
    expect(await departmentsOf(demo.db, guest)).toEqual(before)
    expect(before).not.toContain(await orgOf(demo.courses.empty))
    expect(await departmentsOf(demo.db, ellwood)).toContain(await orgOf(demo.courses.empty))
    await demo.db('enrolments').where({ person_id: guest.id, course_id: demo.courses.empty }).delete()
  })
})

describe('whoever runs', () => {
  const rowOf = (person: Person, courseId: string) =>
    demo.db('enrolments').where({ person_id: person.id, course_id: courseId })
  const run = async (person: Person, plan: string): Promise<string> =>
    runPlan(demo.db, person, plan, (await effectOf(demo.db, plan)).fingerprint)
  const asked = (person: Person, id: string) => runsPlan.allow({ db: demo.db, person, params: { id } })

  it('in place is asked of the course itself, at the run: a right taken away half-way is gone', async () => {
    const { marchetti, okonjo } = demo.people
    const { old } = demo.courses
    await rowOf(okonjo, old).update({ may_run: true })
    const plan = await startAwaited(demo.db, okonjo, {
      sources: [old],
      term: '2027-summer',
      mode: 'in-place',
    })
    expect((await readPlan(demo.db, okonjo, plan)).may.run).toBe(true)
    await rowOf(okonjo, old).update({ may_run: false })
    expect(await asked(okonjo, plan)).toMatchObject({ status: 403 })
    expect((await readPlan(demo.db, okonjo, plan)).may.run).toBe(false)
    await expect(run(okonjo, plan)).rejects.toMatchObject({ code: 'may-not-run-into' })
    expect((await readCourse(demo.db, marchetti, old)).course.term.name).toBe('Autumn 2026')
    expect(await asked(marchetti, plan)).toBe(true)
  })
  it('is asked of each section that is joined, at the run', async () => {
    const { marchetti, okonjo } = demo.people
    const { old, empty, template } = demo.courses
    const plan = await startPlan(demo.db, marchetti, { sources: [old], target: empty })
    await demo.db('items').where({ course_id: template }).delete()
    await demo.db('units').where({ course_id: template }).delete()
    await chooseSections(demo.db, marchetti, plan, [template])
    await rowOf(okonjo, empty).update({ may_run: true })
    await rowOf(okonjo, template).update({ may_run: false })
    expect((await readPlan(demo.db, okonjo, plan)).may.run).toBe(false)
    await expect(run(okonjo, plan)).rejects.toThrow('You may not run into HYD 240-02')
    expect(await loadOutline(demo.db, empty)).toEqual([])
    expect((await readPlan(demo.db, marchetti, plan)).may.run).toBe(true)
  })
})

describe('the office of a department', () => {
  it('acts for its courses, and neither for the institution nor beyond its own reach', async () => {
    const { okonjo, ellwood, marchetti } = demo.people
    const org = (source: string) => demo.db('orgs').where({ source_id: source }).first('id')
    const [department, top] = [(await org('org-hydrography'))!.id, (await org('org-port-ellery'))!.id]
    await setDuty(demo.db, okonjo.id, department, 'office', true)
    const office = (await findPerson(demo.db, okonjo.id))!
    expect(await isTheOffice.allow({ db: demo.db, person: office, params: {} })).toMatchObject({
      status: 403,
    })
    expect((await viewLog(demo.db, office, { q: '' })).everything).toBe(false)
    expect(await readableCourses(demo.db, office)).toContain(demo.courses.template)
    for (const [person, at] of [
      [office.id, top],
      [ellwood.id, top],
    ] as const)
      for (const holds of [true, false])
        await expect(
          changeDuty(demo.db, office, person, { org: at, duty: 'office', holds }),
        ).rejects.toMatchObject({
          code: 'duty-beyond-reach',
        })
    await changeDuty(demo.db, office, marchetti.id, { org: department, duty: 'coordinator', holds: true })
    await setDuty(demo.db, okonjo.id, department, 'office', false)
    await setDuty(demo.db, marchetti.id, department, 'coordinator', false)
  })
})

describe('the registrar', () => {
  const none = Object.fromEntries(
    Object.keys(noRoster).map(table => [table, [] as string[]]),
  ) as unknown as NonNullable<RosterOptions['toBeDeleted']>
  it('takes an assistant off a course: what their row let them do ends with it, and comes back with it; the log says so', async () => {
    const { okonjo, ellwood } = demo.people
    const { old } = demo.courses
    const row = demo.db('enrolments').where({ person_id: okonjo.id, course_id: old })
    const source = (await row.clone().first('source_id'))!.source_id!
    await importRoster(demo.db, noRoster, { toBeDeleted: { ...none, enrollments: [source] } })
    expect(await readableCourses(demo.db, okonjo)).not.toContain(old)
    const listedAgain = {
      sourcedId: source,
      classSourcedId: 'hyd240-01-2026a',
      userSourcedId: 'pe-okonjo',
      role: 'aide',
      primary: 'false',
    }
    await importRoster(demo.db, { ...noRoster, enrollments: [listedAgain as Roster['enrollments'][number]] })
    expect(await readableCourses(demo.db, okonjo)).toContain(old)
    // One whom the list leaves out is marked, not deleted: that, too, ends what the row let them do.
    await row.clone().update({ missing_since: '2027-01-05 00:00:00' })
    expect(await readableCourses(demo.db, okonjo)).not.toContain(old)
    await row.clone().update({ missing_since: null })
    const { lines } = await viewLog(demo.db, ellwood, { q: 'Okonjo' })
    expect(lines.map(line => line.action)).toEqual(expect.arrayContaining(['staff.unlisted', 'staff.back']))
  })
  it('deletes a person: their sign-in is closed and their sessions end; listed again, they sign in again', async () => {
    const { okonjo, ellwood } = demo.people
    const person = (await demo.db('people').where({ id: okonjo.id }).first())!
    const { secret } = await insertSession(demo.db, okonjo.id, 'Firefox on Linux')
    await importRoster(demo.db, noRoster, { toBeDeleted: { ...none, users: [person.source_id] } })
    expect(await findPerson(demo.db, okonjo.id)).toBeNull()
    expect(await seeSession(demo.db, secret)).toBeNull()
    const { lines } = await viewLog(demo.db, ellwood, { q: '' })
    expect(lines.find(line => line.action === 'sign-in.closed')?.detail).toEqual({ name: 'Tobenna Okonjo' })
    const user = {
      sourcedId: person.source_id,
      username: 'okonjo',
      givenName: person.given_name,
      familyName: person.family_name,
      email: person.email ?? '',
      role: 'aide',
      enabledUser: 'true',
    }
    await importRoster(demo.db, { ...noRoster, users: [user as Roster['users'][number]] })
    expect(await findPerson(demo.db, okonjo.id)).not.toBeNull()
    expect(await seeSession(demo.db, secret)).toBeNull()
  })
})

describe('the log', () => {
  it('does not say, nor lets one search for, a code that still opens a course', async () => {
    const { ellwood, marchetti } = demo.people
    const { id, code } = await shareCourse(demo.db, marchetti, demo.courses.old, {
      withheld: [],
      days: null,
      org: null,
    })
    await enterCode(demo.db, guest, code!, '192.0.2.1')
    const whole = await viewLog(demo.db, ellwood, { q: '' })
    expect(whole.lines.some(line => line.action === 'share.used')).toBe(true)
    expect(JSON.stringify(whole)).not.toContain(code)
    expect((await viewLog(demo.db, ellwood, { q: code!.slice(0, 4) })).lines).toEqual([])
    await revokeShare(demo.db, marchetti, demo.courses.old, id)
  })
})
