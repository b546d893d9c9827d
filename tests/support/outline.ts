import { noItemFields } from '../../core/course/fields'
import { plainCategory, type CategoryLine } from '../../core/grading/rules'
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
  ...noItemFields,
  identifier: null,
  body: null,
  size: 0,
  isHtml: false,
  settings: null,
  holds: null,
  fixed: false,
  madeBy: 'person',
  gradingPeriod: null,
  opens: null,
  due: null,
  closes: null,
  ...given,
})
export const unit = (lineage: string, given: Partial<OutlineNode> = {}): OutlineNode =>
  item(lineage, { type: 'unit', kind: null, ...given })
export const category = (lineage: string, given: Partial<CategoryLine> = {}): CategoryLine => ({
  lineage,
  identifier: null,
  title: lineage,
  weight: null,
  ...plainCategory,
  fixed: false,
  ...given,
})
/** What stands around the units of a course that has nothing there. */
export const around = { categories: [], grading: null, grace: null, rubrics: [], groups: [], furniture: [] }
