import { z } from 'zod'
import { itemKinds } from '../course/model'
import { noDates } from '../course/dates'
import { flagNames } from '../dates/flags'
import { reasonsOf } from '../dates/plan'
import { sentence } from '../dates/reasons'
import { wallTime } from '../calendar/schema'
import { graceText } from '../grading/grace'
import type { CompiledPlan } from './compile'
import type { Placement } from './effect'
import type { CompileInput } from './ledger'
import { titlesNamingNobody } from './redacted'

/** Why something of a source stayed behind: somebody chose so, or it does unless one asks for it. */
export const leftWhys = [
  'chosen',
  'announced',
  'deleted',
  'empty',
  'left-before',
  'removed-here',
  'went-into',
] as const

const wall = wallTime.nullable()
/** How a run put a text together. */
const textMade = z.object({
  heading: z.string().nullable(),
  further: z.array(z.string()),
  passages: z.int().nullable(),
  /** So many of its questions; null: all. */
  questions: z.int().nullish(),
  /** It came as a frame: without content. */
  isFrame: z.boolean().optional(),
})
/** One thing that a run did in a shell. */
export const recordEntry = z.object({
  entity: z.enum(['category', 'rules', 'grace', 'rubric', 'group', 'furnishing', 'unit', 'item']),
  /** Its key in the shell. */
  lineage: z.string(),
  action: z.enum(['added', 'filled', 'replaced', 'moved', 'dated', 'cleared']),
  title: z.string(),
  /** What it was called in the shell before, where it was there. */
  was: z.string().nullable(),
  kind: z.enum(itemKinds).nullable(),
  depth: z.int(),
  opens: wall,
  due: wall,
  closes: wall,
  flags: z.array(z.enum(flagNames)),
  /** Why its dates are where they are, a sentence each. */
  why: z.array(z.string()),
  category: z.string().nullable(),
  rubric: z.string().nullable(),
  gradingPeriod: z.string().nullable(),
  /** The course that it was taken from by itself, where that is no source of the plan; and whether the plan made it. */
  from: z.string().nullable(),
  isMade: z.boolean(),
  text: textMade.nullable(),
})
export type RecordEntry = z.infer<typeof recordEntry>
/** One thing of a source that stayed behind. */
export const recordLeft = z.object({
  title: z.string(),
  kind: z.enum(itemKinds).nullable(),
  why: z.enum(leftWhys),
})
export type RecordLeft = z.infer<typeof recordLeft>

/** Entries and what was left, as they are kept: what is not said is as `plain` has it; each sentence once. */
export interface PackedEntries {
  readonly whys: readonly string[]
  readonly entries: readonly Readonly<Record<string, unknown>>[]
  readonly left: readonly RecordLeft[]
}
const plain = {
  entity: 'item',
  action: 'added',
  was: null,
  opens: null,
  due: null,
  closes: null,
  flags: [],
  why: [],
  category: null,
  rubric: null,
  gradingPeriod: null,
  from: null,
  isMade: false,
  text: null,
} as const satisfies Partial<RecordEntry>
const isPlain = (name: string, value: unknown): boolean => {
  const usual = plain[name as keyof typeof plain]
  return value === usual || (Array.isArray(value) && value.length === 0)
}
export function packedEntries({
  entries,
  left,
}: {
  entries: readonly RecordEntry[]
  left: readonly RecordLeft[]
}): PackedEntries {
  const numbers = new Map<string, number>()
  const numberOf = (why: string): number => {
    const known = numbers.get(why)
    if (known !== undefined) return known
    numbers.set(why, numbers.size)
    return numbers.size - 1
  }
  const kept = entries.map(entry => {
    const said: Record<string, unknown> = {}
    for (const [name, value] of Object.entries(entry)) if (!isPlain(name, value)) said[name] = value
    if (entry.why.length > 0) said.why = entry.why.map(numberOf)
    return said
  })
  return { whys: [...numbers.keys()], entries: kept, left }
}
export function unpackedEntries({ whys, entries, left }: PackedEntries): {
  entries: RecordEntry[]
  left: readonly RecordLeft[]
} {
  const whole = (entry: Readonly<Record<string, unknown>>): RecordEntry =>
    ({
      ...plain,
      ...entry,
      why: ((entry.why ?? []) as number[]).map(at => whys[at] ?? ''),
    }) as unknown as RecordEntry
  return { entries: entries.map(whole), left }
}

type Titles = ReadonlyMap<string, string>
type Titled = { readonly lineage: string; readonly title: string }
/** Titles by key, as the record tells them. */
const titlesOf = (tell: (title: string) => string, ...lists: (readonly Titled[])[]): Titles =>
  new Map(lists.flat().map(({ lineage, title }) => [lineage, tell(title)]))
/** The things of a plan's courses, by what one looks up of them. */
function namesIn(
  { source, more, found, target, traces, document }: CompileInput,
  { rows, grades }: CompiledPlan,
) {
  const tell = titlesNamingNobody(traces, document.traces.answers)
  const sides = [source, ...more, ...found]
  const around = [...sides, target].map(side => [...side.rubrics, ...side.groups, ...side.furniture])
  return {
    tell,
    shell: titlesOf(tell, target.nodes, target.categories, target.furniture),
    around: titlesOf(tell, ...around),
    categories: titlesOf(tell, grades.categories),
    rows: new Map(rows.flatMap(row => (row.lineage === null ? [] : [[row.lineage, row] as const]))),
    cleared: new Map(rows.flatMap(row => (row.shell ? [[row.shell.lineage, row] as const] : []))),
  }
}
/** What a run of a plan does, thing by thing: what stands around the units first, then these in the order that the shell has them. `coursesFrom`: the course of each source, by a placement's `from`. */
export function recordEntries(
  input: CompileInput,
  compiled: CompiledPlan,
  coursesFrom: readonly string[],
): RecordEntry[] {
  const names = namesIn(input, compiled)
  const at = new Map(compiled.rows.map((row, place) => [row.lineage ?? row.key, place]))
  const entryOf = (placement: Placement): RecordEntry => {
    const { entity, lineage, action, dates, arrives, made } = placement
    const row = names.rows.get(lineage) ?? names.cleared.get(lineage)
    const category = arrives?.category ?? null
    const rubric = arrives?.rubric ?? null
    const { opens, due, closes } = dates ?? noDates
    return {
      entity,
      lineage,
      action,
      title: titleIn(placement, names),
      was: action === 'added' ? null : (names.shell.get(lineage) ?? null),
      kind: arrives?.kind ?? row?.source?.kind ?? row?.shell?.kind ?? null,
      depth: row?.depth ?? 0,
      opens,
      due,
      closes,
      flags: [...(dates?.flags ?? [])],
      why: dates ? reasonsOf(dates).map(sentence) : [],
      category: category && (names.categories.get(category) ?? null),
      rubric: rubric && (names.around.get(rubric) ?? null),
      gradingPeriod: arrives?.gradingPeriod ?? null,
      from: placement.alone ? (coursesFrom[placement.from] ?? null) : null,
      isMade: made !== null,
      text: composedNamingNobody(placement, names.tell),
    }
  }
  const placeOf = ({ entity, lineage }: Placement): number =>
    entity === 'unit' || entity === 'item' ? (at.get(lineage) ?? at.size) : -1
  return compiled.placements
    .map(placement => ({ placement, place: placeOf(placement) }))
    .sort((a, b) => a.place - b.place)
    .map(({ placement }) => entryOf(placement))
}
/** What the record says of a text that was put together, naming nobody. */
function composedNamingNobody(
  { entity, details }: Placement,
  tell: (title: string) => string,
): RecordEntry['text'] {
  if (entity !== 'item' || !details) return null
  const { heading, further } = details
  return { ...details, heading: heading && tell(heading), further: further.map(tell) }
}
function titleIn(placement: Placement, names: ReturnType<typeof namesIn>): string {
  const { entity, lineage, source, action, title } = placement
  const { tell } = names
  if (action === 'cleared') return names.shell.get(lineage) ?? ''
  if (entity === 'rules') return 'How grades are reckoned'
  if (entity === 'grace') return `Grace allowances: ${graceText(placement.details)}`
  if (entity === 'category') return tell(placement.details.title)
  if (entity !== 'unit' && entity !== 'item') return tell(title ?? names.around.get(source) ?? '')
  const row = names.rows.get(lineage)
  return tell(title ?? row?.source?.title ?? row?.shell?.title ?? '')
}
