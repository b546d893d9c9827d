import type { ItemDates } from '../course/dates'
import { lineageOf } from '../course/lineage'
import type { ItemState } from '../course/model'
import type { OutlineNode } from '../course/outline'
import type { PassageChoices } from '../prose/compose'
import { carriedAgain, isUntouched, partValuesOf, type ChangedPart, type PartValues } from './again'
import { isBefore, type CarriedBase } from './base'
import { surenessOf, type Match, type MatchSureness } from './match'
import type { PlacesDecisions } from './decisions'
import { soundInto } from './into'
import { plannedTexts, textHere, wholeText, type TextRecipe } from './texts'

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

/** A thing's second copy in a course that has one under its own key already. */
const besideKey = (lineage: string): string => lineageOf(lineage, 'kept beside the shell’s')

interface OpenRow extends Omit<PlaceRow, 'depth' | 'parent' | 'position' | 'lineage'> {
  lineage: string | null
  over: OpenRow | null
  under: OpenRow[]
  /** The row that it stands right after, where both are kept. */
  after: OpenRow | null
}

/** A row as it stands. Field by field: the ledger is made anew with every choice, and taking an object apart takes most of the time. */
const rowOf = (draft: OpenRow, stands: Pick<PlaceRow, 'depth' | 'parent' | 'position'>): PlaceRow => ({
  key: draft.key,
  type: draft.type,
  depth: stands.depth,
  source: draft.source,
  shell: draft.shell,
  happens: draft.happens,
  match: draft.match,
  sureness: draft.sureness,
  settle: draft.settle,
  parts: draft.parts,
  lineage: draft.lineage,
  parent: stands.parent,
  position: stands.position,
  carries: draft.carries,
  into: draft.into,
  text: draft.text,
  isGone: draft.isGone,
  isUntouched: draft.isUntouched,
})

/**
 * The ledger of places (docs/places.md, sections 2 and 3), in the order that the shell will have: everything of the sources and of the shell
 * stands in just one row.
 */
export function placesLedger(input: PlacesInput): PlaceRow[] {
  const { sources, shell, carried, matches, decisions, arrival } = input
  const shellNodes = new Map(shell.map(node => [node.lineage, node]))
  const before = new Map(input.bases.filter(base => base.how !== 'template').map(base => [base.source, base]))
  const templates = new Map(
    input.bases.filter(base => base.how === 'template').map(base => [base.lineage, base]),
  )
  const cameAs = new Map(input.bases.filter(base => base.how === 'carried').map(base => [base.lineage, base]))
  const ofSource = new Map(sources.map(node => [node.lineage, node]))

  const valuesHere = (node: OutlineNode, base: CarriedBase): PartValues => {
    const values = partValuesOf(node, { ...node, dates: node })
    if (values.text === null) return values
    const isAsWritten = base.wroteSettings !== undefined && base.wroteSettings === node.settings
    return {
      ...values,
      text: textHere(base, node.body),
      settings: isAsWritten ? base.parts.settings : values.settings,
    }
  }
  const { isFrame, redacts } = arrival
  const texts = plannedTexts({ sources, carried, decisions, isFrame, redacts, isWritten })
  const untouched = (node: OutlineNode): boolean => {
    const base = templates.get(node.lineage)
    return base !== undefined && isUntouched(base.parts, valuesHere(node, base))
  }

  const moved = Object.entries(decisions.after)
  const goesInto = soundInto(
    decisions.into,
    lineage => (ofSource.get(lineage) ?? shellNodes.get(lineage))?.parent ?? null,
  )
  const bySource = new Map<string, OpenRow>()
  const byShell = new Map<string, OpenRow>()
  for (const node of shell) byShell.set(node.lineage, draftOfShell(node))
  for (const node of sources) placeSource(node)
  for (const [lineage, taker] of texts.goesInto) {
    const [row, place] = [bySource.get(lineage), bySource.get(taker)]
    if (row && place) Object.assign(row, { after: place, into: place.key })
  }

  /** Of the shell alone, until something of a source meets it. */
  function draftOfShell(node: OutlineNode): OpenRow {
    const base = cameAs.get(node.lineage)
    const isGone =
      base !== undefined && !ofSource.has(base.source) && isUntouched(base.parts, valuesHere(node, base))
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
      isGone,
      isUntouched: untouched(node),
      over: null,
      under: [],
      after: null,
    }
  }
  /** Whether a thing comes, or came with an earlier run: not where the shell's stays. */
  function isWritten(lineage: string): boolean {
    const met = shellNodes.get(matches.get(lineage)?.shell ?? '')
    const isKept = met !== undefined && (met.fixed || decisions.choices[lineage] === 'keep')
    return !isKept && before.get(lineage)?.how !== 'kept'
  }
  /** The row that holds what stands in a thing: that of the place, where the thing's text went into another's. */
  function holderOf(lineage: string): OpenRow | undefined {
    return bySource.get(texts.goesInto.get(lineage) ?? lineage)
  }
  /** The key of the parent that a thing of a source would have. */
  function parentOf(node: OutlineNode): string | null {
    const into = goesInto[node.lineage]
    if (into !== undefined) return into === null ? null : (draftOf(into)?.lineage ?? null)
    return node.parent === null ? null : (holderOf(node.parent)?.lineage ?? null)
  }
  function draftOf(lineage: string): OpenRow | undefined {
    return bySource.get(lineage) ?? byShell.get(lineage)
  }
  function placeSource(node: OutlineNode): void {
    const taker = texts.goesInto.get(node.lineage)
    const match = taker === undefined ? (matches.get(node.lineage) ?? null) : null
    const met = match && (shellNodes.get(match.shell) ?? null)
    const base = before.get(node.lineage)
    const recipe = texts.recipes.get(node.lineage) ?? null
    const values = partValuesOf(node, {
      parent:
        met && met.type === node.type && base && isBefore(base) ? placeBefore(node, met) : parentOf(node),
      category: arrival.category(node),
      state: arrival.state(node),
      dates: arrival.dates?.get(node.lineage) ?? null,
    })
    const title = decisions.titles[node.lineage] ?? recipe?.heading?.title ?? arrival.title(node)
    const given = node.type === 'item' ? arrival.given(node) : null
    const carries: PartValues =
      recipe || given !== null || title !== node.title
        ? {
            ...values,
            title,
            text: recipe ? texts.madeOf(node.lineage) : values.text,
            settings: given === null ? values.settings : `${values.settings} ${given}`,
          }
        : values
    const told = whatHappens(node, met, match, base, carries)
    const passages = told.parts.find(({ part }) => part === 'text')?.passages ?? null
    const isApart = !met || told.happens === 'both' || told.happens === 'adds'
    const there = met && byShell.get(met.lineage)
    const isTaken = shellNodes.has(node.lineage)
    const lineageOfIt = (): string | null => {
      if (taker !== undefined) return null
      if (told.happens === 'left' || told.happens === 'away') return met && !met.holds ? met.lineage : null
      if (!isApart) return there ? there.key : null
      return isTaken ? besideKey(node.lineage) : node.lineage
    }
    const sureness = match && surenessOf(match.level)
    const text = recipe || passages ? { ...wholeText, ...recipe, passages } : null
    if (there && !isApart) {
      // Nothing comes to it: what becomes of the shell's is as if nothing had met it.
      const isAlone = told.happens === 'left' && there.lineage === null
      const { parts, settle } = told
      const happens = isAlone ? there.happens : told.happens
      const lineage = isAlone ? null : there.key
      const comes = { source: node, match, sureness, parts, settle, happens, lineage, carries, text }
      bySource.set(node.lineage, Object.assign(there, comes))
      return
    }
    const row: OpenRow = {
      key: isTaken ? besideKey(node.lineage) : node.lineage,
      type: node.type,
      source: node,
      shell: null,
      happens: told.happens,
      match,
      sureness,
      settle: told.settle,
      parts: told.parts,
      lineage: lineageOfIt(),
      carries,
      text,
      into: null,
      isGone: false,
      isUntouched: false,
      over: null,
      under: [],
      after: told.happens === 'both' ? (there ?? null) : null,
    }
    bySource.set(node.lineage, row)
  }
  /** A thing stays where the shell has it unless the source moved it to another parent. */
  function placeBefore(node: OutlineNode, met: OutlineNode): string | null {
    const wanted = parentOf(node)
    return wanted ?? (node.parent === null ? null : met.parent)
  }
  function whatHappens(
    node: OutlineNode,
    met: OutlineNode | null,
    match: Match | null,
    base: CarriedBase | undefined,
    carries: PartValues,
  ): Pick<PlaceRow, 'happens' | 'settle' | 'parts'> {
    const plainly = (happens: Happening, settle = false) => ({ happens, settle, parts: [] })
    if (texts.goesInto.has(node.lineage)) return plainly('joins')
    if (!carried.has(node.lineage)) {
      return plainly(!met && input.away.has(node.lineage) ? 'away' : 'left')
    }
    if (!met || !match) return plainly('adds')
    if (met.fixed) return plainly('fixed')
    const choice = decisions.choices[node.lineage]
    const isGuess = surenessOf(match.level) === 'guessed'
    if (met.holds) {
      if (choice === 'keep') return plainly('left')
      return choice === 'both' ? plainly('adds') : plainly('fills', isGuess && !choice)
    }
    if (base && isBefore(base)) {
      const chosen = decisions.parts[node.lineage] ?? {}
      const passages = passagesChosen(node, met, carries)
      const parts = carriedAgain(base.parts, carries, valuesHere(met, base), chosen, passages)
      const writes = parts.some(part => part.takes)
      return { happens: writes ? 'again' : 'there', settle: parts.some(part => part.settle), parts }
    }
    if (node.type === 'unit') {
      if (choice === 'both') return plainly('both')
      const takesName = choice === 'replace' || (!choice && decisions.titles[node.lineage] !== undefined)
      return plainly(takesName ? 'replaces' : 'joins', isGuess && !choice)
    }
    if (choice) return plainly(({ replace: 'replaces', keep: 'kept', both: 'both' } as const)[choice])
    return untouched(met) && !isGuess ? plainly('replaces') : plainly('both', true)
  }

  /** Passages chosen of a text, as long as both texts are those of which they were chosen. */
  function passagesChosen(node: OutlineNode, met: OutlineNode, carries: PartValues): PassageChoices | null {
    const passages = decisions.passages[node.lineage]
    const holds = passages && passages.source === carries.text && passages.shell === met.body
    return holds && node.isHtml && met.isHtml ? passages : null
  }

  return inOrder([...byShell.values()], [...new Set(bySource.values())])

  /** Rows in the order of the shell to be: within each parent what it holds, then what comes, or the other way round. */
  function inOrder(ofShell: readonly OpenRow[], ofSource: readonly OpenRow[]): PlaceRow[] {
    const top: OpenRow[] = []
    const hang = (row: OpenRow): void => {
      row.over = overRow(row)
      ;(row.over?.under ?? top).push(row)
    }
    const isComing = (row: OpenRow): boolean => row.shell === null
    for (const row of ofShell) hang(row)
    for (const row of ofSource) if (isComing(row)) hang(row)
    for (const row of top) keepWhereNeeded(row)
    const sorted = (rows: readonly OpenRow[], over: OpenRow | null): OpenRow[] => {
      const beside = rows.filter(row => row.after && rows.includes(row.after))
      const withBeside = (row: OpenRow): OpenRow[] => [
        row,
        ...beside.filter(other => other.after === row).flatMap(withBeside),
      ]
      const inLine = (some: readonly OpenRow[]): readonly OpenRow[] =>
        beside.length > 0 ? some.filter(row => !beside.includes(row)).flatMap(withBeside) : some
      const coming = inLine(rows.filter(isComing))
      const there = inLine(rows.filter(row => !isComing(row)))
      const end = decisions.ends[over?.key ?? ''] ?? decisions.at
      return inChosenOrder(end === 'head' ? [...coming, ...there] : [...there, ...coming])
    }
    const made: PlaceRow[] = []
    const walk = (rows: readonly OpenRow[], depth: number, over: OpenRow | null): void => {
      const parent = over?.lineage ?? null
      // Gaps that were there stay: nothing is moved but to make room.
      let next = 0
      for (const draft of sorted(rows, over)) {
        const stood = draft.shell && draft.shell.parent === parent ? draft.shell.position : 0
        const position = draft.lineage === null ? -1 : Math.max(next, stood)
        if (draft.lineage !== null) next = position + 1
        made.push(rowOf(draft, { depth, parent, position }))
        walk(draft.under, depth + 1, draft)
      }
    }
    walk(top, 0, null)
    return made
  }
  /** The same rows with those moved that somebody moved, each right after another of the same parent. */
  function inChosenOrder(rows: OpenRow[]): OpenRow[] {
    if (moved.length === 0) return rows
    const ordered = [...rows]
    const find = (lineage: string): number =>
      ordered.findIndex(row => row.source?.lineage === lineage || row.key === lineage)
    for (const [lineage, after] of moved) {
      const from = find(lineage)
      if (from < 0 || (after !== null && find(after) < 0)) continue
      const [row] = ordered.splice(from, 1)
      if (row) ordered.splice(after === null ? 0 : find(after) + 1, 0, row)
    }
    return ordered
  }
  /** What something of the shell still stands in, or comes into, is not removed. Answers whether anything of it will be there. */
  function keepWhereNeeded(row: OpenRow): boolean {
    const holds = row.under.map(keepWhereNeeded).some(Boolean)
    if (row.happens === 'removes' && holds) Object.assign(row, { happens: 'stays', lineage: row.key })
    return row.lineage !== null
  }
  function overRow(row: OpenRow): OpenRow | null {
    const { source, shell: there } = row
    const moves = row.parts.some(({ part, takes }) => part === 'place' && takes)
    if (there && !moves) return there.parent === null ? null : (byShell.get(there.parent) ?? null)
    if (!source) return null
    const into = goesInto[source.lineage]
    if (into !== undefined) return into === null ? null : (draftOf(into) ?? null)
    if (row.after && row.into !== null) return overRow(row.after)
    return source.parent === null ? null : (holderOf(source.parent) ?? null)
  }
}

/** Whether a row writes a thing of a source into the shell. */
export const writesSource = ({ happens }: PlaceRow): boolean =>
  ['adds', 'fills', 'replaces', 'both', 'again'].includes(happens)
/** Whether something that the shell has is overwritten or removed: it stands in the list that is shown before consent. */
export const losesHere = (row: PlaceRow): boolean =>
  ['replaces', 'removes', 'unfilled'].includes(row.happens) ||
  (row.happens === 'again' && row.parts.some(part => part.takes))

/** Hashes of what a run made itself, by the lineage of the source's thing: texts, and settings that were given. */
export interface MadeByRun {
  readonly texts: ReadonlyMap<string, string>
  readonly settings: ReadonlyMap<string, string>
}
/**
 * What the next run compares with, once a run has written these rows: whatever of the sources was carried, or was seen and declined. A thing
 * left behind is remembered too, so that it is not proposed again; one that the shell has from before, and that was not looked at, stays as it was. What the run made of texts and settings is known by its hash.
 */
export function basesAfter(
  rows: readonly PlaceRow[],
  bases: readonly CarriedBase[],
  { texts, settings }: MadeByRun = { texts: new Map(), settings: new Map() },
): CarriedBase[] {
  const before = new Map(bases.filter(isBefore).map(base => [base.source, base]))
  return rows.flatMap((row): CarriedBase[] => {
    const { source, carries, happens, lineage, type, shell, into } = row
    if (!source || !carries) return []
    const was = before.get(source.lineage)
    const isLeft = leaves(happens)
    if (was && isLeft) return []
    const isInto = type === 'item' && happens === 'joins'
    const wroteOf = (): string | null => {
      if (writesText(row)) return row.text?.passages ? null : (texts.get(source.lineage) ?? null)
      return was && was.parts.text === carries.text ? (was.wrote ?? null) : null
    }
    const wroteSettings =
      settings.get(source.lineage) ??
      (was && was.parts.settings === carries.settings ? was.wroteSettings : undefined)
    return [
      {
        source: source.lineage,
        lineage: (isInto ? into : lineage) ?? shell?.lineage ?? was?.lineage ?? source.lineage,
        type,
        how: isInto ? 'into' : wayOf(happens, was),
        parts: carries,
        wrote: wroteOf(),
        ...(wroteSettings !== undefined && { wroteSettings }),
      },
    ]
  })
}
/** Whether a run writes the text of a row: all of it, or that part. */
export const writesText = (row: PlaceRow): boolean =>
  writesSource(row) &&
  (row.happens !== 'again' || row.parts.some(({ part, takes }) => part === 'text' && takes))
const leaves = (happens: Happening): boolean => ['left', 'unfilled', 'removes'].includes(happens)
function wayOf(happens: Happening, was: CarriedBase | undefined): CarriedBase['how'] {
  if (leaves(happens)) return 'left'
  if (happens === 'away' || happens === 'there') return was?.how ?? 'carried'
  return ['kept', 'fixed', 'joins'].includes(happens) ? 'kept' : 'carried'
}
/** Whether a source changed since it was last seen: told of what stays away. */
export const changedSince = (base: CarriedBase | undefined, row: PlaceRow): boolean =>
  base !== undefined && row.carries !== null && !isUntouched(base.parts, row.carries)
