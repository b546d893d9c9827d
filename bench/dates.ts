// npm run bench : how fast dates cross and crowded plans are eased, as ratios within one run. Prints a table for docs/benchmarks.md.
import { present } from '../core/present'
import { readFileSync } from 'node:fs'
import { wallOf, dayOf } from '../core/calendar/day'
import { compileTerm } from '../core/calendar/term'
import { readCase } from '../core/dates/case'
import { ease, type EaseItem } from '../core/dates/ease'
import { planDates, type DatedItem } from '../core/dates/plan'
import { ruleSchema } from '../core/dates/rule'
import { isTimeZone, zoneRules } from '../server/calendars/zones'
import { plainKeepWeek } from './plain-keep-week'

const read = readCase(
  (
    JSON.parse(
      readFileSync(new URL('../tests/cases/01-same-week-and-weekday.json', import.meta.url), 'utf8'),
    ) as { case: unknown }
  ).case,
  isTimeZone,
)
if ('faults' in read) throw new Error('the case cannot be read')
const { source, target, sourceMeetings, targetMeetings } = read.case
const zone = zoneRules(target.timeZone, { from: 2024, to: 2031 })
const first = dayOf(source.classes.from)
const length = dayOf(source.classes.to) - first

/** Items with three dates each, spread over the term. */
const itemsOf = (n: number, alike = true): DatedItem[] =>
  Array.from({ length: n }, (_, i) => {
    const due = first + 3 + ((i * 37) % (length - 6))
    return {
      id: `i${i}`,
      kind: 'assignment',
      unit: null,
      opens: wallOf(due - 3, alike ? 480 : (i * 7) % 1440),
      due: wallOf(due, alike ? 1439 : (i * 11) % 1440),
      closes: wallOf(due + 2, alike ? 1439 : (i * 13) % 1440),
    }
  })
const inputOf = (method: string, items: DatedItem[]) => ({
  source: compileTerm(source),
  target: compileTerm(target),
  sourceMeetings,
  targetMeetings,
  zone,
  items,
  rules: {
    rule: ruleSchema.parse({ method, basis: 'teaching' }),
    kindRules: {},
    unitRules: {},
    itemRules: {},
  },
})
/** Median of several runs in milliseconds, after warming up. */
function median(work: () => unknown, runs: number): number {
  for (let i = 0; i < 3; i++) work()
  const times = Array.from({ length: runs }, () => {
    globalThis.gc?.()
    const start = performance.now()
    work()
    return performance.now() - start
  }).sort((a, b) => a - b)
  return present(times[runs >> 1])
}
/** Bytes kept per item by a result, its own input not counted. */
function kept(method: string, items: DatedItem[]): number {
  globalThis.gc?.()
  const before = process.memoryUsage().heapUsed
  const result = planDates(inputOf(method, items))
  globalThis.gc?.()
  const bytes = (process.memoryUsage().heapUsed - before) / items.length
  return result.items.length ? bytes : 0
}

console.log(
  '| items (three slots each) | keep-week | meetings | stretch | plain keep-week, Temporal | times faster | kept per item |',
)
console.log('|---|---|---|---|---|---|---|')
for (const n of process.env.BENCH_QUICK ? [10_000] : [1_000, 10_000, 100_000]) {
  const items = itemsOf(n)
  const runs = n > 50_000 ? 5 : 11
  const time = (method: string): number => {
    const input = inputOf(method, items)
    return median(() => planDates(input), runs)
  }
  const [keepWeek, meetings, stretch] = [time('keep-week'), time('meetings'), time('stretch')]
  const plain = median(() => plainKeepWeek(source, target, items), n > 50_000 ? 1 : 3)
  const ms = (value: number): string => `${value.toFixed(1)} ms`
  console.log(
    `| ${n.toLocaleString('en')} | ${ms(keepWeek)} | ${ms(meetings)} | ${ms(stretch)} | ${ms(plain)} | ${(plain / keepWeek).toFixed(1)} | ${globalThis.gc ? `${Math.round(kept('keep-week', items))} bytes` : 'not measured'} |`,
  )
}

const unlike = inputOf('keep-week', itemsOf(10_000, false))
console.log(
  `\nThe worst case, 10 000 items with hardly two dates alike, keep-week: ${median(() => planDates(unlike), 11).toFixed(1)} ms`,
)

const days = Array.from({ length: 112 }, (_, i) => first + i)
  .filter(day => (day + 3) % 7 < 5)
  .slice(0, 80)
let seed = 7
const roll = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647
const crowd: EaseItem[] = Array.from(
  { length: 500 },
  () => present(days[0]) + Math.floor(roll() * (present(days.at(-1)) - present(days[0]))),
)
  .sort((a, b) => a - b)
  .map((due, i) => ({ id: `i${i}`, due, major: i % 60 === 0 }))
console.log(
  `\nEase, 500 items over ${days.length} days (10 a day, 7 days between major items): ${median(() => ease(crowd, { days, perDay: 10, minGap: 7 }), 11).toFixed(1)} ms`,
)
console.log(
  `Ease, the same with no limit per day: ${median(() => ease(crowd, { days, perDay: null, minGap: 7 }), 11).toFixed(1)} ms`,
)
