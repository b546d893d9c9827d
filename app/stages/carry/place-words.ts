import { partWords, type ThingPart } from '~~/core/carry/again'
import type { MatchLevel } from '~~/core/carry/match'
import type { CarriedBase } from '~~/core/carry/base'
import { changedSince } from '~~/core/carry/places/bases-after'
import type { PlaceRow } from '~~/core/carry/places/row'
import type { OutlineNode } from '~~/core/course/outline'
import { dayText } from '~~/core/dates/words'
import { sizeText } from '~~/core/formats/limits'
import { pointsCounted } from '~/composables/words'

const whys: Record<MatchLevel, string> = {
  hand: 'These two were paired by hand.',
  lineage: 'They are one item: both go back to the same one.',
  identifier: 'Both had the same identifier in the file they came from.',
  content: 'Both hold the same text.',
  title: 'Both have this title.',
  place: 'The shell has an empty place for this kind in the unit.',
  position: 'Both units stand at the same position. Nothing else says that they belong together.',
}
const unitWhys: Partial<Record<MatchLevel, string>> = {
  lineage: 'They are one unit: both go back to the same one.',
  content: 'More than half of its items are in this unit of the shell.',
}
/** Why both sides meet, and who has touched the shell's. */
export function whyTheyMeet(row: PlaceRow, met: OutlineNode | null, base: CarriedBase | undefined): string {
  const changed = changedSince(base, row) ? ' The old course has changed it meanwhile.' : ''
  if (!row.match || !met) {
    if (row.happens === 'away')
      return `It came with an earlier run, and somebody removed it from the shell since.${changed}`
    if (row.isGone)
      return 'It came with an earlier run. The old course has it no more, and nobody touched it here.'
    if (base?.how === 'into' && row.happens === 'left')
      return 'Its text went into another item with an earlier run.'
    return base?.how === 'left' ? `It was left behind last time.${changed}` : ''
  }
  const why = (row.type === 'unit' ? unitWhys[row.match.level] : undefined) ?? whys[row.match.level]
  if (met.fixed) return `${why} The institution fixed the shell’s: it stays.`
  if (met.holds || row.happens === 'there' || row.happens === 'again' || row.type === 'unit') return why
  if (met.madeBy === 'template')
    return row.isUntouched
      ? `${why} Nobody has changed the template’s copy.`
      : `${why} Somebody changed the template’s copy.`
  return `${why} The shell’s was made there.`
}
/** Several parts in words: `text and settings`. */
export const changedPartsText = (parts: readonly ThingPart[]): string =>
  parts.map(part => partWords[part]).join(' and ')

/** One side of a changed part, in words. */
export function partText(
  part: ThingPart,
  node: OutlineNode,
  row: PlaceRow,
  side: 'source' | 'shell',
): string {
  switch (part) {
    case 'title':
      return node.title
    case 'text':
      return node.body === null ? 'no text' : `a text of ${sizeText(node.size)}`
    case 'settings':
      return side === 'source' ? 'its settings' : 'the shell’s settings'
    case 'points':
      return node.points === null ? 'no points' : pointsCounted(node.points)
    case 'category':
      return side === 'source' ? 'its category' : 'the shell’s category'
    case 'dates':
      return datesOfSide(row, node, side)
    case 'place':
      return side === 'source' ? 'where the old course has it' : 'where it is'
    case 'state':
      return (side === 'source' ? row.carries?.state : node.state) ?? ''
  }
}
function datesOfSide(row: PlaceRow, node: OutlineNode, side: 'source' | 'shell'): string {
  const [opens, due] =
    side === 'shell' ? [node.opens, node.due] : (row.carries?.dates ?? '').split(' ').map(at => at || null)
  if (due) return `due ${dayText(due.slice(0, 10))}`
  return opens ? `opens ${dayText(opens.slice(0, 10))}` : 'no date'
}
