// npm run schemas [-- --check] : writes the JSON Schemas of docs/schemas from the Zod schemas, or says whether they are current.
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { dateCase, dateResult } from '../core/dates/case'
import { planDocument } from '../core/plan/document'
import { termCalendar } from '../core/calendar/schema'
import { courseDocument } from '../core/formats/json/documents'
import { runRecord } from '../shared/api/run-record'

const folder = new URL('../docs/schemas/', import.meta.url)
const schemas: [name: string, title: string, schema: z.ZodType, io: 'input' | 'output'][] = [
  ['date-case', 'A case for npm run plan', dateCase, 'input'],
  ['date-result', 'What npm run plan prints for a case', dateResult, 'output'],
  ['term-calendar', 'A term calendar', termCalendar, 'input'],
  ['plan', 'A plan', planDocument, 'input'],
  ['course', 'Northtide course JSON', courseDocument, 'input'],
  ['run-record', 'The record of a run', runRecord, 'output'],
]
mkdirSync(folder, { recursive: true })
for (const [name, title, schema, io] of schemas) {
  const file = new URL(`${name}.schema.json`, folder)
  const text = `${JSON.stringify({ title, ...z.toJSONSchema(schema, { io, unrepresentable: 'any', reused: 'ref' }) }, null, 2)}\n`
  if (!process.argv.includes('--check')) writeFileSync(file, text)
  else if (readFileSync(file, 'utf8') !== text) {
    console.error(`docs/schemas/${name}.schema.json is not what the Zod schema says; run npm run schemas`)
    process.exitCode = 1
  }
}
