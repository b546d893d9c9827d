import type { OutlineNode } from '../../core/course/outline'

/** An item of an outline; whatever is not given is empty. */
export const item = (lineage: string, given: Partial<OutlineNode> = {}): OutlineNode => ({
  lineage,
  parent: null,
  position: 0,
  type: 'item',
  depth: 0,
  unit: null,
  title: lineage,
  kind: 'page',
  state: 'visible',
  exam: false,
  points: null,
  category: null,
  rubric: null,
  group: null,
  release: [],
  exempt: false,
  extra: false,
  identifier: null,
  body: null,
  size: 0,
  settings: null,
  holds: null,
  fixed: false,
  madeBy: 'person',
  opens: null,
  due: null,
  closes: null,
  ...given,
})
export const unit = (lineage: string, given: Partial<OutlineNode> = {}): OutlineNode =>
  item(lineage, { type: 'unit', kind: null, ...given })
