import { settingTitles, type SettingName } from '../course/settings'
import type { Years } from '../calendar/zone'
import { counted, momentText } from '../dates/words'
import { pointsText } from '../grading/points'
import { partsOfChange, type EditedPart, type Thing, type ThingChange } from './parts'

/** What stands for keys and years in the words of an edit. */
export interface EditNames {
  readonly years: Years
  readonly categoryTitle: (lineage: string) => string
}
const dateWords = { opens: 'opening', due: 'due date', closes: 'closing' } as const
const partNames: Readonly<Record<Exclude<EditedPart, SettingName>, string>> = {
  title: 'titles',
  opens: 'openings',
  due: 'due dates',
  closes: 'closings',
  points: 'points',
  category: 'categories',
  period: 'grading periods',
  state: 'states',
}
const isSetting = (part: EditedPart): part is SettingName => part in settingTitles
const nameOf = (part: EditedPart): string =>
  isSetting(part) ? settingTitles[part].toLowerCase() : partNames[part]

function stateWords({ before, after }: ThingChange, title: string): string {
  if (before.state === 'deleted') return `brought “${title}” back`
  if (after.state === 'deleted') return `removed “${title}”`
  if (after.state === 'hidden') return `hid “${title}”`
  return after.state === 'listed' ? `listed “${title}”` : `made “${title}” visible`
}
/** One part of one thing: `gave “Lab sheet 1” 25 points`. */
function partWords(change: ThingChange, part: EditedPart, title: string, names: EditNames): string {
  const { before, after } = change
  if (part === 'title') return `renamed “${before.title}” to “${after.title}”`
  if (part === 'state') return stateWords(change, title)
  if (part === 'opens' || part === 'due' || part === 'closes') {
    const at = after[part]
    return at
      ? `set the ${dateWords[part]} of “${title}” to ${momentText(at, names.years)}`
      : `took the ${dateWords[part]} off “${title}”`
  }
  if (part === 'points')
    return typeof after.points !== 'number'
      ? `took the points off “${title}”`
      : `gave “${title}” ${pointsText(after.points)} points`
  if (part === 'category')
    return typeof after.category !== 'string'
      ? `took “${title}” out of its category`
      : `put “${title}” into the category “${names.categoryTitle(after.category)}”`
  if (part === 'period')
    return typeof after.period !== 'string'
      ? `took “${title}” out of its grading period`
      : `put “${title}” into the grading period “${after.period}”`
  const value = after[part]
  const what = settingTitles[part].toLowerCase()
  return typeof value !== 'string' ? `took ${what} off “${title}”` : `set ${what} of “${title}” to ${value}`
}
/** What an edit did, after the name of who did it: `set the due date of “Lab sheet 1” to Fri 15 Jan 23:59`. */
export function editText(
  changes: readonly ThingChange[],
  things: ReadonlyMap<string, Pick<Thing, 'parts'>>,
  names: EditNames,
): string {
  const [first] = changes
  const parts = [...new Set(changes.flatMap(partsOfChange))]
  const [part] = parts
  if (!first || !part) return 'changed nothing'
  const title = first.before.title ?? things.get(first.lineage)?.parts.title ?? ''
  if (changes.length === 1 && parts.length === 1) return partWords(first, part, title, names)
  const what = parts.map(nameOf).join(', ')
  return changes.length === 1
    ? `changed ${what} of “${title}”`
    : `changed ${what} of ${counted(changes.length, 'thing')}`
}
