import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readCourseDocument } from './formats/json/documents'
import { line, unkeptText, wellFormed } from './text'

describe('texts that can be kept', () => {
  it('are told from those with a NUL or half a character, wherever they stand', () => {
    expect(unkeptText({ a: [{ b: 'x' }, '\u{1F30A}', 3, null] })).toBeNull()
    expect(unkeptText({ a: [{ b: 'x\0' }] })?.path).toEqual(['a', '0', 'b'])
    expect(unkeptText({ a: { '\ud800': 1 } })?.path).toEqual(['a'])
    expect(unkeptText('\udc00')?.path).toEqual([])
    const deep = (levels: number) => JSON.parse(`${'['.repeat(levels)}1${']'.repeat(levels)}`) as unknown
    expect(unkeptText(deep(200))).toBeNull()
    expect(unkeptText(deep(500_000))?.message).toContain('200 deep')
  })
  it('are whole once halves are replaced, and left as they are where they were', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme' }), fc.nat(), (text, at) => {
        expect(wellFormed(text)).toBe(text)
        const cut = text.slice(0, at % (text.length + 1))
        expect(Buffer.from(wellFormed(cut)).toString()).toBe(wellFormed(cut))
      }),
    )
  })
})
describe('a course JSON', () => {
  it('with half a character is refused, naming the field', () => {
    const text =
      '{"format":"northtide-course","version":1,"class":"c","categories":[{"identifier":"k","title":"a\\ud800"}]}'
    expect(() => readCourseDocument('c.json', Buffer.from(text))).toThrow('categories.0.title')
  })
})
describe('a line', () => {
  it('has no breaks and no control characters', () => {
    const name = line(20)
    expect(name.parse(' Tides \n')).toBe('Tides')
    for (const text of ['a\nb', 'a\r\nEND:VCALENDAR', 'a\0b', 'a\u2028b', 'a\u0085b', 'x'.repeat(21)])
      expect(name.safeParse(text).success).toBe(false)
  })
})
