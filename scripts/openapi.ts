// npm run openapi [-- --check] : writes docs/openapi.json from what the routes declare of themselves, or says whether it is current.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { termCalendar } from '../core/calendar/schema'
import { planDocument } from '../core/plan/document'
import type { Declared, Route } from '../server/http/route'
import { problem } from '../shared/api/session'

const folder = new URL('../server/api/v1/', import.meta.url)
const file = new URL('../docs/openapi.json', import.meta.url)
type Json = Record<string, unknown>

/** Every schema that the API's modules export goes in once, under its name. */
const named = z.registry<{ id: string }>()
for (const name of readdirSync(new URL('../shared/api/', import.meta.url))) {
  const exported = (await import(new URL(`../shared/api/${name}`, import.meta.url).href)) as Json
  for (const [id, value] of Object.entries(exported))
    if (value instanceof z.ZodType && !named.has(value)) named.add(value, { id })
}
named.add(planDocument, { id: 'planDocument' }).add(termCalendar, { id: 'termCalendar' })
const schemas: Record<string, Json> = {}
/** A schema of the document: what has a name of its own stands among the components, as it is sent (`In`) or answered. */
function schemaOf(schema: z.ZodType, io: 'input' | 'output'): Json {
  const made = z.toJSONSchema(z.object({ it: schema }), { io, unrepresentable: 'any', metadata: named })
  const ends = io === 'input' ? 'In' : ''
  const { properties, $defs = {} } = JSON.parse(
    JSON.stringify(made).replaceAll(/"#\/\$defs\/(\w+)"/g, `"#/components/schemas/$1${ends}"`),
  ) as { properties: { it: Json }; $defs?: Record<string, Json> }
  for (const [name, { id: _id, ...definition }] of Object.entries($defs)) schemas[name + ends] = definition
  return properties.it
}
/** `courses/[id]/dates.csv.get.ts` as `/api/v1/courses/{id}/dates.csv` and `get`. */
function addressOf(path: string): { path: string; method: string } | null {
  const [, name, method] = /^(.*)\.(get|post|put|delete)\.ts$/.exec(path) ?? []
  if (name === undefined || method === undefined) return null
  const shown = name.replace(/(^|\/)index$/, '').replace(/\[(\w+)\]/g, '{$1}')
  return { path: `/api/v1/${shown}`.replace(/\/$/, ''), method }
}
/** The fields of an object schema as parameters of an operation. */
function parametersOf(schema: z.ZodType | undefined, where: 'path' | 'query'): Json[] {
  if (!schema) return []
  const { properties = {}, required = [] } = z.toJSONSchema(schema, {
    io: 'input',
    unrepresentable: 'any',
  }) as {
    properties?: Json
    required?: string[]
  }
  return Object.entries(properties).map(([name, type]) => ({
    name,
    in: where,
    required: where === 'path' || required.includes(name),
    schema: type,
  }))
}
function operationOf({ summary, params, query, body, reply, sends, may }: Declared): Json {
  const type = sends ?? 'application/json'
  const parameters = [...parametersOf(params, 'path'), ...parametersOf(query, 'query')]
  return {
    summary,
    description: `Who may: ${may.name}.`,
    ...(may.open && { security: [] }),
    ...(parameters.length > 0 && { parameters }),
    ...(body && {
      requestBody: { required: true, content: { 'application/json': { schema: schemaOf(body, 'input') } } },
    }),
    responses: {
      200: { description: 'Done', content: { [type]: reply ? { schema: schemaOf(reply, 'output') } : {} } },
      default: { $ref: '#/components/responses/problem' },
    },
  }
}

// The document is served by a route, which reads it: so there must be one before the routes are looked at.
if (!existsSync(file)) writeFileSync(file, '{}\n')
const paths: Record<string, Json> = {}
for (const path of readdirSync(folder, { recursive: true, encoding: 'utf8' }).sort()) {
  const address = addressOf(path)
  if (!address) continue
  const { default: route } = (await import(new URL(path, folder).href)) as { default: Route }
  paths[address.path] = { ...paths[address.path], [address.method]: operationOf(route.declared) }
}
const document = {
  openapi: '3.1.0',
  info: {
    title: 'Northtide',
    version: '1',
    description:
      'What the pages of Northtide ask of its server. Dates of items are wall times without a zone, YYYY-MM-DDTHH:MM, in the zone of their term; instants are in UTC.',
  },
  security: [{ session: [] }],
  paths,
  components: {
    securitySchemes: { session: { type: 'apiKey', in: 'cookie', name: 'northtide' } },
    schemas,
    responses: {
      problem: {
        description:
          'It was not done; a problem after RFC 9457 says why, and names the fields that are wrong',
        content: { 'application/problem+json': { schema: schemaOf(problem, 'output') } },
      },
    },
  },
}
const text = `${JSON.stringify(document, null, 2)}\n`
if (!process.argv.includes('--check')) writeFileSync(file, text)
else if (readFileSync(file, 'utf8') !== text) {
  console.error('docs/openapi.json is not what the routes declare; run npm run openapi')
  process.exitCode = 1
}
