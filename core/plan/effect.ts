import type { AddedDecisions } from '../carry/added'
import type { ThingPart } from '../carry/again'
import type { Happening, PlaceRow } from '../carry/places/row'
import type { TextRecipe } from '../carry/texts'
import { itemKinds, type ItemKind, type ItemState } from '../course/model'
import type { OutlineNode } from '../course/outline'
import type { PlannedItem, Summary } from '../dates/plan'
import type { PlannedGrades } from '../grading/plan'
import type { RedactedThings } from './redacted'
import type { Furnishing, Rubric } from '../course/furniture'
import type { Grace } from '../grading/grace'
import type { CategoryRules, GradeRules } from '../grading/rules'
import type { TenThousandths } from '../grading/points'
import type { ToSettle } from './to-settle'

/** What a run does with one thing of the shell. `moved`: only its place; `dated`: of a unit of its own, when that opens; `cleared`: it is taken away. */
export type PlacementAction = 'added' | 'filled' | 'replaced' | 'moved' | 'dated' | 'cleared'
/** Where a thing is written, and what of it. What is written is the source's, but for what is said here. */
interface PlacedThing {
  action: PlacementAction
  /** The key in the shell, and that of the same thing in the source. */
  lineage: string
  source: string
  parent: string | null
  position: number
  dates: PlannedItem | null
  /** Which source it comes from, by its place among them. */
  from: number
  /** What of it is written; null: all of it. */
  parts: readonly ThingPart[] | null
  /** Its title, and how its text is made, where those are not the source's as they are. */
  title: string | null
  text: TextRecipe | null
  /** Whose text it gets: the source's, one that the run makes, or none. */
  textFrom: 'source' | 'made' | 'none'
  /** Settings that it gets instead of the source's, by name. */
  settings: Readonly<Record<string, unknown>> | null
  /** What it is, where no course has it: it is made in the plan. */
  made: { readonly points: TenThousandths | null; readonly exam: boolean } | null
  /** Taken by itself from a course that is no source: it waits for nothing that stands there. */
  alone: boolean
  /** Of an item: how it arrives, and what it is graded by. */
  arrives: Arrives | null
  /** Of a unit: in which state it arrives. */
  unitState: ItemState | null
}
/** How the text of an item is put together. */
export interface ComposedText {
  /** The heading under which its text stands in the source. */
  readonly heading: string | null
  /** Titles of what else went into it. */
  readonly further: readonly string[]
  /** So many passages were chosen; null: nobody chose any. */
  readonly passages: number | null
  /** So many of its questions; null: all. */
  readonly questions: number | null
  /** It comes without content. */
  readonly isFrame: boolean
}
/** What a category is to be. */
export interface PlacedCategory extends CategoryRules {
  readonly title: string
  readonly weight: TenThousandths | null
  readonly identifier: string | null
}
type Placed<Entity extends string, Details> = PlacedThing & { entity: Entity; details: Details }
/**
 * One thing a run does in the shell. `details`: how an item's text is put together; what a category, the rules or the allowances are to be;
 * criteria and details that come instead of the source's, where those lose a student.
 */
export type Placement =
  | Placed<'unit' | 'item', ComposedText | null>
  | Placed<'category', PlacedCategory>
  | Placed<'rules', GradeRules>
  | Placed<'grace', Grace>
  | Placed<'rubric', Rubric['criteria'] | null>
  | Placed<'furnishing', Furnishing['details'] | null>
  | Placed<'group', null>
export interface Arrives {
  readonly state: ItemState
  readonly kind: ItemKind | null
  readonly category: string | null
  readonly rubric: string | null
  readonly group: string | null
  /** The grading period that it is filed under. */
  readonly gradingPeriod: string | null
  readonly exempt: boolean
  readonly extra: boolean
}

/** What a run would do, in numbers. Dates and items are counted; `byKind` counts added items. */
export interface Effect {
  added: { units: number; items: number; categories: number; byKind: Partial<Record<ItemKind, number>> }
  /** Empty places of a template that items of the source take. */
  filled: number
  /** Items of the shell that are written over whole. */
  replaced: number
  /** Units and items that an earlier run or file brought and that get something anew: how many, and how many get which part. */
  updated: { things: number; parts: Partial<Record<ThingPart, number>> }
  /** What of the shell goes: units and items, and empty places of a template that nothing fills. */
  removed: { things: number; places: number }
  /** Units and items that go from sections, named, which show the shell's content then; left out where nothing does. */
  beside?: { things: number; sections: string[] }
  /** Things of the source that come beside something of the shell. */
  keptBoth: number
  /** Units and items that come under another name than they had. */
  renamed: number
  /** Units and items that come into another unit than their own, or in another order. */
  moved: number
  /** Units and items that the plan makes itself, and those taken of courses that are no sources: they are among the added. */
  ownAdded: { made: number; found: number }
  /** Items that come with title, date, points and category alone. */
  frames: number
  /** Items that are given other settings than they had. */
  given: number
  /** Things around the units that come, and those of the shell that go for them. */
  around: { comes: number; replaced: number }
  /** Texts that the run puts together, and items whose text goes into another's place. */
  texts: { made: number; joined: number }
  /** Items of the plan that the shell has already (from an earlier run). */
  already: number
  /** Items of the plan that somebody deleted in the shell: they stay away. */
  deletedThere: number
  /** Items of the sources that stay behind, and how many of them nobody chose: they stay unless somebody asks for them. */
  leftBehind: number
  leftUnasked: number
  /** Items and units that are in the shell and stay untouched. */
  kept: { units: number; items: number }
  /**
   * `categories`: how many the shell has then; `sum`: of their weights, in ten-thousandths; `changed`: of the shell's, how many are written over;
   * `rules`: how grades are reckoned there is written over.
   */
  grades: {
    by: PlannedGrades['rules']['by']
    categories: number
    sum: number
    changed: number
    rules: boolean
  }
  /**
   * Traces of students in what the run writes: taken out, kept with a reason, and those that are probably none and stay. `unseen`: files that
   * come although they could not be looked into, as somebody agreed.
   */
  traces: { out: number; kept: number; passed: number; unseen: number }
  /** Items that count, by the grading period of the new term. */
  periods: { name: string; items: number }[]
  /** How often students may hand in later without asking; null: nobody has said. */
  grace: Grace | null
  dates: Summary
  /** What a person has still to say. */
  settle: ToSettle
}
/** What the parts of a plan count their effect from. */
export interface Placements {
  readonly source: readonly OutlineNode[]
  readonly target: readonly OutlineNode[]
  readonly rows: readonly PlaceRow[]
  readonly added: AddedDecisions
  /** The keys of what goes into another unit than its own, or stands in another order. */
  readonly movedByHand: ReadonlySet<string>
  /** Units and items of the sources that the plan carries, and those of them that are new to the shell. */
  readonly wanted: readonly OutlineNode[]
  readonly fresh: readonly OutlineNode[]
  /** Items that stay behind though nobody left them. */
  readonly leftUnasked: number
  /** How grades are reckoned in the shell by now is written over. */
  readonly changesRules: boolean
  readonly categories: readonly unknown[]
  readonly grades: PlannedGrades
  readonly traces: Effect['traces']
  readonly redacted: RedactedThings
  readonly placements: readonly Placement[]
  readonly periods: Effect['periods']
  readonly grace: Grace | null
  readonly count: Counts
}
export interface Counts {
  (nodes: readonly OutlineNode[], type: 'unit' | 'item'): number
  readonly byKind: (nodes: readonly OutlineNode[]) => Partial<Record<ItemKind, number>>
  /** Items to which one of these happens. */
  readonly happens: (...happenings: Happening[]) => number
  /** Things of the shell that are written over or taken away. */
  readonly ofShell: (rows: readonly PlaceRow[], type: 'unit' | 'item') => number
}

function byKind(nodes: readonly OutlineNode[]): Partial<Record<ItemKind, number>> {
  const counts = new Map<ItemKind | null, number>()
  for (const { kind } of nodes) counts.set(kind, (counts.get(kind) ?? 0) + 1)
  return Object.fromEntries(itemKinds.flatMap(kind => (counts.has(kind) ? [[kind, counts.get(kind)]] : [])))
}
const ofType = (nodes: readonly OutlineNode[], type: 'unit' | 'item'): number =>
  nodes.filter(node => node.type === type).length
const written: readonly Happening[] = ['fills', 'replaces', 'again', 'removes', 'unfilled']
/** How many units or items some nodes are; of items, by kind; and what happens to how many. */
export const countsIn = (rows: readonly PlaceRow[]): Counts =>
  Object.assign((nodes: readonly OutlineNode[], type: 'unit' | 'item') => ofType(nodes, type), {
    byKind,
    happens: (...happenings: Happening[]) =>
      rows.filter(row => row.type === 'item' && happenings.includes(row.happens)).length,
    ofShell: (all: readonly PlaceRow[], type: 'unit' | 'item') =>
      all.filter(row => row.shell && row.type === type && written.includes(row.happens)).length,
  })
