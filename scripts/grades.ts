// npm run --silent grades -- CASE.json … : reckons the grades of each case and prints the result, a JSON line each; needs no database.
import { reckon } from '../core/grading/reckon'
import { readGradeCase, type GradeCase } from '../core/grading/scheme'
import { caseIn, endSaying } from './case-files'

function read(file: string): GradeCase {
  const result = readGradeCase(caseIn(file))
  if ('fault' in result) endSaying(`${file}: ${result.fault.field}: ${result.fault.message}`)
  return result.case
}

const files = process.argv.slice(2)
if (files.length === 0) endSaying('grades: name at least one case file')
// All are read before any is told: with one that is bad nothing stands on standard output.
const cases = files.map(read)
for (const each of cases) process.stdout.write(`${JSON.stringify(reckon(each))}\n`)
