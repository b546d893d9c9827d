import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { noRoster } from '../../core/formats/oneroster/read'
import { present } from '../../core/present'
import { postOffice } from '../../standins/mail/server'
import { registrar } from '../../standins/registrar/server'
import type { Fault } from '../../standins/registrar/world'
import { useDemo } from '../support/demo'
import { readShells } from './support'
import { startRunner } from '../../server/jobs/runner'
import { type Person } from '../../server/people/people.queries'
import { askForFetch, readRegistrar, scheduleFetch } from '../../server/registrar/registrar'
import { importRoster } from '../../server/registrar/roster'
import { changeRequest, readRequests, sendRequest, whyNotThere } from '../../server/shells/requests'
import { jobKinds } from '../../server/work/kinds'

const demo = useDemo('registrar')
const office = registrar('a-token')
const mail = postOffice()
let stop: () => Promise<void>
beforeAll(async () => {
  await new Promise<void>(resolve => office.server.listen(0, '127.0.0.1', resolve))
  await new Promise<void>(resolve => mail.smtp.listen(0, '127.0.0.1', resolve))
  const smtp = (mail.smtp.server.address() as AddressInfo).port
  Object.assign(process.env, {
    DB_NAME: 'northtide_registrar',
    NORTHTIDE_REGISTRAR_URL: `http://127.0.0.1:${(office.server.address() as AddressInfo).port}/oneroster.zip`,
    NORTHTIDE_REGISTRAR_TOKEN: 'a-token',
    NORTHTIDE_REGISTRAR_SECONDS: '60',
    NORTHTIDE_SMTP_URL: `smtp://127.0.0.1:${smtp}`,
    NORTHTIDE_DESK_REGISTRAR: 'registrar@port-ellery.example',
  })
  stop = startRunner(demo.db, jobKinds, { pause: 50 })
})
afterAll(async () => {
  await stop()
  office.server.closeAllConnections()
  office.server.close()
  await new Promise<void>(resolve => mail.smtp.close(() => resolve()))
  for (const name of ['URL', 'TOKEN', 'SECONDS']) delete process.env[`NORTHTIDE_REGISTRAR_${name}`]
  delete process.env.NORTHTIDE_SMTP_URL
})

async function fetchNow(step: number, fault: Fault = 'none') {
  office.set({ step, fault })
  const { id } = await askForFetch(demo.db, demo.people.marchetti)
  for (const end = Date.now() + 110_000; ;) {
    const reply = await readRegistrar(demo.db, demo.people.ellwood)
    const found = reply.fetches.find(entry => entry.id === id)!
    if (found.state !== 'waiting')
      return {
        ...found,
        changes: reply.changes
          .filter(change => change.fetch === id)
          .map(
            change =>
              [
                change.course.code + (change.course.section && `-${change.course.section}`),
                change.course.term.name,
                change.kind,
                change.count,
              ] as const,
          ),
      }
    if (Date.now() > end) throw new Error('the fetch did not end')
    // What a fetch waits with must outlive the garbage collector: a time limit that it took never came.
    if (fault === 'slow') present(globalThis.gc)()
    await new Promise(resolve => setTimeout(resolve, 40))
  }
}
const rows = async (table: string): Promise<number> =>
  Number((await demo.db(table).count({ n: '*' }).first())!.n)
const roster = async (source: string): Promise<number> =>
  Number(
    (await demo
      .db('enrolments')
      .join('courses', 'courses.id', 'enrolments.course_id')
      .where({ role: 'student' })
      .where('courses.source_id', source)
      .whereNull('dropped_at')
      .count({ n: '*' })
      .first())!.n,
  )

describe('the registrar’s list', () => {
  it('that says nothing new changes nothing, and is not sent twice', async () => {
    expect(await fetchNow(0)).toMatchObject({ state: 'same', changes: [], counts: { classes: 12 } })
    expect(await fetchNow(0)).toMatchObject({ state: 'same', counts: {} })
  })
  it('brings a shell, people who join, people who drop and a class that moves its days, and tells each', async () => {
    const first = await fetchNow(1)
    expect(first.changes).toEqual(
      expect.arrayContaining([
        ['HYD 310-01', 'Spring 2027', 'appeared', 1],
        ['HYD 310-01', 'Spring 2027', 'joined', 13],
        ['HYD 240-01', 'Spring 2027', 'joined', 3],
      ]),
    )
    expect(await roster('hyd240-01-2027s')).toBe(32)
    const second = await fetchNow(2)
    expect(second.changes).toEqual(
      expect.arrayContaining([
        ['HYD 240-01', 'Spring 2027', 'dropped', 1],
        ['HYD 240-02', 'Spring 2027', 'meetings', 1],
      ]),
    )
    expect(await roster('hyd240-01-2027s')).toBe(31)
    const moved = (await readRegistrar(demo.db, demo.people.marchetti)).changes.find(
      change => change.kind === 'meetings',
    )!
    expect(moved.detail).toEqual({ before: 'Mon Wed Fri 13:00', after: 'Tue Thu 13:00' })
    expect(moved.course.meetings.map(meeting => meeting.weekday)).toEqual([2, 4])
  })
  it('deletes nobody of whom it says nothing, and marks them', async () => {
    await fetchNow(3)
    const before = await rows('enrolments')
    expect((await fetchNow(4)).changes).toEqual([['HYD 240-01', 'Spring 2027', 'unlisted', 2]])
    expect([await rows('enrolments'), await roster('hyd240-01-2027s')]).toEqual([before, 31])
    // They are there again when the list has them again.
    expect((await fetchNow(3)).changes).toEqual([['HYD 240-01', 'Spring 2027', 'returned', 2]])
  })
  it.each<[Fault, RegExp]>([
    ['down', /cannot be reached/],
    ['slow', /within 3 seconds/],
    ['half', /cannot be used.*|broke off/],
    ['header', /no column userSourcedId/],
  ])('that is %s changes nothing and says so', async (fault, words) => {
    // Long enough for a list that comes, short enough for one that never ends.
    process.env.NORTHTIDE_REGISTRAR_SECONDS = fault === 'slow' ? '3' : '60'
    const before = await demo
      .db('courses')
      .join('enrolments', 'enrolments.course_id', 'courses.id')
      .orderBy(['courses.id', 'enrolments.id'])
      .select('courses.*', { enrolment: 'enrolments.id' }, 'dropped_at', 'enrolments.missing_since')
    const failed = await fetchNow(3, fault)
    expect(failed.state).toBe('failed')
    expect(failed.problem).toMatch(words)
    expect(failed.problem).toContain('Nothing was changed')
    expect(
      await demo
        .db('courses')
        .join('enrolments', 'enrolments.course_id', 'courses.id')
        .orderBy(['courses.id', 'enrolments.id'])
        .select('courses.*', { enrolment: 'enrolments.id' }, 'dropped_at', 'enrolments.missing_since'),
    ).toEqual(before)
  })
  it('with a row that stands twice is taken in without it, and marks nobody on its word', async () => {
    process.env.NORTHTIDE_REGISTRAR_SECONDS = '60'
    const twice = await fetchNow(4, 'twice')
    expect(twice.findings).toContainEqual(
      expect.objectContaining({
        severity: 'error',
        message: expect.stringContaining('earlier row too') as string,
      }),
    )
    expect(twice.changes).toEqual([])
  })
  it('refused for its token says whom to ask', async () => {
    process.env.NORTHTIDE_REGISTRAR_TOKEN = 'wrong'
    expect((await fetchNow(3)).problem).toContain('refused the access token')
    process.env.NORTHTIDE_REGISTRAR_TOKEN = 'a-token'
  })
  it('of 50 000 more people is taken in whole', async () => {
    expect(await fetchNow(3, 'large')).toMatchObject({
      state: 'new',
      counts: { users: expect.any(Number) as number },
    })
    expect(await rows('enrolments')).toBeGreaterThan(50_000)
    expect((await fetchNow(3)).changes.every(change => change[2] === 'unlisted')).toBe(true)
    expect(await rows('enrolments')).toBeGreaterThan(50_000)
  })
  it('is asked for once in its time, however many servers ask', async () => {
    const before = await rows('fetches')
    await Promise.all([scheduleFetch(demo.db), scheduleFetch(demo.db), scheduleFetch(demo.db)])
    expect(await rows('fetches')).toBe(before + 1)
  })
  it('does not give a person another’s sign-in name', async () => {
    const thief = {
      sourcedId: 'pe-thief',
      enabledUser: 'true',
      orgSourcedIds: '',
      role: 'teacher',
      username: 'ellwood',
      givenName: 'No',
      familyName: 'Body',
      email: '',
      middleName: '',
      identifier: '',
      phone: '',
      sms: '',
      'metadata.nickname': '',
      agentSourcedIds: '',
    }
    const { findings } = await importRoster(demo.db, { ...noRoster, users: [thief] })
    expect(findings[0]!.message).toContain('is that of pe-ellwood')
    expect(
      await demo
        .db('people')
        .whereIn('source_id', ['pe-ellwood', 'pe-thief'])
        .orderBy('source_id')
        .select('login', 'family_name'),
    ).toEqual([
      { login: 'ellwood', family_name: 'Ellwood' },
      { login: null, family_name: 'Body' },
    ])
  })
})

describe('a shell that is missing', () => {
  it('is told why: not made, not listed, not the main instructor, or there', async () => {
    office.set({ step: 3, fault: 'none' })
    await fetchNow(3)
    const why = async (who: Person, code: string, section = '') => {
      const { reason, desk } = await whyNotThere(demo.db, who, { term: '2027-spring', code, section })
      return [reason, desk]
    }
    expect(await why(demo.people.marchetti, 'HYD 999')).toEqual(['not-made', 'registrar'])
    expect(await why(demo.people.marchetti, 'BKG 115')).toEqual(['not-listed', 'school'])
    expect(await why(demo.people.okonjo, 'hyd240', '01')).toEqual(['not-main', 'school'])
    expect(await why(demo.people.marchetti, 'HYD-240', '01')).toEqual(['there', null])
    const resembling = async (code: string) =>
      (await whyNotThere(demo.db, demo.people.marchetti, { term: '2027-spring', code, section: '' }))
        .resembling
    expect(await resembling('hyd-240')).toBeNull()
    expect(await resembling('HYD 420')).toContain('HYD 240')
    expect(await resembling('CHM 999')).toEqual([])
    await fetchNow(3, 'down')
    expect(await why(demo.people.marchetti, 'HYD 999')).toEqual(['fault', 'help'])
    await fetchNow(3)
  })
  it('is asked for once, by mail, and arrives by itself', async () => {
    await demo
      .db('enrolments')
      .whereIn('course_id', demo.db('courses').where({ source_id: 'hyd310-01-2027s' }).select('id'))
      .delete()
    await demo.db('courses').where({ source_id: 'hyd310-01-2027s' }).update({ code: 'HYD 310X' })
    const wish = { term: '2027-spring', code: 'HYD 310', section: '01', words: 'Classes begin tomorrow.' }
    const { id } = await sendRequest(demo.db, demo.people.marchetti, wish)
    await expect(sendRequest(demo.db, demo.people.marchetti, wish)).rejects.toMatchObject({ status: 409 })
    for (const end = Date.now() + 10_000; mail.letters.length === 0 && Date.now() < end;)
      await new Promise(resolve => setTimeout(resolve, 50))
    expect(mail.letters[0]).toMatchObject({
      to: 'registrar@port-ellery.example',
      subject: expect.stringContaining('HYD 310-01') as string,
      text: expect.stringContaining('Classes begin tomorrow.') as string,
    })
    office.set({ step: 4 })
    await fetchNow(4)
    expect(
      (await readRequests(demo.db, demo.people.marchetti)).requests.find(request => request.id === id),
    ).toMatchObject({ state: 'arrived', mail: { state: 'sent' } })
    // A mail may hold a link that opens something: once it is sent its text stands here no more.
    expect(await demo.db('mails').pluck('body')).toEqual([''])
    expect((await readRequests(demo.db, demo.people.okonjo)).requests).toEqual([])
    await changeRequest(demo.db, demo.people.ellwood, id, { do: 'answer', answer: 'It is there now.' })
    await expect(
      changeRequest(demo.db, demo.people.marchetti, id, { do: 'answer', answer: 'x' }),
    ).rejects.toMatchObject({ status: 403 })
    expect((await readShells(demo, demo.people.marchetti)).map(course => course.code)).toContain('HYD 310')
  })
})
