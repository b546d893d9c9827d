import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { lookedThroughFile, searchedFor } from '../../../../tests/support/traces'
import type { TracedPerson } from '../people'
import { readerOf } from '.'

const person: TracedPerson = {
  id: '1',
  given: 'Rosamund',
  middle: null,
  family: 'Fairlie',
  nickname: null,
  email: null,
  key: 'k',
  number: null,
  userName: null,
  phones: [],
}
const told = async (bytes: Uint8Array, name: string): Promise<string[]> => {
  const looked = await lookedThroughFile({ bytes, mediaType: '', name }, searchedFor([person]))
  return looked.traces.map(({ text }) => text)
}
const name = 'by Rosamund Fairlie'
const bytesOf = (...parts: (string | readonly number[])[]): Uint8Array =>
  Uint8Array.from(parts.flatMap(part => (typeof part === 'string' ? [...strToU8(part)] : [...part])))
const two = (n: number): number[] => [n >> 8, n & 255]
const four = (n: number): number[] => [n >> 24, (n >> 16) & 255, (n >> 8) & 255, n & 255]

describe('blocks of a picture', () => {
  /** ITU-T T.81, table B.1: APP1 e1, APP2 e2 (a colour profile), APP3 e3, APP13 ed, APP14 ee, COM fe, SOS da. */
  const jpeg = (marker: number, ...before: number[][]) =>
    bytesOf([0xff, 0xd8], ...before, [0xff, marker], two(name.length + 2), name, [0xff, 0xd9])
  it.each([
    [0xe1, 1],
    [0xe3, 1],
    [0xed, 1],
    [0xfe, 1],
    [0xe0, 0],
    [0xe2, 0],
    [0xee, 0],
  ])('of a JPEG: %i tells %i', async (marker, count) => {
    expect(await told(jpeg(marker), 'a.jpg')).toHaveLength(count)
  })
  it('are over in a JPEG where what is drawn begins', async () => {
    expect(await told(jpeg(0xfe, [0xff, 0xda, 0, 2]), 'a.jpg')).toEqual([])
    expect(await told(jpeg(0xfe, [0xff, 0xe2, 0, 2]), 'a.jpg')).toEqual(['Rosamund Fairlie'])
  })
  const png = (chunk: string) =>
    bytesOf([0x89], 'PNG', [13, 10, 26, 10], four(name.length), chunk, name, [0, 0, 0, 0])
  it.each([
    ['tEXt', 1],
    ['iTXt', 1],
    ['eXIf', 1],
    ['IDAT', 0],
    ['xtEX', 0],
  ])('of a PNG: %s tells %i', async (chunk, count) => {
    expect(await told(png(chunk), 'a.png')).toHaveLength(count)
  })
  const webp = (chunk: string) => {
    const size = name.length
    return bytesOf(
      'RIFF',
      [0, 0, 0, 0],
      'WEBP',
      chunk,
      [size & 255, size >> 8, 0, 0],
      name,
      size % 2 ? [0] : [],
    )
  }
  it.each([
    ['EXIF', 1],
    ['XMP ', 1],
    ['VP8 ', 0],
  ])('of a WebP: %s tells %i', async (chunk, count) => {
    expect(await told(webp(chunk), 'a.webp')).toHaveLength(count)
  })
})
describe('the first bytes', () => {
  const is = (bytes: string | Uint8Array, file = '', mediaType = '') => {
    const reader = readerOf({
      bytes: typeof bytes === 'string' ? strToU8(bytes) : bytes,
      name: file,
      mediaType,
    })
    return typeof reader === 'string' ? reader : (reader?.words[0] ?? null)
  }
  it('tell a picture only where both of its marks are there', () => {
    expect(is('RIFF\0\0\0\0WEBPVP8 ')).toBe('picture')
    expect(is('RIFF\0\0\0\0WAVEfmt \x01')).not.toBe('picture')
    expect(is('\x01\x02\x03\x04\0\0\0\0WEBP\x01')).not.toBe('picture')
  })
  it('tell a text by how it begins, not by what stands in it later', () => {
    expect(is('<?xml version="1.0"?><a/>')).toBe(is('<svg xmlns="x"></svg>'))
    expect(is('<p>Text</p>')).not.toBe(is('<?xml version="1.0"?><a/>'))
    expect(is('1 < 2 <?xml')).not.toBe(is('<?xml version="1.0"?><a/>'))
  })
  it('stand before a type that is said, which is the whole of it', () => {
    expect(is('%PDF-1.7', '', 'text/plain')).toBe('PDF')
    expect(is('x', '', 'application/pdf')).toBe('It could not be read: it is damaged.')
    expect(is('x', '', 'xapplication/pdf')).toBe(is('x', '', 'text/plain'))
  })
})
describe('an office document', () => {
  it('is looked through but for its type and its folders', async () => {
    const text = strToU8(`<w:document><w:p><w:t>${name}</w:t></w:p></w:document>`)
    const other = { 'word/media/notes.txt': strToU8(name), 'thing/notes.txt': strToU8(name) }
    expect(await told(zipSync({ 'word/document.xml': text }), 'a.docx')).toEqual(['Rosamund Fairlie'])
    // What is embedded is looked into; what stands elsewhere in the package is none of its text.
    const looked = await lookedThroughFile(
      {
        bytes: zipSync({ 'word/document.xml': strToU8('<w:document/>'), ...other }),
        mediaType: '',
        name: 'a.docx',
      },
      searchedFor([person]),
    )
    expect(looked.traces.map(({ count }) => count)).toEqual([1])
  })
})
