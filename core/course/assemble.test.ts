import { describe, expect, it } from 'vitest'
import { plainCategory } from '../grading/rules'
import { asNewest, courseDocument } from '../formats/json/documents'
import type { Row } from '../formats/oneroster/tables'
import { zoneRules } from '../../server/calendars/zones'
import { assembleCourse } from './assemble'
import { noDates } from './dates'
import { lineageOf } from './lineage'
import { itemsInOrder, type CourseContent, type ItemNode } from './model'

const item = (identifier: string, title: string, resource: string | null = null): ItemNode => ({
  type: 'item',
  lineage: lineageOf('k', identifier),
  identifier,
  resource,
  kind: 'assignment',
  title,
  body: null,
  points: null,
  state: 'visible',
  exam: false,
  category: null,
  settings: {},
  dates: noDates,
  children: [],
})
const content = (...items: ItemNode[]): CourseContent => ({
  title: 'Sea',
  nodes: [{ type: 'unit', lineage: lineageOf('k', 'u'), identifier: 'u', title: 'U', children: items }],
  categories: [],
})
const lineItem = (
  sourcedId: string,
  title: string,
  more: Partial<Row<'lineItems'>> = {},
): Row<'lineItems'> => ({
  sourcedId,
  title,
  description: '',
  assignDate: '2026-09-08',
  dueDate: '2026-09-11',
  classSourcedId: 'k',
  categorySourcedId: 'c',
  gradingPeriodSourcedId: '',
  resultValueMin: '0',
  resultValueMax: '10',
  ...more,
})
const assemble = (course: CourseContent, lineItems: Row<'lineItems'>[], items: unknown[] = []) => {
  const result = assembleCourse({
    courseKey: 'k',
    content: course,
    categories: [
      { sourcedId: 'c', title: 'Logs' },
      { sourcedId: 'other', title: 'Of another class' },
    ],
    lineItems,
    zone: zoneRules('America/Halifax', { from: 2025, to: 2028 }),
    document: asNewest(
      courseDocument.parse({
        format: 'northtide-course',
        version: 1,
        class: 'k',
        categories: [{ identifier: 'c', title: 'Logs', weight: '12.5' }],
        items,
      }),
    ),
  })
  return {
    ...result,
    items: new Map([...itemsInOrder(result.content.nodes)].map(entry => [entry.item.identifier, entry.item])),
  }
}

describe('putting a course together', () => {
  it('takes an instant of a line item by the clock of the term, and says nothing of usual times then', () => {
    const { items, findings } = assemble(content(item('a', 'Alpha')), [
      // 24 September 2026 is in daylight time: Halifax is three hours behind UTC (IANA tz).
      lineItem('a', 'Alpha', { assignDate: '2026-09-08T11:00:00Z', dueDate: '2026-09-25T02:59:00.000Z' }),
    ])
    expect(items.get('a')?.dates).toEqual({
      opens: '2026-09-08T08:00',
      due: '2026-09-24T23:59',
      closes: null,
    })
    expect(findings.map(finding => finding.code)).not.toContain('line-items-days-only')
  })
  it('reads a wall clock as it stands, and leaves out what is not there', () => {
    const { items } = assemble(content(item('a', 'Alpha')), [
      lineItem('a', 'Alpha', { assignDate: '', dueDate: '2026-12-01T17:30' }),
    ])
    expect(items.get('a')?.dates).toEqual({ opens: null, due: '2026-12-01T17:30', closes: null })
  })
  it('a line item meets by item, else by resource, else by the only exact title; what meets nothing is a finding', () => {
    const { items, findings } = assemble(
      content(
        item('a', 'Alpha'),
        item('b', 'Beta', 'rb'),
        item('c', 'Gamma'),
        item('d', 'Twin'),
        item('e', 'Twin'),
      ),
      [
        lineItem('a', 'Other words'),
        lineItem('rb', 'x'),
        lineItem('li', 'Gamma'),
        lineItem('tw', 'Twin'),
        lineItem('no', 'Nowhere'),
      ],
    )
    expect(['a', 'b', 'c', 'd'].map(id => items.get(id)!.dates.due)).toEqual([
      '2026-09-11T23:59',
      '2026-09-11T23:59',
      '2026-09-11T23:59',
      null,
    ])
    expect(findings.map(finding => finding.message)).toEqual([
      '“Twin” has the title of 2 items; its dates and points were left out',
      '“Nowhere” meets no item of the course; its dates and points were left out',
      expect.stringContaining('3 line items give days only: they open at 08:00 and are due at 23:59'),
    ])
  })
  it('dates of the course JSON win, a null takes one away, and what it does not say stays', () => {
    const { items } = assemble(
      content(item('a', 'A'), item('b', 'B')),
      [lineItem('a', 'A'), lineItem('b', 'B')],
      [
        { identifier: 'a', due: '2026-09-11T17:00', closes: '2026-09-13T23:59' },
        { identifier: 'b', opens: null, exam: true },
      ],
    )
    expect(items.get('a')!.dates).toEqual({
      opens: '2026-09-08T08:00',
      due: '2026-09-11T17:00',
      closes: '2026-09-13T23:59',
    })
    expect([items.get('b')!.dates, items.get('b')!.exam, items.get('b')!.points]).toEqual([
      { ...noDates, due: '2026-09-11T23:59' },
      true,
      100_000,
    ])
  })
  it('categories used by the class come with their weights, and items find theirs', () => {
    const { content: course, items } = assemble(content(item('a', 'A')), [lineItem('a', 'A')])
    expect(course.categories).toEqual([
      {
        lineage: lineageOf('k', 'c'),
        identifier: 'c',
        title: 'Logs',
        weight: 125_000,
        rules: plainCategory,
        fixed: false,
      },
    ])
    expect(items.get('a')!.category).toBe(lineageOf('k', 'c'))
  })
})
