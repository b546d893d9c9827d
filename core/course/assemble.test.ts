import { describe, expect, it } from 'vitest'
import { plainCategory } from '../grading/rules'
import { asNewest, courseDocument } from '../formats/json/documents'
import { assembleCourse } from './assemble'
import { noDates, type ItemDates } from './dates'
import { lineageOf } from './lineage'
import { itemsInOrder, type CourseContent, type ItemNode, type UnitNode } from './model'

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
const assemble = (course: CourseContent, items: unknown[] = []) => {
  const result = assembleCourse({
    courseKey: 'k',
    content: course,
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
  it('dates of the course JSON win, a null takes one away, and what it does not say stays', () => {
    const dates = { opens: '2026-09-08T08:00', due: '2026-09-11T23:59', closes: null } as ItemDates
    const dated = (identifier: string, title: string) => ({
      ...item(identifier, title),
      dates,
      points: 100_000,
    })
    const { items } = assemble(content(dated('a', 'A'), dated('b', 'B')), [
      { identifier: 'a', due: '2026-09-11T17:00', closes: '2026-09-13T23:59' },
      { identifier: 'b', opens: null, exam: true },
    ])
    expect(items.get('a')?.dates).toEqual({
      opens: '2026-09-08T08:00',
      due: '2026-09-11T17:00',
      closes: '2026-09-13T23:59',
    })
    expect(items.get('b')).toMatchObject({ dates: { ...dates, opens: null }, exam: true, points: 100_000 })
  })
  it('categories come with their weights, items find theirs, and what names nothing is a finding', () => {
    const {
      content: course,
      items,
      findings,
    } = assemble(content(item('a', 'A', 'ra'), item('b', 'B')), [
      { identifier: 'ra', category: 'c' },
      { identifier: 'b', category: 'of another class' },
      { identifier: 'gone', due: '2026-09-11T17:00' },
    ])
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
    expect([items.get('a')?.category, items.get('b')?.category]).toEqual([lineageOf('k', 'c'), null])
    expect(findings.map(({ code }) => code)).toEqual(['category-unknown', 'item-unknown'])
  })
  it('leaves a unit as it is where the course JSON does not speak of it', () => {
    const unit = { ...content().nodes[0]!, fixed: true, opens: '2026-09-08T08:00' } as UnitNode
    const { content: course } = assemble({ ...content(), nodes: [unit] })
    expect(course.nodes[0]).toMatchObject({ fixed: true, opens: '2026-09-08T08:00' })
  })
})
