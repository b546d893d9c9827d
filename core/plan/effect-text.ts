import { partWords, thingParts } from '../carry/again'
import { counted } from '../dates/words'
import { hundredPoints, pointsText } from '../grading/points'
import type { Effect } from './effect'

/** Items of the sources that the shell has then and had not before: beside what it holds, or in an empty place of its template. */
export const arriving = ({ added, filled }: Pick<Effect, 'added' | 'filled'>): number => added.items + filled

/** `dates of 98, state of 4`; empty where nothing is brought up to date. */
export const updatedText = ({ parts }: Effect['updated']): string =>
  thingParts
    .flatMap(part => {
      const { [part]: things = 0 } = parts
      return things > 0 ? [`${partWords[part]} of ${things}`] : []
    })
    .join(', ')
/** `2 things and 1 empty place`; empty where nothing of the shell goes. */
export const removedText = ({ things, places }: Effect['removed']): string =>
  [things > 0 && counted(things, 'thing'), places > 0 && counted(places, 'empty place')]
    .filter(Boolean)
    .join(' and ')
/** How many things of the shell, and of sections that show its content then, are written over or go: what stands in the lists that are shown before consent. */
export const lostCount = ({
  replaced,
  updated,
  removed,
  grades,
  around,
  beside,
}: Pick<Effect, 'replaced' | 'updated' | 'removed' | 'grades' | 'around' | 'beside'>): number =>
  replaced +
  (beside?.things ?? 0) +
  updated.things +
  removed.things +
  removed.places +
  grades.changed +
  (grades.rules ? 1 : 0) +
  around.replaced

const conjunction = new Intl.ListFormat('en-GB')
/** In which tense an effect is told: of a run to come, or of one that is done. */
type Tense = 'does' | 'did'
const verbs = {
  adds: { does: 'Adds', did: 'Added' },
  fills: { does: 'Fills', did: 'Filled' },
  keeps: { does: 'Keeps', did: 'Kept' },
  replaces: { does: 'Replaces', did: 'Replaced' },
  brings: { does: 'Brings', did: 'Brought' },
  writes: { does: 'Writes', did: 'Wrote' },
  removes: { does: 'Removes', did: 'Removed' },
} as const
function addsText({ added, filled, updated, leftBehind }: Effect, tense: Tense): string {
  const adds = verbs.adds[tense]
  const { units, items } = added
  if (items > 0)
    return `${adds} ${counted(items, 'item')}${units > 0 ? ` in ${counted(units, 'unit')}` : ''}.`
  if (units > 0) return `${adds} ${counted(units, 'unit')} and no item.`
  if (filled + updated.things > 0 || leftBehind === 0) return `${adds} no item.`
  const stays = leftBehind === 1 ? 'stays' : 'stay'
  const left = tense === 'does' ? stays : 'stayed'
  return `${adds} nothing: ${counted(leftBehind, 'item')} ${left} behind.`
}
/** The whole effect of a run in a few sentences, each with what it is a number of. */
export function effectText(
  effect: Effect,
  { inPlace = false, tense = 'does' }: { inPlace?: boolean; tense?: Tense } = {},
): string {
  const { added, filled, keptBoth, replaced, updated, removed, grades, around, beside, dates } = effect
  const verb = (name: keyof typeof verbs): string => verbs[name][tense]
  if (inPlace)
    return `${verb('writes')} ${counted(dates.dates, 'date')} into the course itself, after a snapshot of it. ${verb('adds')} nothing.`
  const categories = (n: number): string => counted(n, 'grade category', 'grade categories')
  const sentences = [
    addsText(effect, tense),
    added.items === 0 && added.categories > 0 && `${verb('adds')} ${categories(added.categories)}.`,
    filled > 0 && `${verb('fills')} ${counted(filled, 'empty place')}.`,
    keptBoth > 0 && `${verb('keeps')} both of ${counted(keptBoth, 'pair')}.`,
    replaced > 0 && `${verb('replaces')} ${counted(replaced, 'item')}.`,
    around.replaced > 0 && `${verb('replaces')} ${counted(around.replaced, 'thing')} around the units.`,
    updated.things > 0 &&
      `${verb('brings')} ${counted(updated.things, 'thing')} up to date: ${updatedText(updated)}.`,
    grades.changed > 0 && `${verb('writes')} over ${categories(grades.changed)}.`,
    grades.rules && `${verb('writes')} over how grades are reckoned.`,
    removedText(removed) !== '' && `${verb('removes')} ${removedText(removed)}.`,
    beside &&
      `${verb('removes')} ${counted(beside.things, 'thing')} from ${conjunction.format(beside.sections)}.`,
    lostCount(effect) === 0 && `${verb('replaces')} and ${verb('removes').toLowerCase()} nothing.`,
  ]
  return sentences.filter(Boolean).join(' ')
}

/** What the weights make, in words; empty where grades are not reckoned by weights, or there is no category. */
export function weightsText({
  by,
  categories,
  sum,
}: Pick<Effect['grades'], 'by' | 'categories' | 'sum'>): string {
  if (by !== 'weights' || categories === 0) return ''
  if (sum === hundredPoints) return 'the weights make 100'
  const more = sum > hundredPoints ? 'more' : 'less'
  return `the weights make ${pointsText(sum)}, ${more} than 100: each counts in proportion`
}
/** How grades are reckoned in the shell after a run, and what of its own is written over. */
export function gradesText(grades: Effect['grades']): string {
  const { by, categories, changed, rules } = grades
  if (categories === 0) return 'the shell then has no grade category'
  return [
    by === 'weights' ? weightsText(grades) : 'by points',
    changed > 0
      ? `${changed} of the shell’s ${changed === 1 ? 'is' : 'are'} written over`
      : 'none of the shell’s is written over',
    rules && 'how grades are reckoned there is written over',
  ]
    .filter(Boolean)
    .join('; ')
}
const unaskedText = (n: number, tense: Tense): string => {
  if (tense === 'did') return `${counted(n, 'item')} that nobody asked for`
  const [stays, it] = n === 1 ? ['stays', 'it'] : ['stay', 'them']
  return `${counted(n, 'item')} that ${stays} unless you ask for ${it} in Carry`
}
/** What stays behind, and whose choice that is. */
export function leftText(
  { leftBehind, leftUnasked }: Pick<Effect, 'leftBehind' | 'leftUnasked'>,
  tense: Tense = 'does',
): string {
  const chosen = leftBehind - leftUnasked
  const told = [
    chosen > 0 && `${counted(chosen, 'item')} left by choice`,
    leftUnasked > 0 && unaskedText(leftUnasked, tense),
  ].filter(Boolean)
  return told.length > 0
    ? `${told.join(', ')}; and everything about students`
    : 'no item, but everything about students'
}
