import { isUntouched } from '../again'
import { isBefore, type CarriedBase } from '../base'
import { writesText, type Happening, type PlaceRow } from './row'

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
const leaves = (happens: Happening): boolean => ['left', 'unfilled', 'removes'].includes(happens)
function wayOf(happens: Happening, was: CarriedBase | undefined): CarriedBase['how'] {
  if (leaves(happens)) return 'left'
  if (happens === 'away' || happens === 'there') return was?.how ?? 'carried'
  return ['kept', 'fixed', 'joins'].includes(happens) ? 'kept' : 'carried'
}
/** Whether a source changed since it was last seen: told of what stays away. */
export const changedSince = (base: CarriedBase | undefined, row: PlaceRow): boolean =>
  base !== undefined && row.carries !== null && !isUntouched(base.parts, row.carries)
