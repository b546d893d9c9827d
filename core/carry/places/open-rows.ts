import { lineageOf } from '../../course/lineage'
import type { OutlineNode } from '../../course/outline'
import { partValuesOf, type PartValues } from '../again'
import { isBefore } from '../base'
import { surenessOf } from '../match'
import { wholeText } from '../texts'
import { whatHappens, type SourceThing } from './happens'
import type { LookedUp } from './looked-up'
import type { PlaceRow } from './row'

/** A row that has no place yet. */
export interface OpenRow extends Omit<PlaceRow, 'depth' | 'parent' | 'position' | 'lineage'> {
  lineage: string | null
  /** The row that it stands right after, where both are kept. */
  after: OpenRow | null
}
/** Rows by the thing of the shell and by the thing of a source that stands in them, one row in both where two met. */
export interface OpenRows {
  readonly byShell: ReadonlyMap<string, OpenRow>
  readonly bySource: ReadonlyMap<string, OpenRow>
  /** The row of a thing that was named by its key. */
  readonly named: (lineage: string) => OpenRow | undefined
  /** The row that holds what stands in a thing of a source: that of the place, where the thing's text went into another's. */
  readonly holderOf: (lineage: string) => OpenRow | undefined
}
/** A thing's second copy in a course that has one under its own key already. */
const besideKey = (lineage: string): string => lineageOf(lineage, 'kept beside the shell’s')

/** Of the shell alone, until something of a source meets it. */
function rowOfShell({ decisions, isGone, isOfTemplate }: LookedUp, node: OutlineNode): OpenRow {
  const choice = decisions.shell[node.lineage]
  const isRemoved = !node.fixed && (choice ? choice === 'remove' : node.holds !== null)
  const removal = node.holds ? 'unfilled' : 'removes'
  return {
    key: node.lineage,
    type: node.type,
    source: null,
    shell: node,
    happens: isRemoved ? removal : 'stays',
    match: null,
    sureness: null,
    settle: false,
    parts: [],
    lineage: isRemoved ? null : node.lineage,
    carries: null,
    text: null,
    into: null,
    isGone: isGone(node),
    isUntouched: isOfTemplate(node),
    after: null,
  }
}
/** What a run of now would carry of a thing that goes below `parent`. */
function carriedValues(
  { arrival, decisions, texts }: LookedUp,
  node: OutlineNode,
  parent: string | null,
): PartValues {
  const values = partValuesOf(node, {
    parent,
    category: arrival.category(node),
    state: arrival.state(node),
    dates: arrival.dates?.get(node.lineage) ?? null,
  })
  const recipe = texts.recipes.get(node.lineage)
  const title = decisions.titles[node.lineage] ?? recipe?.heading?.title ?? arrival.title(node)
  const given = node.type === 'item' ? arrival.given(node) : null
  if (!recipe && given === null && title === node.title) return values
  return {
    ...values,
    title,
    text: recipe ? texts.madeOf(node.lineage) : values.text,
    settings: given === null ? values.settings : `${values.settings} ${given}`,
  }
}

/** Every thing of the sources and of the shell in just one row. */
export function openRows(known: LookedUp): OpenRows {
  const { sources, shell, shellNodes, matches, before, texts, goesInto } = known
  const byShell = new Map(shell.map(node => [node.lineage, rowOfShell(known, node)]))
  const bySource = new Map<string, OpenRow>()
  const named = (lineage: string) => bySource.get(lineage) ?? byShell.get(lineage)
  const holderOf = (lineage: string) => bySource.get(texts.goesInto.get(lineage) ?? lineage)
  for (const node of sources) bySource.set(node.lineage, rowOfSource(node))
  for (const [lineage, taker] of texts.goesInto) {
    const [row, place] = [bySource.get(lineage), bySource.get(taker)]
    if (row && place) Object.assign(row, { after: place, into: place.key })
  }
  return { byShell, bySource, named, holderOf }

  /** The key of the parent that a thing of a source would have. */
  function parentOf(node: OutlineNode): string | null {
    const into = goesInto[node.lineage]
    if (into !== undefined) return into === null ? null : (named(into)?.lineage ?? null)
    return node.parent === null ? null : (holderOf(node.parent)?.lineage ?? null)
  }
  /** What was carried before stays where the shell has it, unless the source moved it to another parent. */
  function parentWith({ node, met, base }: SourceThing): string | null {
    const wanted = parentOf(node)
    const stays = met && met.type === node.type && base && isBefore(base)
    return stays && node.parent !== null ? (wanted ?? met.parent) : wanted
  }
  function thingOf(node: OutlineNode): SourceThing {
    const match = texts.goesInto.has(node.lineage) ? null : (matches.get(node.lineage) ?? null)
    const met = match && (shellNodes.get(match.shell) ?? null)
    return { node, met, match, base: before.get(node.lineage) }
  }
  function rowOfSource(node: OutlineNode): OpenRow {
    const thing = thingOf(node)
    const { met, match } = thing
    const carries = carriedValues(known, node, parentWith(thing))
    const { happens, settle, parts } = whatHappens(known, thing, carries)
    const recipe = texts.recipes.get(node.lineage)
    const passages = parts.find(({ part }) => part === 'text')?.passages ?? null
    const text = recipe || passages ? { ...wholeText, ...recipe, passages } : null
    const comes = {
      source: node,
      match,
      sureness: match && surenessOf(match.level),
      happens,
      settle,
      parts,
      carries,
      text,
    }
    const there = met && byShell.get(met.lineage)
    if (there && happens !== 'both' && happens !== 'adds') {
      // Nothing comes to it: what becomes of the shell's is as if nothing had met it.
      const isAlone = happens === 'left' && (there.lineage === null || there.isGone)
      if (!isAlone) return Object.assign(there, comes, { happens, lineage: there.key })
      const { happens: fate, lineage, isGone } = there
      // What is gone from the source is not seen of it either: it is compared with what was carried, should it come back.
      return Object.assign(there, comes, { happens: fate, lineage, ...(isGone && { carries: null }) })
    }
    const key = shellNodes.has(node.lineage) ? besideKey(node.lineage) : node.lineage
    const comesNot = happens === 'left' || happens === 'away' || texts.goesInto.has(node.lineage)
    return {
      ...comes,
      key,
      type: node.type,
      shell: null,
      lineage: comesNot ? null : key,
      into: null,
      isGone: false,
      isUntouched: false,
      after: happens === 'both' ? (there ?? null) : null,
    }
  }
}
