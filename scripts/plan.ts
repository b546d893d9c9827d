// npm run --silent plan -- CASE.json … : plans the dates of each case and prints the result as JSON; needs no database.
import { there } from '../core/there'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { caseResult, planCase, readCase, type DateCase } from '../core/dates/case'
import { isTimeZone, zoneRules } from '../server/calendars/zones'

function refuse(line: string): never {
  process.stderr.write(`${line.replace(/\s*\n\s*/g, ' ')}\n`)
  process.exit(2)
}

function read(file: string): DateCase {
  let content: unknown
  try {
    content = JSON.parse(
      readFileSync(resolve(process.env.INIT_CWD ?? '.', file), 'utf8').replace(/^\uFEFF/, ''),
    )
  } catch (error) {
    const missing = (error as NodeJS.ErrnoException).code
    refuse(`${file}: ${missing ? `cannot be read (${missing})` : `is not JSON: ${(error as Error).message}`}`)
  }
  const inner = typeof content === 'object' && content !== null && 'case' in content ? content.case : content
  const result = readCase(inner, isTimeZone)
  if ('faults' in result)
    refuse(`${file}: ${there(result.faults[0]).field}: ${there(result.faults[0]).message}`)
  return result.case
}

const files = process.argv.slice(2)
if (files.length === 0) refuse('plan: name at least one case file')
const cases = files.map(read)
for (const each of cases) {
  const result = caseResult(planCase(each, zoneRules))
  process.stdout.write(`${JSON.stringify(result, null, cases.length === 1 ? 1 : 0)}\n`)
}
