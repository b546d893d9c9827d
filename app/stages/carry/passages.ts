import { counted } from '~~/core/dates/words'
import type { PlanText } from '~~/shared/api/plans'

type Passages = NonNullable<PlanText['compared']>['passages']
/** A line of the comparison: a stretch that is alike, in a few words; or a passage that differs, by its place among those. */
export type PassageLine =
  | { key: number; alike: string }
  | {
      key: number
      alike: null
      passage: number
      changed: Passages[number]['changed']
      source: string
      shell: string
    }

/** How the passages of two texts are listed: what is alike is told by how it begins. */
export function passageLines(passages: Passages): PassageLine[] {
  let passage = 0
  return passages.flatMap((each, key): PassageLine[] => {
    const [source, shell] = [each.source.filter(Boolean), each.shell.filter(Boolean)]
    if (!each.isAlike) {
      const told = { changed: each.changed, source: source.join('\n'), shell: shell.join('\n') }
      return [{ key, alike: null, passage: passage++, ...told }]
    }
    const [first, ...rest] = shell
    if (first === undefined) return []
    const more = rest.length > 0 ? ` … and ${counted(rest.length, 'piece')} more, alike` : ''
    return [{ key, alike: first + more }]
  })
}
/** What is marked before anybody chose: passages that only the old course changed. */
export const takenAtFirst = (passages: Passages): number[] =>
  passages.filter(each => !each.isAlike).flatMap((each, at) => (each.changed === 'source' ? [at] : []))
