import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { cleanTitle, nameFaults, sectionLabels } from './names'

describe('the title of a course', () => {
  it.each([
    ['Copy of Tidal Hydrography', 'Tidal Hydrography'],
    ['Copy of Copy of Tidal Hydrography', 'Tidal Hydrography'],
    ['Tidal Hydrography (copy 2)', 'Tidal Hydrography'],
    ['Tidal Hydrography - Copy', 'Tidal Hydrography'],
    ['Tidal Hydrography (Autumn 2026)', 'Tidal Hydrography'],
    ['Spring 2027 – Tidal Hydrography', 'Tidal Hydrography'],
    ['Copyright for Makers', 'Copyright for Makers'],
    ['The Prague Spring', 'The Prague Spring'],
    ['Photocopy', 'Photocopy'],
  ])('%s becomes %s', (title, clean) => expect(cleanTitle(title)).toBe(clean))
  it('keeps the name of its own term: many put it there and mean it', () => {
    expect(cleanTitle('Tidal Hydrography (Spring 2027)', 'Spring 2027')).toBe(
      'Tidal Hydrography (Spring 2027)',
    )
    expect(cleanTitle('Copy of Tides, spring 2027', 'Spring 2027')).toBe('Tides, spring 2027')
    const faults = (title: string) =>
      nameFaults({ id: 'a', title, label: null, term: 'Spring 2027' }, []).map(fault => fault.message)
    expect(faults('Tidal Hydrography, Spring 2027, I. Marchetti, Mon 09:30')).toEqual([])
    expect(faults('Tidal Hydrography (Autumn 2026)')).toEqual([
      'The title names another term, Autumn 2026. Without it: “Tidal Hydrography”.',
    ])
    expect(faults('Copy of Tides')).toEqual(['The title still says “Copy”. Without it: “Tides”.'])
  })
  it('is clean once it has been cleaned, and never empty', () => {
    fc.assert(
      fc.property(
        fc
          .array(fc.constantFrom('Copy of', 'copy', 'Tides', '(copy)', 'Autumn 2026', '2', ' '), {
            minLength: 1,
            maxLength: 6,
          })
          .map(words => words.join(' '))
          .filter(text => text.trim() !== ''),
        title => {
          expect(cleanTitle(title)).not.toBe('')
          expect(cleanTitle(cleanTitle(title))).toBe(cleanTitle(title))
        },
      ),
    )
  })
})

describe('sections', () => {
  const section = (id: string, days: number[], start: string) => ({
    id,
    section: id,
    meetings: days.map(weekday => ({ weekday: weekday as 1, start })),
  })
  it('are told apart by their days, else by their times, else by their number', () => {
    expect([
      ...sectionLabels([section('01', [1, 3], '09:30'), section('02', [2, 4], '09:30')]).values(),
    ]).toEqual(['Mon Wed', 'Tue Thu'])
    expect([
      ...sectionLabels([section('01', [1, 3], '09:30'), section('02', [1, 3], '13:00')]).values(),
    ]).toEqual(['Mon Wed 09:30', 'Mon Wed 13:00'])
    expect([...sectionLabels([section('01', [], ''), section('02', [], '')]).values()]).toEqual([
      'section 01',
      'section 02',
    ])
  })
  it('never get one label for two', () => {
    const any = fc.uniqueArray(
      fc.record({
        id: fc.integer({ min: 1, max: 30 }).map(String),
        days: fc.subarray([1, 2, 3, 4, 5]),
        start: fc.constantFrom('09:30', '13:00'),
      }),
      { selector: entry => entry.id, maxLength: 8 },
    )
    fc.assert(
      fc.property(any, list => {
        const labels = [
          ...sectionLabels(list.map(entry => section(entry.id, entry.days, entry.start))).values(),
        ]
        expect(new Set(labels).size).toBe(labels.length)
      }),
    )
  })
  it('with the same title and no label are a fault; so is what a copy left', () => {
    const twins = [
      { id: 'a', title: 'Bread Science', label: null },
      { id: 'b', title: 'bread  science', label: null },
    ]
    expect(nameFaults(twins[0]!, twins).map(fault => fault.field)).toEqual(['label'])
    expect(nameFaults({ ...twins[0]!, label: 'Mon Wed' }, twins)).toEqual([])
    expect(
      nameFaults({ id: 'c', title: 'Copy of Bread Science', label: null }, twins).map(fault => fault.field),
    ).toEqual(['title'])
  })
})
