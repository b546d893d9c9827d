import { Workbook } from 'exceljs'
import { strFromU8, strToU8, unzipSync, zipSync, zlibSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { cleanedBody } from '../clean'
import { tableId, traceId } from '../find'
import { isCased } from '../markup'
import { peopleIndex, scan } from '../scan'
import { readerFor } from '.'

const person = {
  id: '1',
  given: 'Rosamund',
  middle: null,
  family: 'Fairlie',
  nickname: null,
  email: 'r.fairlie@port-ellery.example',
  key: 'lt-2026-12',
  number: 'N04254',
  userName: null,
}
const index = peopleIndex([person])
/** What is found in a file, and the file once all of it is taken out. */
function through(bytes: Uint8Array, mediaType: string, name: string) {
  const reader = readerFor(mediaType, name)
  const open = reader?.open(bytes, name)
  if (!reader || !open) throw new Error(`nothing reads ${name}`)
  const hits = open.parts.flatMap(({ segments }) =>
    segments.flatMap(each =>
      scan(each.text, index, { isCased: isCased(each.place) }).map(({ from, to }) => ({
        place: each.place,
        text: each.text.slice(from, to),
      })),
    ),
  )
  const ids = [...hits.map(({ place, text }) => traceId('on', place, text)), tableId('on')]
  const answers = new Map(ids.map(id => [id, 'remove' as const]))
  return { hits, clean: cleanedBody(open, reader, { on: 'on', index, answers }) ?? bytes }
}
const found = (bytes: Uint8Array, mediaType: string, name: string): string[] =>
  through(bytes, mediaType, name).hits.map(({ text }) => text)

describe('a workbook', () => {
  it('made by another library is read, emptied of students, and still opens there, with all else in its place', async () => {
    const book = new Workbook()
    book.creator = 'Rosamund Fairlie'
    const sheet = book.addWorksheet('Lamps')
    sheet.addRows([
      ['name', 'number', 'seconds'],
      ['Fairlie, Rosamund', 'N04254', 4.5],
      ['nobody', 'none', 7],
    ])
    const bytes = new Uint8Array(await book.xlsx.writeBuffer())
    const { hits, clean } = through(bytes, '', 'lamps.xlsx')
    expect(hits.map(({ text }) => text)).toEqual(
      expect.arrayContaining(['Fairlie, Rosamund', 'N04254', 'Rosamund Fairlie']),
    )
    expect(hits.find(({ text }) => text === 'Rosamund Fairlie')?.place).toBe('metadata')
    expect(found(clean, '', 'lamps.xlsx')).toEqual([])
    const again = new Workbook()
    await again.xlsx.load(
      clean.buffer.slice(clean.byteOffset, clean.byteOffset + clean.byteLength) as ArrayBuffer,
    )
    const rows = again.getWorksheet('Lamps')?.getSheetValues() as unknown[][]
    expect(rows[3]?.slice(1)).toEqual(['nobody', 'none', 7])
    expect(rows[2]?.[3]).toBe(4.5)
  })
})
describe('a text document', () => {
  it('has a name found that is cut into runs; its other parts stay byte for byte', () => {
    const text =
      '<w:document><w:p><w:r><w:t>By Rosa</w:t></w:r><w:r><w:rPr><w:b/></w:rPr><w:t>mund Fairlie.</w:t></w:r></w:p></w:document>'
    const bytes = zipSync({
      'word/document.xml': strToU8(text),
      'word/media/a.bin': Uint8Array.from([1, 2, 3]),
    })
    const { hits, clean } = through(bytes, '', 'handout.docx')
    expect(hits).toEqual([{ place: 'text', text: 'Rosamund Fairlie' }])
    const parts = unzipSync(clean)
    expect(strFromU8(parts['word/document.xml'] ?? new Uint8Array())).toBe(
      text.replace('Rosa<', '<').replace('mund Fairlie', ''),
    )
    expect(parts['word/media/a.bin']).toEqual(Uint8Array.from([1, 2, 3]))
  })
  it('that would be too large unpacked is refused', () => {
    const bytes = zipSync({ 'word/document.xml': new Uint8Array(65 * 1024 * 1024) })
    expect(() => through(bytes, '', 'large.docx')).toThrow(/larger/)
  })
})
describe('a picture', () => {
  /** A block of a PNG: its length, name, content and a check that nothing here reads. */
  const chunk = (name: string, body: Uint8Array): Uint8Array => {
    const bytes = new Uint8Array(body.length + 12)
    new DataView(bytes.buffer).setUint32(0, body.length)
    bytes.set(strToU8(name), 4)
    bytes.set(body, 8)
    return bytes
  }
  const joined = (...parts: Uint8Array[]): Uint8Array => Uint8Array.from(parts.flatMap(part => [...part]))
  const head = Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a])
  const [size, data, end] = [
    chunk('IHDR', new Uint8Array(13)),
    chunk('IDAT', Uint8Array.from([7, 7])),
    chunk('IEND', new Uint8Array()),
  ]
  it('tells its author in a PNG, packed or not; taken out, what is drawn stays byte for byte', () => {
    const plain = chunk('tEXt', strToU8('Author\0Rosamund Fairlie'))
    const packed = chunk('zTXt', joined(strToU8('Comment\0\0'), zlibSync(strToU8('seen by lt-2026-12'))))
    const { hits, clean } = through(joined(head, size, plain, packed, data, end), 'image/png', 'a.png')
    expect(hits.map(({ text }) => text)).toEqual(['Rosamund Fairlie', 'lt-2026-12'])
    expect(clean).toEqual(joined(head, size, data, end))
  })
  it('tells it in a JPEG, in UTF-16 as well', () => {
    const said = new Uint8Array(Buffer.from('Rosamund Fairlie', 'utf16le'))
    const block = joined(Uint8Array.from([0xff, 0xe1, 0, said.length + 2]), said)
    const rest = Uint8Array.from([0xff, 0xda, 0, 2, 1, 2, 3, 0xff, 0xd9])
    const { hits, clean } = through(joined(Uint8Array.from([0xff, 0xd8]), block, rest), 'image/jpeg', 'a.jpg')
    expect(hits.map(({ text }) => text)).toEqual(['Rosamund Fairlie'])
    expect(clean).toEqual(joined(Uint8Array.from([0xff, 0xd8]), rest))
  })
  it('tells it in a WebP, whose length is set anew', () => {
    const said = strToU8('Rosamund Fairlie')
    const block = new Uint8Array(8 + said.length)
    block.set(strToU8('XMP '))
    new DataView(block.buffer).setUint32(4, said.length, true)
    block.set(said, 8)
    const bytes = joined(strToU8('RIFF'), new Uint8Array(4), strToU8('WEBP'), block)
    const { hits, clean } = through(bytes, 'image/webp', 'a.webp')
    expect(hits.map(({ text }) => text)).toEqual(['Rosamund Fairlie'])
    expect(new DataView(clean.buffer, clean.byteOffset).getUint32(4, true)).toBe(clean.length - 8)
  })
  it('that breaks off in the middle of a block is read as far as it goes', () => {
    expect(found(joined(head, size).subarray(0, 20), 'image/png', 'a.png')).toEqual([])
    expect(found(Uint8Array.from([0xff, 0xd8, 0xff, 0xe1, 0xff, 0xff]), 'image/jpeg', 'a.jpg')).toEqual([])
  })
})
