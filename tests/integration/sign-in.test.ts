import { randomBytes, scryptSync } from 'node:crypto'
import { beforeAll, describe, expect, it } from 'vitest'
import { signIns } from '../../demo/load'
import { hashOfSecret } from '../../server/auth/secrets'
import { endClosedSessions, seeSession } from '../../server/auth/sessions.queries'
import { connect, migrate } from '../../server/db/connection'
import { viewLog } from '../../server/log/log'
import { makeFirstOffice } from '../../server/people/first-office'
import { invite, readInvitation, uninvite, useInvitation } from '../../server/people/invitations'
import { readPeople } from '../../server/people/people'
import { findPerson, isOffice } from '../../server/people/people.queries'
import {
  changePassword,
  endOtherSignIns,
  endSignIn,
  readSignIns,
  signIn,
  signOut,
} from '../../server/people/sign-in'
import { enterCode } from '../../server/sharing/shares'
import { atOnce } from '../support/at-once'
import { freshDatabase } from '../support/database'
import { useDemo } from '../support/demo'
import { colleagueOf } from './support'

const demo = useDemo('sign_in')
/** A password kept at a small cost: what is tried here often need not take a third of a second each time. */
function keptCheaply(password: string): string {
  const [salt, n] = [randomBytes(16), 2 ** 10]
  const key = scryptSync(password, salt, 32, { N: n, r: 8, p: 1 })
  return ['scrypt', n, 8, 1, salt.toString('base64url'), key.toString('base64url')].join('$')
}
beforeAll(async () => {
  for (const { login, password } of signIns)
    await demo
      .db('people')
      .where({ login })
      .update({ password: keptCheaply(password) })
})
const from = (address: string, device = 'Firefox on Linux') => ({ device, address })
const enter = (login: string, password: string, address = '192.0.2.1', device?: string) =>
  signIn(demo.db, { login, password }, from(address, device))
const stands = async (secret: string): Promise<boolean> => (await seeSession(demo.db, secret)) !== null
const sessionOf = async (secret: string) => (await seeSession(demo.db, secret))!.id

describe('a sign-in', () => {
  it('ends by signing out: its cookie is worth nothing then', async () => {
    const { secret, personId } = await enter('marchetti', 'slack-water')
    expect(await stands(secret)).toBe(true)
    expect((await demo.db('sessions').select('token_hash')).map(row => row.token_hash)).not.toContain(secret)
    await signOut(demo.db, personId, await sessionOf(secret))
    expect(await stands(secret)).toBe(false)
  })
  it('is seen, with its device, and ended by its person alone: one, or all but the one they ask by', async () => {
    const { marchetti, okonjo } = demo.people
    const phone = await enter('marchetti', 'slack-water', '192.0.2.2', 'Safari on iOS')
    const desk = await enter('marchetti', 'slack-water', '192.0.2.3')
    const lab = await enter('marchetti', 'slack-water', '192.0.2.4')
    const deskId = await sessionOf(desk.secret)
    const { signIns } = await readSignIns(demo.db, marchetti, deskId)
    expect(signIns.map(each => [each.device, each.isThis])).toContainEqual(['Safari on iOS', false])
    expect(signIns.filter(each => each.isThis).map(each => each.id)).toEqual([deskId])
    const phoneId = await sessionOf(phone.secret)
    await expect(endSignIn(demo.db, okonjo, phoneId)).rejects.toMatchObject({ status: 404 })
    await endSignIn(demo.db, marchetti, phoneId)
    expect([await stands(phone.secret), await stands(lab.secret)]).toEqual([false, true])
    expect(await endOtherSignIns(demo.db, marchetti, deskId)).toBeGreaterThan(0)
    expect([await stands(lab.secret), await stands(desk.secret)]).toEqual([false, true])
  })
  it('lasts twelve hours', async () => {
    const { secret } = await enter('marchetti', 'slack-water')
    await demo.db('sessions').update({ expires_at: demo.db.raw<string>('UTC_TIMESTAMP(3)') })
    expect(await stands(secret)).toBe(false)
  })
  it('ends with the right to sign in, and does not come back with it', async () => {
    const { secret } = await enter('okonjo', 'neap-tide')
    await demo.db('people').where({ login: 'okonjo' }).update({ active: false })
    await endClosedSessions(demo.db)
    await expect(enter('okonjo', 'neap-tide')).rejects.toMatchObject({ code: 'wrong-password' })
    await demo.db('people').where({ login: 'okonjo' }).update({ active: true })
    expect(await stands(secret)).toBe(false)
    await enter('okonjo', 'neap-tide')
  })
})

describe('a password', () => {
  it('is changed with the one of now; every sign-in from before ends, and the person is told by mail', async () => {
    process.env.NORTHTIDE_SMTP_URL = 'smtp://127.0.0.1:9'
    const { brandt } = demo.people
    await demo.db('people').where({ id: brandt.id }).update({ email: 'brandt@port-ellery.example' })
    const before = await enter('brandt', 'spring-range')
    const change = (current: string, password: string) =>
      changePassword(demo.db, brandt, { current, password }, from('192.0.2.9'))
    await expect(change('spring range', 'a longer one by far')).rejects.toMatchObject({
      code: 'current-password-wrong',
    })
    await expect(change('spring-range', 'brandt-2027!')).rejects.toMatchObject({
      code: 'password-refused',
      told: { errors: [{ field: 'password', message: expect.any(String) as string }] },
    })
    const { secret } = await change('spring-range', 'a longer one by far')
    expect([await stands(before.secret), await stands(secret)]).toEqual([false, true])
    const [mail] = await demo.db('mails').where({ recipient: 'brandt@port-ellery.example' })
    expect(mail?.subject).toBe('Your Northtide password was changed')
    await expect(enter('brandt', 'spring-range')).rejects.toMatchObject({ code: 'wrong-password' })
    await demo
      .db('people')
      .where({ login: 'brandt' })
      .update({ password: keptCheaply('spring-range') })
    delete process.env.NORTHTIDE_SMTP_URL
  })
})

describe('an invitation', () => {
  const origin = 'https://tide.example'
  it('lets a person without a password set one, once, by a link that stands nowhere', async () => {
    const { ellwood } = demo.people
    const { person } = await colleagueOf(demo)
    const { link, mailedTo } = await invite(demo.db, ellwood, person.id, origin)
    expect([mailedTo, link?.startsWith(`${origin}/welcome#`)]).toEqual([null, true])
    const secret = link!.split('#')[1]!
    const dump = JSON.stringify([await demo.db('invitations'), await demo.db('log'), await demo.db('mails')])
    expect(dump).not.toContain(secret)
    const state = async () =>
      (await readPeople(demo.db, 'quist')).people.map(each => [each.hasPassword, each.invitedAt !== null])
    expect(await state()).toEqual([[false, true]])
    expect(await readInvitation(demo.db, secret, '192.0.2.5')).toEqual({
      name: 'Ansel Quist',
      login: 'quist',
    })
    const set = (password: string) => useInvitation(demo.db, { secret, password }, from('192.0.2.5'))
    await expect(set('short')).rejects.toMatchObject({ code: 'password-refused' })
    const { done, refused } = await atOnce(() => set('rye bread at five'), 5)
    expect([done.length, refused]).toEqual([1, ['invitation-ended']])
    expect(await state()).toEqual([[true, false]])
    expect((await enter('quist', 'rye bread at five')).personId).toBe(person.id)
  })
  it('ends when it is taken back, when a new one is made, and after seven days', async () => {
    const { ellwood } = demo.people
    const { person } = await colleagueOf(demo)
    const secretOf = async () => (await invite(demo.db, ellwood, person.id, origin)).link!.split('#')[1]!
    const look = (secret: string) => readInvitation(demo.db, secret, '192.0.2.6')
    const [first, second] = [await secretOf(), await secretOf()]
    await expect(look(first)).rejects.toMatchObject({ code: 'invitation-ended' })
    expect(await look(second)).toMatchObject({ login: 'quist' })
    await uninvite(demo.db, ellwood, person.id)
    await expect(look(second)).rejects.toMatchObject({ code: 'invitation-ended' })
    const third = await secretOf()
    await demo.db('invitations').update({ expires_at: demo.db.raw<string>('UTC_TIMESTAMP(3)') })
    await expect(look(third)).rejects.toMatchObject({ code: 'invitation-ended' })
  })
})

describe('the first of the office', () => {
  it('are made from a shell of the server, in an empty database too, and set their password by a link', async () => {
    const address = await freshDatabase('northtide_first_office')
    const db = connect(address)
    await migrate(db)
    const office = {
      login: 'first',
      givenName: 'Ada',
      familyName: 'Quay',
      institution: 'Port Ellery Institute',
    }
    const secret = await makeFirstOffice(db, office)
    const { personId } = await useInvitation(
      db,
      { secret, password: 'a first one of many' },
      from('192.0.2.7'),
    )
    expect(isOffice((await findPerson(db, personId))!)).toBe(true)
    expect((await readPeople(db, '')).orgs.map(org => org.name)).toEqual(['Port Ellery Institute'])
    await makeFirstOffice(db, office)
    expect(await db('people')).toHaveLength(1)
    await db.destroy()
  })
})

describe('guessing', () => {
  const wrong = (login: string, address: string) =>
    enter(login, 'not it', address).then(
      () => 'in',
      (error: { code: string }) => error.code,
    )
  it('is slowed after five wrong passwords from one place, however many come at once; elsewhere the person still gets in', async () => {
    await demo.db('guesses').delete()
    const tries: string[] = []
    for (let at = 0; at < 9; at++) tries.push(await wrong('marchetti', '198.51.100.1'))
    expect(tries.filter(code => code === 'wrong-password').length).toBeLessThanOrEqual(6)
    expect(tries.at(-1)).toBe('too-many-guesses')
    await expect(enter('marchetti', 'slack-water', '198.51.100.1')).rejects.toMatchObject({
      status: 429,
      told: { retryAfter: expect.any(Number) as number },
    })
    expect((await enter('marchetti', 'slack-water', '198.51.100.2')).personId).toBe(demo.people.marchetti.id)
    await demo.db('guesses').delete()
    const begun = Date.now()
    const { refused } = await atOnce(() => enter('marchetti', 'not it', '198.51.100.3'), 40)
    expect(refused.sort()).toContain('too-many-guesses')
    // Five are free; the waits after them are 1, 2, 4 … seconds, and a busy machine may take longer than the first.
    const waited = Math.floor(Math.log2(1 + (Date.now() - begun) / 1000))
    expect((await demo.db('guesses')).length).toBeLessThanOrEqual(5 + waited)
  })
  it('of others, at one’s name or from one’s network, keeps nobody waiting in a browser that they have signed in with', async () => {
    await demo.db('guesses').delete()
    const { known } = await enter('brandt', 'spring-range', '198.51.100.20')
    const at = demo.db.raw<string>('UTC_TIMESTAMP(3)')
    const row = (n: number, name: string, address: string) => ({
      id: `0199eeee-0000-7000-8000-${String(n).padStart(12, '0')}`,
      kind: 'sign-in' as const,
      name,
      address,
      at,
    })
    const others = Array.from({ length: 90 }, (_, n) =>
      row(
        n,
        n < 30 ? hashOfSecret('brandt') : String(n).padStart(64, '0'),
        n < 30 ? `203.0.113.${n}` : '198.51.100.20',
      ),
    )
    await demo.db('guesses').insert(others)
    const signInAt = (browser: string | null, password = 'spring-range') =>
      signIn(demo.db, { login: 'brandt', password }, { ...from('198.51.100.20'), known: browser })
    await expect(signInAt(null)).rejects.toMatchObject({ code: 'too-many-guesses' })
    await expect(signInAt('x')).rejects.toMatchObject({ code: 'too-many-guesses' })
    const begun = await signInAt(known)
    expect([begun.personId, begun.known]).toEqual([demo.people.brandt.id, null])
    // It is known for that person alone, and what is guessed there counts there.
    const other = signIn(demo.db, { login: 'okonjo', password: 'x' }, { ...from('198.51.100.20'), known })
    await expect(other).rejects.toMatchObject({ code: 'too-many-guesses' })
    const codes: string[] = []
    for (let n = 0; n < 7; n++)
      codes.push(
        await signInAt(known, 'not it').then(
          () => 'in',
          (error: { code: string }) => error.code,
        ),
      )
    expect(codes.at(-1)).toBe('too-many-guesses')
    await demo.db('guesses').delete()
  })
  it('at many names from one place is slowed too, and what was wrong before is forgotten once it is right', async () => {
    await demo.db('guesses').delete()
    const at = demo.db.raw<string>('DATE_SUB(UTC_TIMESTAMP(3), INTERVAL 1 SECOND)')
    const row = (n: number) => ({
      id: `0199cccc-0000-7000-8000-${String(n).padStart(12, '0')}`,
      kind: 'sign-in' as const,
      name: String(n).padStart(64, '0'),
      address: '198.51.100.4',
      at,
    })
    await demo.db('guesses').insert(Array.from({ length: 60 }, (_, n) => row(n)))
    expect(await wrong('okonjo', '198.51.100.4')).toBe('too-many-guesses')
    expect(await wrong('okonjo', '198.51.100.5')).toBe('wrong-password')
    await enter('okonjo', 'neap-tide', '198.51.100.5')
    expect(await demo.db('guesses').where({ address: '198.51.100.5' })).toEqual([])
  })
  it('at share codes is slowed for a person', async () => {
    const { marchetti } = demo.people
    const codes: string[] = []
    for (let at = 0; at < 8; at++)
      codes.push(
        await enterCode(demo.db, marchetti, `AAAA-000${at}`, '198.51.100.6').then(
          () => 'open',
          (error: { code: string }) => error.code,
        ),
      )
    expect([codes[0], codes.at(-1)]).toEqual(['unknown-code', 'too-many-guesses'])
  })
  it('stands in the log of whoever it was about, and of the office; what was typed for a name that nobody has does not', async () => {
    await demo.db('guesses').delete()
    await wrong('my-secret-typed-in-the-wrong-place', '198.51.100.7')
    for (let at = 0; at < 6; at++) await wrong('marchetti', '198.51.100.8')
    const own = await viewLog(demo.db, demo.people.marchetti, { q: '' })
    const actions = own.lines.map(line => line.action)
    for (const action of ['sign-in.started', 'sign-in.failed', 'sign-in.ended', 'guesses.stopped'])
      expect(actions).toContain(action)
    const all = JSON.stringify(await demo.db('log'))
    expect(all).not.toContain('typed-in-the-wrong-place')
  })
  it('leaves few threads to passwords: of forty at once most are told to press again', async () => {
    await demo.db('guesses').delete()
    const { refused } = await atOnce(at => enter('nobody', 'not it', `203.0.113.${at}`), 40)
    expect(refused.sort()).toEqual(expect.arrayContaining(['sign-in-busy', 'wrong-password']))
    // What was not looked at is no wrong guess.
    expect((await demo.db('guesses')).length).toBeLessThanOrEqual(20)
  })
})
