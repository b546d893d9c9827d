import { itemKinds, kindWords } from '~~/core/course/model'
import type { OutlineNode } from '~~/core/course/outline'
import { mapParts } from '~~/core/plan/document'

const parts: Record<string, { words: string; decisions?: Readonly<Record<string, string>> }> = mapParts(
  ({ words, decisions }) => ({ words, decisions }),
)
const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** What it is that two people both changed, from the path of the clash: “Lab sheet 1”, The rule for quizzes. */
export function clashName(path: string, nodes: readonly OutlineNode[]): string {
  const [part = '', level = '', key = ''] = path.split('.')
  if (level === 'itemRules' || level === 'unitRules')
    return `“${nodes.find(node => node.lineage === key)?.title ?? 'An item'}”`
  // Decisions about one thing, of Carry and of the grade rules, are kept by its key.
  const thing = nodes.find(node => node.lineage === key)
  if (thing) return `“${thing.title}”`
  const kind = itemKinds.find(each => each === key)
  if (level === 'kindRules' && kind) return `The rule for ${kindWords(kind)[1]}`
  return parts[part]?.decisions?.[level] ?? capital(parts[part]?.words ?? part)
}
