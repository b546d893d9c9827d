import { Workbook } from 'exceljs'
import { strFromU8, strToU8, unzipSync, zipSync, zlibSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { decidedAll, lookedThroughFile, searchedFor } from '../../../../tests/support/traces'
import type { TracedPerson } from '../people'
import { readerOf } from '.'

const person: TracedPerson = {
  id: '1',
  given: 'Rosamund',
  middle: null,
  family: 'Fairlie',
  nickname: null,
  email: 'r.fairlie@port-ellery.example',
  key: 'lt-2026-12',
  number: 'N04254',
  userName: null,
  phones: [],
}
/** What is found in a file, and the file once all of it is taken out. */
async function through(bytes: Uint8Array, mediaType: string, name: string) {
  const looked = await lookedThroughFile({ bytes, mediaType, name }, searchedFor([person]))
  const hits = looked.traces.map(({ place, text }) => ({ place, text }))
  return { ...looked, hits, left: looked.redacted(decidedAll(looked.traces, 'remove')) }
}
const found = async (bytes: Uint8Array, mediaType: string, name: string): Promise<string[]> =>
  (await through(bytes, mediaType, name)).hits.map(({ text }) => text)
const asText = (bytes: Uint8Array): string => new TextDecoder().decode(bytes)

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
    const { traces, left } = await through(bytes, '', 'lamps.xlsx')
    expect(traces).toMatchObject([{ count: 3, kinds: { name: 2, number: 1 }, proposed: null }])
    expect(await found(left, '', 'lamps.xlsx')).toEqual([])
    const again = new Workbook()
    await again.xlsx.load(
      left.buffer.slice(left.byteOffset, left.byteOffset + left.byteLength) as ArrayBuffer,
    )
    const rows = again.getWorksheet('Lamps')?.getSheetValues() as unknown[][]
    expect(rows[3]?.slice(1)).toEqual(['nobody', 'none', 7])
    expect(rows[2]?.[3]).toBe(4.5)
  })
})
describe('a text document', () => {
  it('has a name found that is cut into runs; its other parts stay byte for byte', async () => {
    const text =
      '<w:document><w:p><w:r><w:t>By Rosa</w:t></w:r><w:r><w:rPr><w:b/></w:rPr><w:t>mund Fairlie.</w:t></w:r></w:p></w:document>'
    const bytes = zipSync({
      'word/document.xml': strToU8(text),
      'word/media/a.bin': Uint8Array.from([1, 2, 3]),
    })
    const { hits, left } = await through(bytes, '', 'handout.docx')
    expect(hits).toEqual([{ place: 'text', text: 'Rosamund Fairlie' }])
    const parts = unzipSync(left)
    expect(strFromU8(parts['word/document.xml'] ?? new Uint8Array())).toBe(
      text.replace(' Rosa<', '<').replace('mund Fairlie', ''),
    )
    expect(parts['word/media/a.bin']).toEqual(Uint8Array.from([1, 2, 3]))
  })
  it('that would be too large unpacked is not looked into, and that is told', async () => {
    const bytes = zipSync({ 'word/document.xml': new Uint8Array(65 * 1024 * 1024) })
    expect((await through(bytes, '', 'large.docx')).unseen).toEqual([expect.stringMatching(/too large/)])
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
  it('tells its author in a PNG, packed or not; taken out, what is drawn stays byte for byte', async () => {
    const plain = chunk('tEXt', strToU8('Author\0Rosamund Fairlie'))
    const packed = chunk('zTXt', joined(strToU8('Comment\0\0'), zlibSync(strToU8('seen by lt-2026-12'))))
    const { hits, left } = await through(joined(head, size, plain, packed, data, end), 'image/png', 'a.png')
    expect(hits.map(({ text }) => text)).toEqual(['Rosamund Fairlie', 'lt-2026-12'])
    expect(left).toEqual(joined(head, size, data, end))
  })
  it('tells it in a JPEG, in UTF-16 as well', async () => {
    const said = new Uint8Array(Buffer.from('Rosamund Fairlie', 'utf16le'))
    const block = joined(Uint8Array.from([0xff, 0xe1, 0, said.length + 2]), said)
    const rest = Uint8Array.from([0xff, 0xda, 0, 2, 1, 2, 3, 0xff, 0xd9])
    const { hits, left } = await through(
      joined(Uint8Array.from([0xff, 0xd8]), block, rest),
      'image/jpeg',
      'a.jpg',
    )
    expect(hits.map(({ text }) => text)).toEqual(['Rosamund Fairlie'])
    expect(left).toEqual(joined(Uint8Array.from([0xff, 0xd8]), rest))
  })
  it('tells it in a WebP, whose length is set anew', async () => {
    const said = strToU8('Rosamund Fairlie')
    const block = new Uint8Array(8 + said.length)
    block.set(strToU8('XMP '))
    new DataView(block.buffer).setUint32(4, said.length, true)
    block.set(said, 8)
    const bytes = joined(strToU8('RIFF'), new Uint8Array(4), strToU8('WEBP'), block)
    const { hits, left } = await through(bytes, 'image/webp', 'a.webp')
    expect(hits.map(({ text }) => text)).toEqual(['Rosamund Fairlie'])
    expect(new DataView(left.buffer, left.byteOffset).getUint32(4, true)).toBe(left.length - 8)
  })
  it('that breaks off in the middle of a block is read as far as it goes', async () => {
    expect(await found(joined(head, size).subarray(0, 20), 'image/png', 'a.png')).toEqual([])
    expect(await found(Uint8Array.from([0xff, 0xd8, 0xff, 0xe1, 0xff, 0xff]), 'image/jpeg', 'a.jpg')).toEqual(
      [],
    )
  })
})

/** A text document whose parts are given. */
const docx = (parts: Record<string, string>): Uint8Array =>
  zipSync({
    '[Content_Types].xml': strToU8('<Types/>'),
    ...Object.fromEntries(Object.entries(parts).map(([path, text]) => [path, strToU8(text)])),
  })
describe('an office document', () => {
  it('tells who wrote its comments, changes, notes and properties, and what its hidden sheets and names are called', async () => {
    const name = 'Rosamund Fairlie'
    const parts = {
      'word/document.xml': `<w:document><w:p><w:del w:author="${name}"><w:r><w:delText>by ${name}</w:delText></w:r></w:del></w:p></w:document>`,
      'word/comments.xml': `<w:comments><w:comment w:author="${name}"><w:p><w:r><w:t>Ask Rosa</w:t></w:r><w:r><w:t>mund Fairlie.</w:t></w:r></w:p></w:comment></w:comments>`,
      'docProps/core.xml': `<cp:coreProperties><dc:creator>${name}</dc:creator></cp:coreProperties>`,
      'docProps/custom.xml': `<Properties><property name="Owner"><vt:lpwstr>${name}</vt:lpwstr></property></Properties>`,
      'word/media/a.png': 'no picture',
    }
    const { hits, unseen } = await through(docx(parts), '', 'a.docx')
    expect(hits.length).toBe(6)
    expect(hits.every(({ text }) => text === name)).toBe(true)
    expect(unseen.length).toBe(1)
    const sheets = {
      'xl/workbook.xml': `<workbook><sheets><sheet name="${name}" state="hidden"/></sheets><definedNames><definedName name="x">'${name}'!$A$1</definedName></definedNames></workbook>`,
    }
    expect((await through(docx(sheets), '', 'a.xlsx')).hits.length).toBe(2)
    const slides = {
      'ppt/notesSlides/notesSlide1.xml': `<p:notes><a:p><a:t>Thank ${name}</a:t></a:p></p:notes>`,
    }
    expect((await through(docx(slides), '', 'a.pptx')).hits.length).toBe(1)
  })
  it('of the OpenDocument kind begins with its type unpacked, as it did', async () => {
    const bytes = zipSync({
      mimetype: [strToU8('application/vnd.oasis.opendocument.text'), { level: 0 }],
      'content.xml': strToU8('<text:p>By Rosamund Fairlie</text:p>'),
    })
    const { left, hits } = await through(bytes, 'application/octet-stream', 'anything')
    expect(hits).toEqual([{ place: 'text', text: 'Rosamund Fairlie' }])
    // The name is at offset 30, and its content, unpacked, follows (OpenDocument 1.3, part 2, 3.3).
    expect(asText(left.subarray(30, 77))).toBe('mimetypeapplication/vnd.oasis.opendocument.text')
  })
  it('holds other documents and pictures, which are looked into as well', async () => {
    const inner = docx({ 'word/document.xml': '<w:p><w:t>Rosamund Fairlie</w:t></w:p>' })
    const bytes = zipSync({
      '[Content_Types].xml': strToU8('<Types/>'),
      'word/document.xml': strToU8('<w:p/>'),
      'word/embeddings/one.docx': inner,
    })
    const { traces, left } = await through(bytes, '', 'a.docx')
    expect(traces.map(({ text, file }) => [text, file])).toEqual([
      ['Rosamund Fairlie', 'word/embeddings/one.docx'],
    ])
    expect((await through(left, '', 'a.docx')).hits).toEqual([])
  })
})
describe('an archive', () => {
  it('has its files looked into and their names, and is packed again with all else as it was', async () => {
    const table = strToU8('a;b')
    const bytes = zipSync({
      'out/FairlieRosamund_essay.txt': strToU8('By Rosamund Fairlie.'),
      'out/table.csv': table,
      'deep.zip': zipSync({ 'notes.md': strToU8('# Thanks to N04254') }),
      'film.mp4': Uint8Array.from([0, 0, 0, 1, 2, 3]),
    })
    const { traces, left, unseen } = await through(bytes, '', 'all.zip')
    expect(traces.map(({ text, place, file }) => [text, place, file])).toEqual([
      ['FairlieRosamund', 'fileName', 'FairlieRosamund_essay.txt'],
      ['Rosamund Fairlie', 'text', 'FairlieRosamund_essay.txt'],
      ['N04254', 'text', 'deep.zip › notes.md'],
    ])
    expect(unseen).toEqual(['film.mp4: Northtide cannot read this kind of file.'])
    const files = unzipSync(left)
    expect(Object.keys(files).sort()).toEqual(['deep.zip', 'film.mp4', 'out/_essay.txt', 'out/table.csv'])
    expect(files['out/table.csv']).toEqual(table)
    expect(asText(files['out/_essay.txt'] ?? new Uint8Array())).toBe('By.')
  })
  it('that lies in others without end is told as not looked into', async () => {
    let bytes: Uint8Array = strToU8('Rosamund Fairlie')
    for (let n = 0; n < 8; n++) bytes = zipSync({ 'a.zip': bytes })
    expect((await through(bytes, '', 'a.zip')).unseen).toEqual([expect.stringMatching(/too deep/)])
  })
})
describe('letters that are written otherwise', () => {
  const written = async (text: string, name: string) => {
    const { hits, left } = await through(strToU8(text, true), '', name)
    return { hits: hits.map(hit => hit.text), left: strFromU8(left, true) }
  }
  it('are read in JSON, scripts, styles, calendars and rich text, and all else stays', async () => {
    expect(await written('{"by": "Rosa\\u006dund Fairlie", "n": 1}', 'a.json')).toEqual({
      hits: ['Rosamund Fairlie'],
      left: '{"by": "", "n": 1}',
    })
    expect((await written("who = 'Rosamund\\x20Fairlie'", 'a.js')).hits).toEqual(['Rosamund Fairlie'])
    expect((await written('p::after { content: "R\\00006f samund Fairlie" }', 'a.css')).hits).toEqual([
      'Rosamund Fairlie',
    ])
    expect(
      await written(
        'BEGIN:VCALENDAR\r\nSUMMARY:Talk by Rosam\r\n und Fairlie\\, at noon\r\nEND:VCALENDAR',
        'a.ics',
      ),
    ).toEqual({
      hits: ['Rosamund Fairlie'],
      left: 'BEGIN:VCALENDAR\r\nSUMMARY:Talk by\r\n \\, at noon\r\nEND:VCALENDAR',
    })
    expect(
      await written("{\\rtf1 \\pard Thanks to Ros\\'61mund {\\b Fair\\u108 ?ie}.\\par Tide}", 'a.rtf'),
    ).toEqual({
      hits: ['Rosamund Fairlie'],
      left: '{\\rtf1 \\pard Thanks to{\\b }.\\par Tide}',
    })
  })
  it('are written back in the encoding that they came in, with its mark', async () => {
    const latin = Uint8Array.from([...strToU8('Caf'), 0xe9, ...strToU8(', said Rosamund Fairlie.')])
    expect((await through(latin, '', 'a.txt')).left).toEqual(
      Uint8Array.from([...strToU8('Caf'), 0xe9, ...strToU8(', said.')]),
    )
    const marked = Uint8Array.from([0xef, 0xbb, 0xbf, ...strToU8('a,Rosamund Fairlie')])
    expect((await through(marked, '', 'a.csv')).left).toEqual(
      Uint8Array.from([0xef, 0xbb, 0xbf, ...strToU8('a,')]),
    )
    const wide = Uint8Array.from(Buffer.from('\ufeffBy Rosamund Fairlie.', 'utf16le'))
    expect((await through(wide, '', 'a.txt')).left).toEqual(
      Uint8Array.from(Buffer.from('\ufeffBy.', 'utf16le')),
    )
  })
})
describe('a mail', () => {
  it('is read with what is attached to it, and is not changed', async () => {
    const mail = [
      'From: =?utf-8?Q?Rosamund_Fairlie?= <r.fairlie@port-ellery.example>',
      'To: office@port-ellery.example',
      'Subject: Fog',
      'MIME-Version: 1.0',
      'Content-Type: multipart/mixed; boundary=b',
      '',
      '--b',
      'Content-Type: text/plain; charset=utf-8',
      'Content-Transfer-Encoding: base64',
      '',
      Buffer.from('My number is N04254.').toString('base64'),
      '--b',
      'Content-Type: text/plain; name=log.txt',
      'Content-Disposition: attachment; filename=log.txt',
      '',
      'lt-2026-12',
      '--b--',
    ].join('\r\n')
    const { traces } = await through(strToU8(mail), 'application/octet-stream', '')
    expect(traces.map(({ text, can, proposed }) => [text, can, proposed])).toEqual([
      ['Rosamund Fairlie', ['keep'], null],
      ['r.fairlie@port-ellery.example', ['keep'], null],
      ['N04254', ['keep'], null],
      ['lt-2026-12', ['keep'], null],
    ])
  })
})
describe('what reads a file', () => {
  const words = (bytes: Uint8Array, mediaType = '', name = ''): string => {
    const reader = readerOf({ bytes, mediaType, name })
    return typeof reader === 'string' ? reader : reader.words[0]
  }
  it('is chosen by its first bytes, then its name, then its type, then how its text begins', () => {
    expect(words(strToU8('%PDF-1.7'), 'text/plain', 'a.txt')).toBe('PDF')
    expect(words(strToU8('a,b'), 'text/html', 'a.csv')).toBe('table')
    expect(words(strToU8('a,b'), 'text/csv', 'a')).toBe('table')
    expect(words(strToU8('<!doctype html><p>x'), 'application/octet-stream')).toBe('page')
    expect(words(strToU8('<svg xmlns="x"/>'))).toBe('document in XML')
    expect(words(strToU8('BEGIN:VCALENDAR'))).toBe('calendar')
    expect(words(strToU8('Dear all'))).toBe('text file')
    expect(words(docx({ 'xl/workbook.xml': '<x/>' }), 'application/octet-stream', 'a.bin')).toBe('workbook')
  })
  it('is nothing where it is damaged, locked or of no kind that is known', () => {
    expect(words(strToU8('no archive'), '', 'a.docx')).toMatch(/damaged/)
    expect(words(Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0, 0]), '', 'a.docx')).toMatch(/locked/)
    expect(words(Uint8Array.from([0, 1, 2]), 'video/mp4', 'a.mp4')).toMatch(/cannot read/)
  })
})
