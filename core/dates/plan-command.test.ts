import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { fileURLToPath } from 'node:url'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { methods } from './methods'

const folder = mkdtempSync(join(tmpdir(), 'nt-plan.'))
afterAll(() => rmSync(folder, { recursive: true, force: true }))
interface Loose {
  case: {
    source: { classes: { to: string } }
    target: { timeZone: string }
    rule: { method: string }
    items: { id: string; opens: string; due: string }[]
  }
}
const worked = (): Loose =>
  JSON.parse(
    readFileSync(new URL('../../tests/cases/01-same-week-and-weekday.json', import.meta.url), 'utf8'),
  )
const root = fileURLToPath(new URL('../..', import.meta.url))
// As a person would: from the folder that holds the files.
const run = (...args: string[]) =>
  spawnSync('npm', ['--prefix', root, 'run', '--silent', 'plan', '--', ...args], {
    encoding: 'utf8',
    cwd: folder,
  })
const file = (name: string, content: unknown): string => {
  writeFileSync(join(folder, name), typeof content === 'string' ? content : JSON.stringify(content))
  return name
}

describe('npm run plan', () => {
  beforeAll(() => {
    file('good.json', worked())
  })
  it('prints one document for one case, and a line each for several', () => {
    const one = JSON.parse(run('good.json').stdout)
    expect(one.items[1]).toMatchObject({ id: 'b', due: '2027-01-15T23:59', flags: [] })
    const lines = run('good.json', 'good.json').stdout.trim().split('\n')
    expect(lines.map(line => JSON.parse(line))).toEqual([one, one])
  }, 30_000)
  it.each<[string, (content: Loose) => void, string]>([
    [
      'a date that does not exist',
      content => {
        content.case.items[3]!.due = '2026-02-30T10:00'
      },
      'bad.json: items[3].due: 2026-02-30 is not a date',
    ],
    [
      'a year in which no date can lie',
      content => {
        content.case.items[3]!.due = '0027-02-22T23:59'
      },
      'bad.json: items[3].due: 0027-02-22 lies outside the years 1970 to 2199',
    ],
    [
      'a year in which no date can lie, in a rule',
      content => {
        Object.assign(content.case, {
          itemRules: { a: { method: 'set', due: '2272-03-05T23:59' } },
        })
      },
      'bad.json: itemRules.a.due: 2272-03-05 lies outside the years 1970 to 2199',
    ],
    [
      'a date without a time',
      content => {
        content.case.items[1]!.opens = '2026-09-08'
      },
      'bad.json: items[1].opens: 2026-09-08 has no time',
    ],
    [
      'a zone that does not exist',
      content => {
        content.case.target.timeZone = 'Sea/Nowhere'
      },
      'bad.json: target.timeZone: Sea/Nowhere is not a time zone that exists',
    ],
    [
      'classes that end before they start',
      content => {
        content.case.source.classes.to = '2026-09-01'
      },
      'bad.json: source.classes.to: 2026-09-01 is before 2026-09-02, where the range starts',
    ],
    [
      'two items with one id',
      content => {
        content.case.items[4]!.id = 'a'
      },
      'bad.json: items[4].id: a is the id of items[0] too',
    ],
    [
      'a method that is not one',
      content => {
        content.case.rule = { method: 'guess' }
      },
      `bad.json: rule.method: is not one of ${Object.keys(methods).join(', ')}`,
    ],
  ])(
    'refuses %s: exit 2, one line, nothing on standard output',
    (_, spoil, line) => {
      const content = worked()
      spoil(content)
      const { status, stdout, stderr } = run('good.json', file('bad.json', content))
      expect({
        status,
        stdout,
        stderr: stderr
          .split('\n')
          .filter(text => !text.startsWith('npm warn'))
          .join('\n')
          .trim(),
      }).toEqual({ status: 2, stdout: '', stderr: line })
    },
    30_000,
  )
})
