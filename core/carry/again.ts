import { saidItemFields } from '../course/fields'
import type { ItemDates } from '../course/dates'
import type { PassageChoices } from '../prose/compose'
import type { OutlineNode } from '../course/outline'

/** The parts of a thing that are looked at each by itself when it is carried again. */
export const thingParts = [
  'title',
  'text',
  'settings',
  'points',
  'category',
  'dates',
  'place',
  'state',
] as const
export type ThingPart = (typeof thingParts)[number]
export const partWords: Readonly<Record<ThingPart, string>> = {
  title: 'title',
  text: 'text',
  settings: 'settings',
  points: 'points',
  category: 'grade category',
  dates: 'dates',
  place: 'place',
  state: 'state',
}
/** What the parts of a thing are, each as text that is the same where the part is: a hash or the value. Null: not looked at. */
export type PartValues = Readonly<Record<ThingPart, string | null>>
// The same thing is told again at every choice in a plan: what does not change of it is put into words once.
const told = new WeakMap<object, string>()
function keptText<T extends object>(of: T, tell: (of: T) => string): string {
  const known = told.get(of)
  if (known !== undefined) return known
  const text = tell(of)
  told.set(of, text)
  return text
}
// What is known of earlier runs is compared with this text: a field that came later stands in it only where somebody has said it.
function settingsText(node: OutlineNode): string {
  const { kind, settings, rubric, group, release, exempt, extra, exam } = node
  const { exempt: _, extra: __, ...further } = saidItemFields(node)
  const said = Object.keys(further).length > 0 ? [further] : []
  return JSON.stringify([kind, settings, rubric, group, release, exempt, extra, exam, ...said])
}
const datesText = ({ opens, due, closes }: Readonly<ItemDates>): string =>
  `${opens ?? ''} ${due ?? ''} ${closes ?? ''}`

/** What the parts of a thing of a course are. `stand`: its parent and category as the shell has them, its dates, its state. */
export function partValuesOf(
  node: OutlineNode,
  stand: Pick<OutlineNode, 'parent' | 'category' | 'state'> & { dates: Readonly<ItemDates> | null },
): PartValues {
  const isItem = node.type === 'item'
  return {
    title: node.title,
    text: isItem ? (node.body ?? '') : null,
    settings: isItem ? keptText(node, settingsText) : null,
    points: isItem ? String(node.points ?? '') : null,
    category: isItem ? (stand.category ?? '') : null,
    dates: stand.dates ? datesText(stand.dates) : null,
    place: stand.parent ?? '',
    state: stand.state,
  }
}

/**
 * What became of a part since the last run (docs/places.md, section 3): nothing; it changed in the source, or here, or in both alike; or in
 * both, each in another way.
 */
export type PartOutcome = 'nothing' | 'source' | 'here' | 'alike' | 'both'
/** `base`: as the last run carried it; `source`: what this plan would carry; `here`: as it is in the shell. */
export function partOutcome(base: string, source: string, here: string): PartOutcome {
  if (here === base) return source === base ? 'nothing' : 'source'
  if (source === base) return 'here'
  return source === here ? 'alike' : 'both'
}

/** A part that is not as the last run left it, and whether this run writes the source's. */
export interface ChangedPart {
  readonly part: ThingPart
  readonly outcome: Exclude<PartOutcome, 'nothing' | 'alike'>
  readonly takes: boolean
  /** A person must choose, and nobody has. */
  readonly settle: boolean
  /** Of a text: what is taken of the passages that differ, where not the whole is. */
  readonly passages?: PassageChoices
}
export type PartChoices = Readonly<Partial<Record<ThingPart, 'source' | 'shell'>>>
/** What of a thing carried before is written now. What changed in the source is taken unless one says no; what was changed here never, unless one says so. `passages`: passages chosen of the text. */
export function carriedAgain(
  base: PartValues,
  source: PartValues,
  here: PartValues,
  choices: PartChoices,
  passages: PassageChoices | null = null,
): ChangedPart[] {
  return thingParts.flatMap((part): ChangedPart[] => {
    const [was, new_, is] = [base[part], source[part], here[part]]
    if (was === null || new_ === null || is === null) return []
    const outcome = partOutcome(was, new_, is)
    if (outcome === 'nothing' || outcome === 'alike') return []
    const chosen = choices[part]
    if (part === 'text' && passages)
      return [
        { part, outcome, takes: passages.takes.length + passages.both.length > 0, settle: false, passages },
      ]
    const takes = chosen ? chosen === 'source' : outcome === 'source'
    return [{ part, outcome, takes: takes && new_ !== is, settle: outcome === 'both' && !chosen }]
  })
}
/** Whether a thing is in every part as it was brought. */
export const isUntouched = (base: PartValues, here: PartValues): boolean =>
  thingParts.every(part => base[part] === null || here[part] === null || base[part] === here[part])
