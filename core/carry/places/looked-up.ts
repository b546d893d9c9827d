import type { ItemDates } from '../../course/dates'
import type { ItemState } from '../../course/model'
import type { OutlineNode } from '../../course/outline'
import { isUntouched, partValuesOf, type PartValues } from '../again'
import type { CarriedBase } from '../base'
import type { PlacesDecisions } from '../decisions'
import { soundInto } from '../into'
import type { Match } from '../match'
import { plannedTexts, textHere } from '../texts'

/** How things of the sources will stand in the shell; what the other stages decide of them. */
export interface Arrival {
  readonly dates: ReadonlyMap<string, Readonly<ItemDates>> | null
  readonly category: (node: OutlineNode) => string | null
  readonly state: (node: OutlineNode) => ItemState
  readonly isFrame: (node: Pick<OutlineNode, 'lineage' | 'kind'>) => boolean
  /** What is given to an item instead of its own settings, as text; null: nothing. */
  readonly given: (node: OutlineNode) => string | null
  /** Its title, and a mark of what is taken out of its text, once traces of students are settled. */
  readonly title: (node: OutlineNode) => string
  readonly redacts: (lineage: string) => string | null
}
export interface PlacesInput {
  readonly sources: readonly OutlineNode[]
  readonly carried: ReadonlySet<string>
  /** What stays away because it was removed from the shell. */
  readonly away: ReadonlySet<string>
  readonly shell: readonly OutlineNode[]
  readonly bases: readonly CarriedBase[]
  readonly matches: ReadonlyMap<string, Match>
  readonly decisions: PlacesDecisions
  readonly arrival: Arrival
}

type Nodes = ReadonlyMap<string, OutlineNode>
const byKey = (nodes: readonly OutlineNode[]): Nodes => new Map(nodes.map(node => [node.lineage, node]))
/** What the shell has of a thing that an earlier run carried: parts that the run made itself count as carried. */
export function valuesHere(node: OutlineNode, base: CarriedBase): PartValues {
  const values = partValuesOf(node, { ...node, dates: node })
  if (values.text === null) return values
  const isAsWritten = base.wroteSettings !== undefined && base.wroteSettings === node.settings
  return {
    ...values,
    text: textHere(base, node.body),
    settings: isAsWritten ? base.parts.settings : values.settings,
  }
}

/** The input of the ledger of places, looked up by key. */
export function lookedUp(input: PlacesInput) {
  const { sources, shell, bases, carried, matches, decisions, arrival } = input
  const shellNodes = byKey(shell)
  const sourceNodes = byKey(sources)
  const basesThat = (how: (base: CarriedBase) => boolean, key: 'source' | 'lineage') =>
    new Map(bases.filter(how).map(base => [base[key], base]))
  /** What was carried or declined before, by its source; a template's and earlier runs', by the shell's thing. */
  const before = basesThat(({ how }) => how !== 'template', 'source')
  const templates = basesThat(({ how }) => how === 'template', 'lineage')
  const cameAs = basesThat(({ how }) => how === 'carried', 'lineage')

  const isAsIn = (base: CarriedBase | undefined, node: OutlineNode): boolean =>
    base !== undefined && isUntouched(base.parts, valuesHere(node, base))
  /** Whether a thing comes, or came with an earlier run: not where the shell's stays. */
  const isWritten = (lineage: string): boolean => {
    const met = shellNodes.get(matches.get(lineage)?.shell ?? '')
    const isKept = met !== undefined && (met.fixed || decisions.choices[lineage] === 'keep')
    return !isKept && before.get(lineage)?.how !== 'kept'
  }
  const { isFrame, redacts } = arrival
  return {
    ...input,
    shellNodes,
    sourceNodes,
    before,
    texts: plannedTexts({ sources, carried, decisions, isFrame, redacts, isWritten }),
    goesInto: soundInto(
      decisions.into,
      lineage => (sourceNodes.get(lineage) ?? shellNodes.get(lineage))?.parent ?? null,
    ),
    isOfTemplate: (node: OutlineNode): boolean => isAsIn(templates.get(node.lineage), node),
    /** Its source has it no more, and nobody has touched it here. */
    isGone(node: OutlineNode): boolean {
      const base = cameAs.get(node.lineage)
      if (base === undefined || base.isOther) return false
      const stands = sourceNodes.get(base.source)
      const isThere = stands !== undefined && (stands.state !== 'deleted' || carried.has(base.source))
      return !isThere && isAsIn(base, node)
    },
    valuesHere,
  }
}
export type LookedUp = ReturnType<typeof lookedUp>
