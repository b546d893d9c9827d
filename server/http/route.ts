import {
  defineEventHandler,
  getQuery,
  setHeader,
  setResponseStatus,
  type EventHandler,
  type H3Event,
} from 'h3'
import type { Knex } from 'knex'
import { v7 } from 'uuid'
import type { z } from 'zod'
import { inOurWords } from '../../core/schema-words'
import type { May } from '../auth/may'
import { database } from '../db/connection'
import { Refusal, refuse, type ToldRefusal } from '../errors/refusal'
import { findPerson, type Person } from '../people/people.queries'
import { isAskerGone, isAway, isPassing } from '../db/trouble'
import { log, logSeldom } from './logger'
import { checkOrigin, readJson } from './request'
import { sessionOf } from './session'

export interface Call<P, Q, B> {
  event: H3Event
  db: Knex
  person: Person
  /** Id of the sign-in by which they ask; empty on an open route. */
  session: string
  params: P
  query: Q
  body: B
}
export interface Definition<
  P extends z.ZodType,
  Q extends z.ZodType,
  B extends z.ZodType,
  R extends z.ZodType,
> {
  /** What it does, in a line: for the OpenAPI document. */
  summary: string
  params?: P
  query?: Q
  body?: B
  /** Schema of the reply; what it does not name is not sent. `null`: the route sends bytes or text of its own. */
  reply: R | null
  /** Of a route that sends something of its own: its media type. */
  sends?: string
  /** Who may: checked before anything is done. */
  may: May<z.output<P>>
  run: (call: Call<z.output<P>, z.output<Q>, z.output<B>>) => Promise<unknown>
}
/** What a route declares of itself, for whoever looks at all of them. */
export type Declared = Pick<
  Definition<z.ZodType, z.ZodType, z.ZodType, z.ZodType>,
  'summary' | 'params' | 'query' | 'body' | 'reply' | 'sends'
> & { readonly may: Pick<May<never>, 'name' | 'open'> }
export type Route = EventHandler & { readonly declared: Declared }

/** `is missing` → `Is missing.`; what is a sentence already stays as it is. */
const asSentence = (words: string): string =>
  words.charAt(0).toUpperCase() + words.slice(1) + (/[.!?]$/.test(words) ? '' : '.')
/** The value as the schema has it; nothing where the route declares none. @throws Refusal naming the fields that are wrong. */
function parse<T extends z.ZodType>(schema: T | undefined, value: unknown, what: string): z.output<T> {
  if (!schema) return undefined as z.output<T>
  const parsed = schema.safeParse(value, { error: inOurWords })
  if (parsed.success) return parsed.data
  const errors = parsed.error.issues.map(issue => ({
    field: issue.path.join('.') || what,
    message: asSentence(issue.message),
  }))
  throw refuse('bad-request', { what, errors })
}
/** Who asks. @throws Refusal where nobody is signed in. */
async function signedInPerson(event: H3Event, db: Knex): Promise<{ person: Person; session: string }> {
  const session = await sessionOf(event, db)
  const person = session && (await findPerson(db, session.personId))
  if (!person) throw refuse('not-signed-in')
  return { person, session: session.id }
}
/** Nobody: what an open route is given. It asks for no person and must use none. */
const nobody: Person = { id: '', login: '', givenName: '', familyName: '', duties: [] }

/** The one way to make a route: parse with Zod, authorise, call a service, reply. */
export function route<
  P extends z.ZodType = z.ZodUndefined,
  Q extends z.ZodType = z.ZodUndefined,
  B extends z.ZodType = z.ZodUndefined,
  R extends z.ZodType = z.ZodType,
>(definition: Definition<P, Q, B, R>): Route {
  const { may, reply } = definition
  async function answer(event: H3Event): Promise<unknown> {
    setHeader(event, 'cache-control', 'no-store')
    checkOrigin(event)
    const db = database()
    const { person, session } = may.open ? { person: nobody, session: '' } : await signedInPerson(event, db)
    const params = parse(definition.params, event.context.params ?? {}, 'address')
    if (!may.open) {
      const verdict = await may.allow({ db, person, params })
      if (verdict !== true) throw verdict
    }
    const query = parse(definition.query, getQuery(event), 'query')
    const body = parse(definition.body, definition.body ? await readJson(event) : undefined, 'request')
    const result = await definition.run({ event, db, person, session, params, query, body })
    return reply ? reply.parse(result) : result
  }
  const handler = defineEventHandler(async event => {
    const request = v7()
    const start = performance.now()
    setHeader(event, 'x-request-id', request)
    const facts = { request, method: event.method, path: event.path.split('?')[0] }
    try {
      return await answer(event)
    } catch (error) {
      return tell(event, error, facts)
    } finally {
      const status = event.node.res.statusCode
      log.info({ ...facts, status, ms: Math.round(performance.now() - start) }, 'request')
    }
  })
  return Object.assign(handler, { declared: definition })
}

const fault: ToldRefusal = {
  status: 500,
  title: 'Something went wrong here',
  detail: 'Nothing was changed. Try again; if it happens again, tell the help desk when it happened.',
}
const retrySeconds = 5
/** The refusal that an error is, or that a fault of the database comes to; null: a fault of ours. */
function refusalIn(error: unknown): Refusal | null {
  if (error instanceof Refusal) return error
  if (isAway(error)) {
    logSeldom('the database does not answer', error)
    return refuse('database-away')
  }
  return isPassing(error) ? refuse('busy') : null
}
/** Answers with application/problem+json (RFC 9457): the edge where a refusal becomes a problem. */
function tell(event: H3Event, error: unknown, facts: object): string {
  const told = refusalIn(error)?.told ?? fault
  if (told === fault && !isAskerGone(error)) log.error({ ...facts, err: error }, 'a request failed')
  const retryAfter = told.retryAfter ?? (told.status === 503 ? retrySeconds : null)
  if (retryAfter !== null) setHeader(event, 'retry-after', retryAfter)
  // What was not read of the request is not waited for.
  if (told.status === 413) setHeader(event, 'connection', 'close')
  setResponseStatus(event, told.status)
  setHeader(event, 'content-type', 'application/problem+json')
  return JSON.stringify({ type: 'about:blank', ...told })
}
