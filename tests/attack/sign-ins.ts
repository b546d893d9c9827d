import { must, type Attack } from './world'

const countOf = <T>(values: readonly T[], wanted: T): number =>
  values.filter(value => value === wanted).length

export const signIns: Attack[] = [
  {
    name: 'an old cookie after signing out, after ending all, and after a new password',
    quick: true,
    run: async world => {
      const status = async (cookie: string): Promise<number> =>
        (await world.ask(null, 'GET', '/api/v1/shells', { cookie })).status
      const enter = (password = 'neap-tide') => world.signIn('okonjo', password)
      const [out, elsewhere, here] = [await enter(), await enter(), await enter()]
      await world.ask(null, 'DELETE', '/api/v1/session', { cookie: out })
      must((await status(out)) === 401, 'the cookie worked after signing out')
      await world.ask(null, 'DELETE', '/api/v1/you/sign-ins', { cookie: here })
      must((await status(elsewhere)) === 401, 'the cookie worked after all others were ended')
      const change = (current: string, password: string, cookie: string) =>
        world.ask(null, 'PUT', '/api/v1/you/password', { cookie, body: { current, password } })
      const changed = await change('neap-tide', 'a neap tide in March', here)
      must(changed.status === 200, `the password was not changed: ${changed.status}`)
      must((await status(here)) === 401, 'the old cookie worked after a new password')
      const fresh = (changed.headers.get('set-cookie') ?? '').split(';')[0] ?? ''
      must((await status(fresh)) === 200, 'the new cookie did not work')
      world.cookies.assistant = fresh
      const { setPassword } = await import('../../server/people/people')
      await setPassword(world.db, 'okonjo', 'neap-tide')
      return 'each 401'
    },
  },
  {
    name: 'cookies that are guessed, cut short, or somebody else’s with a letter changed',
    quick: true,
    run: async world => {
      const good = world.cookies.instructor
      const flip = good.slice(0, -1) + (good.endsWith('A') ? 'B' : 'A')
      for (const cookie of [
        flip,
        good.slice(0, -4),
        'northtide=',
        'northtide=%00',
        `northtide=${'x'.repeat(4000)}`,
      ]) {
        const { status } = await world.ask(null, 'GET', '/api/v1/shells', { cookie })
        must(status === 401, `${cookie.slice(0, 40)} was told ${status}`)
      }
      return 'each 401'
    },
  },
  {
    name: 'forty wrong passwords for one name at once',
    quick: true,
    run: async world => {
      await world.db('guesses').delete()
      const headers = { 'x-forwarded-for': '203.0.113.7' }
      const body = { login: 'brandt', password: 'not it' }
      const all = await Promise.all(
        Array.from({ length: 40 }, () => world.ask(null, 'POST', '/api/v1/session', { body, headers })),
      )
      const statuses = all.map(answer => answer.status)
      must(countOf(statuses, 401) <= 6, `${countOf(statuses, 401)} were looked at`)
      must(
        all.every(answer => answer.status === 401 || Number(answer.headers.get('retry-after')) > 0),
        'a refusal did not say how long to wait',
      )
      const other = await world.ask(null, 'POST', '/api/v1/session', {
        body: { login: 'brandt', password: 'spring-range' },
        headers: { 'x-forwarded-for': '203.0.113.8' },
      })
      must(other.status === 200, `the person elsewhere was told ${other.status}`)
      return `${countOf(statuses, 401)} looked at, ${countOf(statuses, 429)} told to wait; the person got in elsewhere`
    },
  },
  {
    name: 'one wrong password for each of sixty names, from one place',
    quick: false,
    run: async world => {
      await world.db('guesses').delete()
      const headers = { 'x-forwarded-for': '203.0.113.9' }
      const statuses: number[] = []
      for (let at = 0; at < 60; at++) {
        const body = { login: `somebody-${at}`, password: 'not it' }
        statuses.push((await world.ask(null, 'POST', '/api/v1/session', { body, headers })).status)
      }
      must(countOf(statuses, 429) > 0, 'nothing was slowed')
      return `${countOf(statuses, 401)} looked at, then told to wait`
    },
  },
  {
    name: 'forty sign-ins at once, from forty places: those who are in go on meanwhile',
    quick: true,
    run: async world => {
      await world.db('guesses').delete()
      let ended = false
      const flood = Promise.all(
        Array.from({ length: 40 }, (_, at) =>
          world.ask(null, 'POST', '/api/v1/session', {
            body: { login: `flood-${at}`, password: 'not it' },
            headers: { 'x-forwarded-for': `198.18.0.${at}` },
          }),
        ),
      ).finally(() => {
        ended = true
      })
      let served = 0
      while (!ended) {
        const { status } = await world.ask('instructor', 'GET', '/api/v1/session')
        must(status === 200, `somebody who is in was told ${status}`)
        if (!ended) served++
      }
      const statuses = (await flood).map(answer => answer.status)
      must(served >= 5, `only ${served} requests were answered while others signed in`)
      must(
        countOf(statuses, 401) + countOf(statuses, 429) === 40,
        `told ${[...new Set(statuses)].join(', ')}`,
      )
      return `${countOf(statuses, 401)} looked at, ${countOf(statuses, 429)} told to press again; ${served} others answered meanwhile`
    },
  },
  {
    name: 'share codes and links of invitations are tried one after another',
    quick: true,
    run: async world => {
      await world.db('guesses').delete()
      const tries = async (path: string, body: (at: number) => unknown, as: 'stranger' | null) => {
        const statuses: number[] = []
        for (let at = 0; at < 9; at++)
          statuses.push(
            (
              await world.ask(as, 'POST', path, {
                body: body(at),
                headers: { 'x-forwarded-for': '203.0.113.11' },
              })
            ).status,
          )
        return statuses
      }
      const codes = await tries('/api/v1/shares', at => ({ code: `AAAA-000${at}` }), 'stranger')
      const links = await tries('/api/v1/invitations', at => ({ secret: `guess-${at}` }), null)
      for (const statuses of [codes, links]) must(statuses.includes(429), `told ${statuses.join(' ')}`)
      return 'slowed after a few'
    },
  },
]
