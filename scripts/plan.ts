// npm run --silent plan -- CASE.json … : plans the dates of each case and prints the result as JSON; needs no database.
import { present } from '../core/present'
import { caseResult, planCase, readCase, type DateCase } from '../core/dates/case'
import { isTimeZone, zoneRules } from '../server/calendars/zones'
import { caseIn, endSaying } from './case-files'

function read(file: string): DateCase {
  const result = readCase(caseIn(file), isTimeZone)
  if ('faults' in result)
    endSaying(`${file}: ${present(result.faults[0]).field}: ${present(result.faults[0]).message}`)
  return result.case
}

const files = process.argv.slice(2)
if (files.length === 0) endSaying('plan: name at least one case file')
const cases = files.map(read)
for (const each of cases) {
  const result = caseResult(planCase(each, zoneRules))
  process.stdout.write(`${JSON.stringify(result, null, cases.length === 1 ? 1 : 0)}\n`)
}
