// npm run bench:pairing [-- --fit] : how often a suggested source is right, and whether its chance says so, on a made-up catalogue. Prints docs/pairing.md's tables.
// --fit works the weights out anew on other catalogues (conditional logit by gradient ascent) and prints them.
import { present } from '../core/present'
import { indexSources, scoreOf, signsOf, suggestSource, weights, type Signs } from '../core/pairing/suggest'
import { makeCatalogue, type ShellKind } from '../tests/support/catalogue'

type Weights = Record<keyof typeof weights, number>
if (process.argv.includes('--fit')) console.log(fit())
const catalogue = makeCatalogue(2027, 2000)
const index = indexSources(
  [...catalogue.courses, ...catalogue.shells.map(entry => entry.shell)],
  catalogue.knowledge,
)
const start = performance.now()
const suggested = catalogue.shells.map(entry => ({ ...entry, suggestion: suggestSource(entry.shell, index) }))
const took = performance.now() - start

const percent = (part: number, whole: number): string =>
  whole === 0 ? '–' : `${((100 * part) / whole).toFixed(1)} %`
const isRight = (entry: (typeof suggested)[number]): boolean =>
  entry.suggestion !== null && entry.right.has(entry.suggestion.source)
console.log(
  `${catalogue.shells.length} shells, ${catalogue.courses.length} earlier courses, ${catalogue.knowledge.mapped.length} mapped codes; all suggestions in ${Math.round(took)} ms\n`,
)
console.log('| kind of shell | shells | suggested | right among those suggested |\n|---|---|---|---|')
for (const kind of [
  'as before',
  'renumbered',
  'renamed',
  'renumbered and renamed',
  'split',
  'merged',
  'new',
  null,
] as (ShellKind | null)[]) {
  const these = suggested.filter(entry => kind === null || entry.kind === kind)
  const named = these.filter(entry => entry.suggestion !== null)
  console.log(
    `| ${kind ?? '**all**'} | ${these.length} | ${percent(named.length, these.length)} | ${percent(named.filter(isRight).length, named.length)} |`,
  )
}
console.log('\n| chance given | word | suggestions | mean chance | right |\n|---|---|---|---|---|')
let error = 0
const all = suggested.filter(entry => entry.suggestion !== null)
for (const [from, to] of [
  [0.1, 0.3],
  [0.3, 0.45],
  [0.45, 0.6],
  [0.6, 0.75],
  [0.75, 0.9],
  [0.9, 0.97],
  [0.97, 1.01],
] as const) {
  const these = all.filter(
    entry => present(entry.suggestion).chance >= from && present(entry.suggestion).chance < to,
  )
  if (these.length === 0) continue
  const mean = these.reduce((sum, entry) => sum + present(entry.suggestion).chance, 0) / these.length
  const right = these.filter(isRight).length
  error += (Math.abs(mean - right / these.length) * these.length) / all.length
  console.log(
    `| ${from} – ${Math.min(to, 1)} | ${present(present(these[0]).suggestion).sureness} | ${these.length} | ${percent(mean, 1)} | ${percent(right, these.length)} |`,
  )
}
console.log(`\nExpected calibration error ${(100 * error).toFixed(1)} points.`)

/** Held a little towards nought, so that no sign counts for more than the catalogues can tell. */
function fit(): Weights {
  const cases = [1, 2].flatMap(seed => {
    const { courses, shells, knowledge } = makeCatalogue(seed, 1200)
    const sources = indexSources([...courses, ...shells.map(entry => entry.shell)], knowledge)
    return shells.map(({ shell, right }) =>
      signsOf(shell, sources).map(({ course, signs }) => ({ signs, right: right.has(course.id) })),
    )
  })
  let now: Weights = { ...weights }
  const names = Object.keys(weights).filter(name => name !== 'none') as (keyof Signs)[]
  for (let round = 0; round < 900; round++) {
    const slope = Object.fromEntries(Object.keys(weights).map(name => [name, 0])) as Weights
    for (const rows of cases) {
      const scores = rows.map(row => scoreOf(row.signs, now))
      const top = Math.max(now.none, ...scores)
      const mass = scores.map(score => Math.exp(score - top))
      const none = Math.exp(now.none - top)
      const whole = mass.reduce((sum, part) => sum + part, none)
      const good = rows.some(row => row.right)
      const wanted = good ? rows.reduce((sum, row, at) => sum + (row.right ? present(mass[at]) : 0), 0) : none
      rows.forEach((row, at) => {
        const pull = (row.right ? present(mass[at]) / wanted : 0) - present(mass[at]) / whole
        for (const name of names) slope[name] += pull * row.signs[name]
      })
      slope.none += (good ? 0 : 1) - none / whole
    }
    now = Object.fromEntries(
      Object.entries(now).map(([name, value]) => [
        name,
        value + 8 * (slope[name as keyof Weights] / cases.length - 0.0002 * value),
      ]),
    ) as Weights
  }
  return Object.fromEntries(
    Object.entries(now).map(([name, value]) => [name, Math.round(value * 100) / 100]),
  ) as Weights
}
