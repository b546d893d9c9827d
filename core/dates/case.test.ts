import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { readCase } from './case'
import { methods } from './methods'

type Loose = Record<string, unknown>
const worked = (): Loose =>
  (
    JSON.parse(
      readFileSync(
        new URL('../../tests/cases/09-quizzes-always-open-logs-by-milestone.json', import.meta.url),
        'utf8',
      ),
    ) as { case: Loose }
  ).case
const zones = (zone: string): boolean => zone === 'America/Halifax'
/** The first fault of the worked case after some of its fields were set; a path is written as in messages. */
function firstFault(...changes: [path: string, value: unknown][]): string | null {
  const content = worked()
  for (const [path, value] of changes) {
    const keys = path.split(/[.[\]]+/).filter(Boolean)
    const last = keys.pop()!
    const parent = keys.reduce<Loose>((at, key) => (at[key] ??= {}) as Loose, content)
    if (value === undefined) delete parent[last]
    else parent[last] = value
  }
  const read = readCase(content, zones)
  return 'faults' in read ? `${read.faults[0]!.field}: ${read.faults[0]!.message}` : null
}

describe('what is wrong with a case', () => {
  it.each<[string, ...[string, unknown][]]>([
    ['source: is missing', ['source', undefined]],
    [
      'source.timeZone: is missing: name the IANA zone, such as America/Halifax',
      ['source.timeZone', undefined],
    ],
    ['source.timeZone: Mars/Base is not a time zone that exists', ['source.timeZone', 'Mars/Base']],
    ['source.classes: is missing', ['source.classes', undefined]],
    ['target.classes.from: 2027-13-01 is not a date', ['target.classes.from', '2027-13-01']],
    [
      'target.classes: holds no class day: no teaching weekday is left between its ends outside the closures',
      ['target.closures', [{ from: '2026-01-01', to: '2028-01-01' }]],
    ],
    [
      'target.exams.to: 2027-04-01 is before 2027-04-12, where the range starts',
      ['target.exams.to', '2027-04-01'],
    ],
    [
      'target.exams.from: 2027-04-09 is not after the last day of classes, 2027-04-09',
      ['target.exams.from', '2027-04-09'],
    ],
    [
      'target.teachingWeekdays[1]: must be a weekday from 1 (Monday) to 7 (Sunday)',
      ['target.teachingWeekdays', [1, 8]],
    ],
    ['target.weekStart: must be a weekday from 1 (Monday) to 7 (Sunday)', ['target.weekStart', 0]],
    [
      'target.runsAs[1].date: 2027-03-30 has a changed timetable already',
      [
        'target.runsAs',
        [
          { date: '2027-03-30', weekday: 1 },
          { date: '2027-03-30', weekday: 2 },
        ],
      ],
    ],
    [
      'target.milestones[1].key: a is the key of another milestone too',
      [
        'target.milestones',
        [
          { key: 'a', date: '2027-01-20' },
          { key: 'a', date: '2027-01-21' },
        ],
      ],
    ],
    [
      'sourceMeetings[0].start: 25:00 is not a time',
      ['sourceMeetings', [{ weekday: 1, start: '25:00', end: '10:00' }]],
    ],
    [`rule.method: is missing: it must be one of ${Object.keys(methods).join(', ')}`, ['rule', {}]],
    [
      'rule.times.due: noon is neither a time nor keep, class-start or class-end',
      ['rule', { method: 'span', times: { due: 'noon' } }],
    ],
    [
      'rule.closures.closes: later is not one of next, previous, nearest, keep',
      ['rule', { method: 'span', closures: { closes: 'later' } }],
    ],
    [
      'kindRules.quiz.milestone: must name the key of a milestone',
      ['kindRules', { quiz: { method: 'anchor' } }],
    ],
    [
      'itemRules.b.due: 2027-02-30 is not a date',
      ['itemRules', { b: { method: 'set', due: '2027-02-30T10:00' } }],
    ],
    ['items: must be a list of items', ['items', undefined]],
    ['items[2].due: 2026-09-28 has no time', ['items[2].due', '2026-09-28']],
    ['items[2].opens: 2026-09-28T9:00 is not a date and time', ['items[2].opens', '2026-09-28T9:00']],
    ['items[1].id: must be a text', ['items[1].id', undefined]],
  ])('%s', (message, ...changes) => {
    expect(firstFault(...changes)).toBe(message)
  })
  it('of several, the first in the order of the keys is told, whichever kind it is', () => {
    expect(
      firstFault(['target.closures', [{ from: 'x', to: '2027-01-01' }]], ['target.timeZone', 'Mars/Base']),
    ).toMatch(/^target\.timeZone/)
    expect(firstFault(['items[3].due', 'x'], ['source.milestones', [{ key: 'a', date: 'x' }]])).toMatch(
      /^source\.milestones\[0\]\.date/,
    )
    expect(firstFault(['items[1].due', 'x'], ['items[1].id', 'a'])).toBe(
      'items[1].id: a is the id of items[0] too',
    )
    expect(firstFault(['items[4].id', 'a'], ['items[2].due', 'x'])).toMatch(/^items\[2\]\.due/)
    expect(firstFault(['rule', { method: 'guess' }], ['targetMeetings', 'x'])).toMatch(/^targetMeetings/)
  })
  it('what is absent, null or unknown to a method is fine; overlapping closures too', () => {
    expect(
      firstFault(
        ['target.exams', null],
        ['target.closures', null],
        ['source.weekStart', null],
        ['sourceMeetings', null],
        ['kindRules', null],
      ),
    ).toBeNull()
    expect(
      firstFault(
        ['rule', { method: 'none', days: 'many', surprise: 1, times: null }],
        ['unitRules', { nowhere: { method: 'span' } }],
      ),
    ).toBeNull()
    expect(
      firstFault([
        'target.closures',
        [
          { from: '2027-02-15', to: '2027-02-19' },
          { from: '2027-02-17', to: '2027-02-22' },
        ],
      ]),
    ).toBeNull()
  })
})
