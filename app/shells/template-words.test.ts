import { describe, expect, it } from 'vitest'
import type { TemplateLine } from '~~/shared/api/shares'
import { templatesWith } from './template-words'

const template = (title: string, given: Partial<TemplateLine>): TemplateLine =>
  ({
    course: { title },
    subject: '',
    arrangement: 'units',
    about: '',
    author: '',
    own: false,
    ...given,
  }) as TemplateLine
const templates = [
  template('Tides, unit by unit', { subject: 'Hydrography', author: 'I. Marchetti', own: true }),
  template('A term on the water', { subject: 'Fieldwork', arrangement: 'weeks', author: 'M. Brandt' }),
]
const found = (text: string): string[] => templatesWith(templates, text).map(({ course }) => course.title)

describe('templates are found by one field', () => {
  it('that understands arrangement, subject and author, in any order', () => {
    expect(found('by week')).toEqual(['A term on the water'])
    expect(found('marchetti hydro')).toEqual(['Tides, unit by unit'])
    expect(found('brandt  FIELDWORK by week')).toEqual(['A term on the water'])
    expect(found('yours')).toEqual(['Tides, unit by unit'])
    expect(found('')).toHaveLength(2)
    expect(found('brandt hydrography')).toEqual([])
  })
})
