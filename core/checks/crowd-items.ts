import type { OutlineNode } from '../course/outline'
import type { CrowdItem } from '../dates/crowding'

/** Items as the load of days and weeks is reckoned. */
export const crowdItems = (items: readonly OutlineNode[], held: ReadonlySet<string>): CrowdItem[] =>
  items.map(({ lineage, kind, exam, due }) => ({
    id: lineage,
    kind: kind ?? '',
    exam,
    due,
    held: held.has(lineage),
  }))
