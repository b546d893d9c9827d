import type { PlaceRow } from '~~/core/carry/places/row'
import { itemKindDefinitions } from '~~/core/course/kinds'
import type { ItemKind } from '~~/core/course/model'
import type { SettingName } from '~~/core/course/settings'

export type Settings = Readonly<Partial<Record<SettingName, string>>>
/** An item that comes, with its settings as they were, as they are given here, and as the shell will have them. */
export interface SettingsLine {
  readonly lineage: string
  readonly title: string
  readonly kind: ItemKind
  readonly was: Settings
  readonly given: Settings
  readonly settings: Settings
}
const comes = ['adds', 'both', 'fills', 'replaces', 'again']
// What students work on has settings worth giving; a page or a link has none.
/** All that comes and has settings, or may be given some, in the order that the shell will have. */
export const linesOf = (
  rows: readonly PlaceRow[],
  was: ReadonlyMap<string, Settings>,
  given: Readonly<Record<string, Settings>>,
): SettingsLine[] =>
  rows.flatMap(({ source, carries, happens }): SettingsLine[] => {
    if (!source?.kind || !comes.includes(happens)) return []
    const own = was.get(source.lineage)
    if (!own && !itemKindDefinitions[source.kind].workedOn) return []
    const gets = given[source.lineage] ?? {}
    return [
      {
        lineage: source.lineage,
        title: carries?.title ?? source.title,
        kind: source.kind,
        was: own ?? {},
        given: gets,
        settings: { ...own, ...gets },
      },
    ]
  })
/** The decisions with some settings of one item given to others. What an item has so already is not given to it. */
export function givenTo(
  before: Readonly<Record<string, Settings>>,
  takers: readonly SettingsLine[],
  settings: Settings,
  names: readonly SettingName[],
): Record<string, Settings> {
  const next: Record<string, Settings> = { ...before }
  for (const { lineage, was, given } of takers) {
    const gets: Partial<Record<SettingName, string>> = { ...given }
    for (const name of names) {
      const value = settings[name]
      if (value === undefined) continue
      if (was[name] === value) delete gets[name]
      else gets[name] = value
    }
    if (Object.keys(gets).length > 0) next[lineage] = gets
    else delete next[lineage]
  }
  return next
}
