import type { OutlineNode } from '../../course/outline'
import type { ChangedPart, PartValues } from '../again'
import type { Match, MatchSureness } from '../match'
import type { TextRecipe } from '../texts'

/** What happens at a place of the shell. */
export const happenings = {
  adds: 'adds',
  fills: 'fills',
  replaces: 'replaces',
  joins: 'goes into',
  both: 'keeps both',
  again: 'brings up to date',
  there: 'there already',
  kept: 'the shell’s stays',
  fixed: 'the institution’s stays',
  left: 'stays behind',
  away: 'was removed here',
  stays: 'stays',
  removes: 'removed',
  unfilled: 'removed, unfilled',
} as const
export type Happening = keyof typeof happenings

/** One row of the ledger of places: a thing of the sources, of the shell, or both where they meet. */
export interface PlaceRow {
  /** Lineage key of the shell's thing, else of the source's. */
  readonly key: string
  readonly type: 'unit' | 'item'
  readonly depth: number
  readonly source: OutlineNode | null
  readonly shell: OutlineNode | null
  readonly happens: Happening
  readonly match: Match | null
  readonly sureness: MatchSureness | null
  /** A person must choose, and nobody has. */
  readonly settle: boolean
  /** What an earlier run carried: the parts that are not as it left them. */
  readonly parts: readonly ChangedPart[]
  /** The key under which it will stand, the parent that it will have, and its place there; null where nothing of it will be in the shell. */
  readonly lineage: string | null
  readonly parent: string | null
  readonly position: number
  /** What a run of now would carry of it; null where there is no source's. */
  readonly carries: PartValues | null
  /** Key of the row in whose place its text goes, where it has none of its own. */
  readonly into: string | null
  /** How its text is made, where that is not the source's as it is. */
  readonly text: TextRecipe | null
  /** Its removal can be offered: it came with an earlier run, nobody touched it, and the source has it no more. */
  readonly isGone: boolean
  /** A template's that nobody touched. */
  readonly isUntouched: boolean
}

/** Whether a row writes a thing of a source into the shell. */
export const writesSource = ({ happens }: PlaceRow): boolean =>
  ['adds', 'fills', 'replaces', 'both', 'again'].includes(happens)
/** Whether something that the shell has is overwritten or removed: it stands in the list that is shown before consent. */
export const losesHere = (row: PlaceRow): boolean =>
  ['replaces', 'removes', 'unfilled'].includes(row.happens) ||
  (row.happens === 'again' && row.parts.some(part => part.takes))
/** Whether a run writes the text of a row: all of it, or that part. */
export const writesText = (row: PlaceRow): boolean =>
  writesSource(row) &&
  (row.happens !== 'again' || row.parts.some(({ part, takes }) => part === 'text' && takes))
