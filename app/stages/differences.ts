import type { OutlineNode } from '~~/core/course/outline'
import type { PlanReply } from '~~/shared/api/plans'
import { counted } from '~/composables/words'
import { clashName } from './clashes'

const toldAtMost = 3
/** What a further shell of the plan decides otherwise: `“Lab sheet 1”: due Fri 5 Feb 23:59, here due Mon 8 Feb 23:59`. */
export function differenceLines(
  { differences }: PlanReply['set'][number],
  nodes: readonly OutlineNode[],
): string[] {
  const lines = differences
    .slice(0, toldAtMost)
    .map(({ path, here, there }) => `${clashName(path, nodes)}: ${there}. Here: ${here}.`)
  const more = differences.length - lines.length
  return more > 0 ? [...lines, `And ${counted(more, 'more difference')}.`] : lines
}
