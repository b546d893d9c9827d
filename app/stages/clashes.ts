import { itemKinds, kindWords } from '~~/core/course/model'
import type { OutlineNode } from '~~/core/course/outline'
import { planParts } from '~~/core/plan/parts'

function clashText(path: string, titles: ReadonlyMap<string, string>): string {
  const [part = '', level, key = ''] = path.split('.')
  if (level === 'itemRules' || level === 'unitRules') return `the dates of “${titles.get(key) ?? 'an item'}”`
  const kind = itemKinds.find(each => each === key)
  if (level === 'kindRules' && kind) return `the rule for ${kindWords(kind)[1]}`
  return Object.entries(planParts).find(([name]) => name === part)?.[1].words ?? part
}
const toldAtMost = 3
/** What two people both changed, from the paths of what clashes. */
export function clashesText(paths: readonly string[], nodes: readonly OutlineNode[]): string {
  const titles = new Map(nodes.map(node => [node.lineage, node.title]))
  const words = paths.slice(0, toldAtMost).map(path => clashText(path, titles))
  const more = paths.length - words.length
  return words.join(', ') + (more > 0 ? ` and ${more} more` : '')
}
