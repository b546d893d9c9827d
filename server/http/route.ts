import {
  defineEventHandler,
  getHeader,
  getQuery,
  getRequestHost,
  getRequestProtocol,
  readRawBody,
  setHeader,
  setResponseStatus,
  type EventHandler,
  type H3Event,
} from 'h3'
import type { Knex } from 'knex'
import type { z } from 'zod'
import type { May } from '../auth/may'
import { database } from '../db/connection'
import { findPerson, type Person } from '../people/people.queries'
import { Problem } from './problem'
import { sessionPerson } from './session'

export interface Call<P, Q, B> {
  event: H3Event
  db: Knex
  person: Person
  params: P
  query: Q
  body: B
}
interface Definition<P extends z.ZodType, Q extends z.ZodType, B extends z.ZodType, R extends z.ZodType> {
  params?: P
  query?: Q
  body?: B
  /** Schema of the reply; what it does not name is not sent. `null`: the route sends bytes or text of its own. */
  reply: R | null
  /** Who may: checked before anything is done. */
  may: May<z.output<P>>
  run: (call: Call<z.output<P>, z.output<Q>, z.output<B>>) => Promise<unknown>
}
export type Route = EventHandler & { readonly may: May<never> }

const bodyLimit = 4 * 1024 * 1024

function parse<T extends z.ZodType>(schema: T | undefined, value: unknown, what: string): z.output<T> {
  if (!schema) return undefined as z.output<T>
  const parsed = schema.safeParse(value)
  if (parsed.success) return parsed.data
  throw new Problem(
    400,
    `The ${what} is not as it should be`,
    undefined,
    parsed.error.issues.map(issue => ({ field: issue.path.join('.') || what, message: issue.message })),
  )
}

async function readJson(event: H3Event): Promise<unknown> {
  if (Number(getHeader(event, 'content-length') ?? 0) > bodyLimit)
    throw new Problem(413, 'The request is too large', `At most ${bodyLimit / 1048576} MiB are taken.`)
  const text = await readRawBody(event)
  if (!text) return undefined
  if (text.length > bodyLimit)
    throw new Problem(413, 'The request is too large', `At most ${bodyLimit / 1048576} MiB are taken.`)
  try {
    return JSON.parse(text)
  } catch {
    throw new Problem(400, 'The request is not JSON')
  }
}

/** A browser says where a request comes from; one that would change something must come from here. */
function checkOrigin(event: H3Event): void {
  if (['GET', 'HEAD', 'OPTIONS'].includes(event.method)) return
  const origin = getHeader(event, 'origin')
  const own = process.env.NORTHTIDE_ORIGIN ?? `${getRequestProtocol(event)}://${getRequestHost(event)}`
  const site = getHeader(event, 'sec-fetch-site')
  if (origin ? origin !== own : site && site !== 'same-origin' && site !== 'none')
    throw new Problem(403, 'This request comes from another site', 'Nothing was changed.')
}

/** The one way to make a route: parse with Zod, authorise, call a service, reply. */
export function route<
  P extends z.ZodType = z.ZodUndefined,
  Q extends z.ZodType = z.ZodUndefined,
  B extends z.ZodType = z.ZodUndefined,
  R extends z.ZodType = z.ZodType,
>(definition: Definition<P, Q, B, R>): Route {
  const handler = defineEventHandler(async event => {
    try {
      setHeader(event, 'cache-control', 'no-store')
      checkOrigin(event)
      const db = database()
      const who = definition.may.open ? null : await sessionPerson(event)
      const person = who === null ? null : await findPerson(db, who)
      if (!definition.may.open && !person)
        throw new Problem(
          401,
          'You are not signed in',
          'Sign in, then try again. What you have saved is kept.',
        )
      const params = parse(definition.params, event.context.params ?? {}, 'address')
      if (person) {
        const verdict = await definition.may.allow({ db, person, params })
        if (verdict !== true) throw verdict
      }
      const query = parse(definition.query, getQuery(event), 'query')
      const body = parse(definition.body, definition.body ? await readJson(event) : undefined, 'request')
      const result = await definition.run({ event, db, person: person as Person, params, query, body })
      return definition.reply ? definition.reply.parse(result) : result
    } catch (error) {
      return tell(event, error)
    }
  })
  return Object.assign(handler, { may: definition.may as unknown as May<never> })
}

function tell(event: H3Event, error: unknown): unknown {
  const problem =
    error instanceof Problem
      ? error
      : new Problem(
          500,
          'Something went wrong here',
          'Nothing was changed. Try again; if it happens again, tell the help desk when it happened.',
        )
  if (!(error instanceof Problem)) console.error(`${event.method} ${event.path}`, error)
  setResponseStatus(event, problem.status)
  setHeader(event, 'content-type', 'application/problem+json')
  return JSON.stringify({
    type: 'about:blank',
    title: problem.title,
    status: problem.status,
    detail: problem.detail,
    errors: problem.errors,
  })
}
