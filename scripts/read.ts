// npm run --silent read -- [--from YYYY-MM-DD] [--to YYYY-MM-DD] FILE… : one JSON line a file on what was found in it; needs no database.
// Exit 0 if every file was read, 1 if any was refused, 2 if the command itself is wrong.
import { resolve } from 'node:path'
import { setFlagsFromString } from 'node:v8'
import { dayOf, isDate } from '../core/calendar/day'
import { finding } from '../core/formats/findings'
import type { FileReport } from '../core/formats/report'
import { messageOf } from '../core/message'
import { limitsFromEnvironment } from '../server/exchange/files/limits'
import { readFile } from '../server/exchange/files/read'
import { fileSource } from '../server/exchange/files/zip'

const usage = 'usage: npm run --silent read -- [--from YYYY-MM-DD] [--to YYYY-MM-DD] FILE…'
const fail = (message: string): never => {
  console.error(message)
  process.exit(2)
}
const range: { from: number | null; to: number | null } = { from: null, to: null }
const files: string[] = []
const words = process.argv.slice(2)
while (words.length > 0) {
  const word = words.shift()!
  const [, name, joined] = /^--(from|to)(?:=(.*))?$/.exec(word) ?? []
  if (name) {
    const value = joined ?? words.shift() ?? ''
    if (!isDate(value)) fail(`--${name}: ${JSON.stringify(value)} is not a date (YYYY-MM-DD)`)
    range[name as 'from' | 'to'] = dayOf(value)
  } else if (word === '--') files.push(...words.splice(0))
  else if (word.startsWith('--')) fail(`${word} is not known; ${usage}`)
  else files.push(word)
}
if (files.length === 0) fail(usage)
if (range.from !== null && range.to !== null && range.to < range.from) fail('--to lies before --from')
// Garbage is collected early rather than late: what is kept of a file is small, whatever its size.
setFlagsFromString('--heap-growing-percent=30')
const limits = limitsFromEnvironment()
let refused = false
for (const file of files) {
  let report: FileReport
  try {
    // npm changes directory; a path is meant from where the command was given.
    const source = fileSource(resolve(process.env.INIT_CWD ?? process.cwd(), file))
    try {
      report = await readFile(file, source, { limits, ...range })
    } finally {
      source.close()
    }
  } catch (error) {
    report = {
      file,
      format: null,
      outcome: 'refused',
      findings: [finding('unreadable', file, { why: messageOf(error) })],
      outline: [],
      counts: {},
      events: [],
    }
  }
  if (report.outcome === 'refused') refused = true
  const { format, outcome, findings, outline, counts, events } = report
  process.stdout.write(
    `${JSON.stringify({ file, format, outcome, findings: findings.map(({ severity, code, where, message }) => ({ severity, code, where, message })), outline, counts, events })}\n`,
  )
}
process.exitCode = refused ? 1 : 0
