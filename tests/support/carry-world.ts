import { partValuesOf } from '../../core/carry/again'
import { basesAfter } from '../../core/carry/places/bases-after'
import { placesLedger } from '../../core/carry/places/ledger'
import { writesSource, writesText, type PlaceRow } from '../../core/carry/places/row'
import type { CarriedBase } from '../../core/carry/base'
import { carriedAs } from '../../core/carry/base'
import { noPlaces, type PlacesDecisions } from '../../core/carry/decisions'
import { matchThings } from '../../core/carry/match'
import { carriedOf, leftBehind, staysUnasked, type Chosen } from '../../core/carry/select'
import { inCourseOrder, type OutlineNode } from '../../core/course/outline'

/** A shell, and what earlier runs left to compare with: what a run is made from, without a database. */
export interface World {
  readonly shell: readonly OutlineNode[]
  readonly bases: readonly CarriedBase[]
}
export interface Wanted {
  readonly chosen?: Chosen
  readonly decisions?: Partial<PlacesDecisions>
  /** Lineages of what comes as a frame, and settings that are given, as text. */
  readonly frames?: readonly string[]
  readonly given?: Readonly<Record<string, string>>
  /** Titles without students, and marks of what is taken out of texts. */
  readonly titles?: Readonly<Record<string, string>>
  readonly redacts?: Readonly<Record<string, string>>
}

/** The ledger of places of a roll from some sources into the shell. */
export function ledgerOf(
  { shell, bases }: World,
  sources: readonly OutlineNode[],
  {
    chosen = { leave: [], take: [] },
    decisions,
    frames = [],
    given = {},
    titles = {},
    redacts = {},
  }: Wanted = {},
): PlaceRow[] {
  const places = { ...noPlaces, ...decisions }
  const goesInto = new Set(Object.values(places.further).flat())
  const stays = staysUnasked(sources, { nodes: shell, bases, deleted: new Set(), goesInto })
  return placesLedger({
    sources,
    shell,
    bases,
    away: new Set([...stays].filter(([, why]) => why === 'removed-here').map(([lineage]) => lineage)),
    carried: carriedOf(sources, leftBehind(chosen, stays)),
    matches: matchThings({ sources, shell, byHand: places.pairs, carriedAs: carriedAs(bases) }),
    decisions: places,
    arrival: {
      dates: new Map(sources.map(node => [node.lineage, node])),
      category: node => node.category,
      state: node => node.state,
      isFrame: node => frames.includes(node.lineage),
      given: node => given[node.lineage] ?? null,
      title: node => titles[node.lineage] ?? node.title,
      redacts: lineage => redacts[lineage] ?? null,
    },
  })
}
/** Stands for the hash of the text that a run makes of a row; null where it makes none. */
const madeHash = ({ text, carries, shell }: PlaceRow): string | null => {
  if (!text || text.isFrame) return null
  return text.passages
    ? `${carries?.text} with ${shell?.body} by ${JSON.stringify(text.passages)}`
    : `hash of ${carries?.text}`
}
/** Whether settings of its own are given to a thing; and the hash that its settings have then. */
const isGiven = ({ source, carries }: PlaceRow): boolean =>
  source?.type === 'item' && carries?.settings !== partValuesOf(source, { ...source, dates: null }).settings
const settingsOf = (row: PlaceRow): string | null =>
  isGiven(row) ? `hash of ${row.carries?.settings}` : (row.source?.settings ?? null)
/** What the shell holds once the rows were written, as a run writes them. */
export function written({ shell, bases }: World, rows: readonly PlaceRow[]): World {
  const former = new Map(shell.map(node => [node.lineage, node]))
  const nodes = rows.flatMap((row): OutlineNode[] => {
    const { source, shell: was, lineage, parent, position, happens } = row
    if (lineage === null) return []
    const place = { lineage, parent, position }
    if (source && ['adds', 'both', 'fills', 'replaces'].includes(happens))
      return [
        {
          ...source,
          ...place,
          title: row.carries?.title ?? source.title,
          body: row.text?.isFrame ? null : (madeHash(row) ?? source.body),
          settings: settingsOf(row),
          holds: null,
          madeBy: 'run',
        },
      ]
    const old = was && former.get(was.lineage)
    if (!old) return []
    const taken = new Set(row.parts.filter(part => part.takes).map(({ part }) => part))
    if (!source || happens !== 'again') return [{ ...old, ...place }]
    const { size, points, category, state, opens, due, closes } = source
    const title = row.carries?.title ?? source.title
    const body = row.text?.isFrame ? null : (madeHash(row) ?? source.body)
    return [
      {
        ...old,
        ...place,
        ...(taken.has('title') && { title }),
        ...(taken.has('text') && { body, size }),
        ...(taken.has('settings') && { settings: settingsOf(row) }),
        ...(taken.has('points') && { points }),
        ...(taken.has('category') && { category }),
        ...(taken.has('dates') && { opens, due, closes }),
        ...(taken.has('state') && { state }),
      },
    ]
  })
  const made = new Map(
    rows.flatMap(row => {
      const hash = writesText(row) ? madeHash(row) : null
      return row.source && hash !== null ? [[row.source.lineage, hash]] : []
    }),
  )
  const settings = new Map(
    rows.flatMap(row =>
      row.source && writesSource(row) && isGiven(row) ? [[row.source.lineage, settingsOf(row) ?? '']] : [],
    ),
  )
  const after = basesAfter(rows, bases, { texts: made, settings })
  const renewed = new Set(after.map(base => base.source))
  return {
    shell: inCourseOrder(nodes),
    bases: [...bases.filter(base => base.how === 'template' || !renewed.has(base.source)), ...after],
  }
}
