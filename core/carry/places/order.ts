import type { PlacesDecisions } from '../decisions'
import type { LookedUp } from './looked-up'
import type { OpenRow, OpenRows } from './open-rows'
import type { PlaceRow } from './row'

/** A row as it stands. Field by field: the ledger is made anew with every choice, and taking an object apart takes most of the time. */
const rowOf = (open: OpenRow, stands: Pick<PlaceRow, 'depth' | 'parent' | 'position'>): PlaceRow => ({
  key: open.key,
  type: open.type,
  depth: stands.depth,
  source: open.source,
  shell: open.shell,
  happens: open.happens,
  match: open.match,
  sureness: open.sureness,
  settle: open.settle,
  parts: open.parts,
  lineage: open.lineage,
  parent: stands.parent,
  position: stands.position,
  carries: open.carries,
  into: open.into,
  text: open.text,
  isGone: open.isGone,
  isUntouched: open.isUntouched,
})
const isComing = ({ shell }: OpenRow): boolean => shell === null
type Under = ReadonlyMap<OpenRow | null, OpenRow[]>

/** Rows in the order of the shell to be: within each parent what it holds, then what comes, or the other way round. */
export function inShellOrder(known: LookedUp, rows: OpenRows): PlaceRow[] {
  const under = hung(known, rows)
  for (const row of under.get(null) ?? []) keepWhereNeeded(under, row)
  const made: PlaceRow[] = []
  const walk = (over: OpenRow | null, depth: number): void => {
    const parent = over?.lineage ?? null
    // Gaps that were there stay: nothing is moved but to make room.
    let next = 0
    for (const row of sorted(under.get(over) ?? [], over, known.decisions)) {
      const stood = row.shell && row.shell.parent === parent ? row.shell.position : 0
      const position = row.lineage === null ? -1 : Math.max(next, stood)
      if (row.lineage !== null) next = position + 1
      made.push(rowOf(row, { depth, parent, position }))
      walk(row, depth + 1)
    }
  }
  walk(null, 0)
  return made
}
/** Rows by the one in which they will stand; null: at the top. */
function hung({ goesInto }: LookedUp, { byShell, bySource, named, holderOf }: OpenRows): Under {
  const under = new Map<OpenRow | null, OpenRow[]>()
  const hang = (row: OpenRow): void => {
    const over = overRow(row)
    const beside = under.get(over)
    if (beside) beside.push(row)
    else under.set(over, [row])
  }
  for (const row of byShell.values()) hang(row)
  for (const row of bySource.values()) if (isComing(row)) hang(row)
  return under

  function overRow(row: OpenRow): OpenRow | null {
    const { source, shell } = row
    const moves = row.parts.some(({ part, takes }) => part === 'place' && takes)
    if (shell && !moves) return shell.parent === null ? null : (byShell.get(shell.parent) ?? null)
    if (!source) return null
    const into = goesInto[source.lineage]
    if (into !== undefined) return into === null ? null : (named(into) ?? null)
    if (row.after && row.into !== null) return overRow(row.after)
    return source.parent === null ? null : (holderOf(source.parent) ?? null)
  }
}
/** What something of the shell still stands in, or comes into, is not removed. Answers whether anything of it will be there. */
function keepWhereNeeded(under: Under, row: OpenRow): boolean {
  const holds = (under.get(row) ?? []).map(each => keepWhereNeeded(under, each)).some(Boolean)
  if (row.happens === 'removes' && holds) Object.assign(row, { happens: 'stays', lineage: row.key })
  return row.lineage !== null
}
/** What stands in one parent: what is kept beside something right after it, and what somebody moved where that was put. */
function sorted(
  rows: readonly OpenRow[],
  over: OpenRow | null,
  decisions: Pick<PlacesDecisions, 'ends' | 'at' | 'after'>,
): readonly OpenRow[] {
  const beside = rows.filter(row => row.after && rows.includes(row.after))
  const withBeside = (row: OpenRow): OpenRow[] => [
    row,
    ...beside.filter(other => other.after === row).flatMap(withBeside),
  ]
  const inLine = (some: readonly OpenRow[]): readonly OpenRow[] =>
    beside.length > 0 ? some.filter(row => !beside.includes(row)).flatMap(withBeside) : some
  const coming = inLine(rows.filter(isComing))
  const stays = inLine(rows.filter(row => !isComing(row)))
  const end = decisions.ends[over?.key ?? ''] ?? decisions.at
  return asMoved(end === 'head' ? [...coming, ...stays] : [...stays, ...coming], decisions.after)
}
/** The same rows with those moved that somebody moved, each right after another of the same parent. */
function asMoved(rows: readonly OpenRow[], after: PlacesDecisions['after']): readonly OpenRow[] {
  const moved = Object.entries(after)
  if (moved.length === 0) return rows
  const ordered = [...rows]
  const find = (lineage: string): number =>
    ordered.findIndex(row => row.source?.lineage === lineage || row.key === lineage)
  for (const [lineage, before] of moved) {
    const from = find(lineage)
    if (from < 0 || (before !== null && find(before) < 0)) continue
    const [row] = ordered.splice(from, 1)
    if (row) ordered.splice(before === null ? 0 : find(before) + 1, 0, row)
  }
  return ordered
}
