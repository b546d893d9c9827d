import { strToU8, zipSync } from 'fflate'
import type { SearchedPart } from '../../core/student-data/traces/find'
import type { FileFacts } from '../../core/student-data/traces/readers/reader'
import { drawnPdf } from './pdf'
import { jsonParts, linePart } from '../../core/student-data/traces/redact'

/** A text where it is put for a search to find: a file of some kind, or what stands in a course's own rows. */
export type Put = Partial<FileFacts> & Pick<FileFacts, 'bytes'>
export type Place = (text: string) => Put | Promise<Put> | readonly SearchedPart[]

const xml = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')
const file =
  (name: string, wrap: (text: string) => string, mediaType = 'application/octet-stream'): Place =>
  text => ({ name, mediaType, bytes: strToU8(wrap(text)) })
const page = (wrap: (text: string) => string): Place => file('', wrap, 'text/html')
const questions = (wrap: (text: string) => string): Place => file('', wrap, 'application/xml')
const packed =
  (name: string, path: string, wrap: (text: string) => string): Place =>
  text => ({
    name,
    mediaType: 'application/octet-stream',
    bytes: zipSync({ '[Content_Types].xml': strToU8('<Types/>'), [path]: strToU8(wrap(text)) }),
  })
const open =
  (type: string, wrap: (text: string) => string, path = 'content.xml'): Place =>
  text => ({
    name: '',
    mediaType: 'application/octet-stream',
    bytes: zipSync({
      mimetype: [strToU8(`application/vnd.oasis.opendocument.${type}`), { level: 0 }],
      [path]: strToU8(wrap(text)),
    }),
  })
/** Cuts a text in the middle of its middle word, as programs cut runs. */
function halves(text: string): [string, string] {
  const at = Math.ceil(text.length / 2)
  return [text.slice(0, at), text.slice(at)]
}
const pdf = async (...asked: Parameters<typeof drawnPdf>): Promise<Put> => ({
  bytes: await drawnPdf(...asked),
})
const joined = (...parts: readonly Uint8Array[]): Uint8Array =>
  Uint8Array.from(parts.flatMap(part => [...part]))
function pngChunk(name: string, body: Uint8Array): Uint8Array {
  const bytes = new Uint8Array(body.length + 12)
  new DataView(bytes.buffer).setUint32(0, body.length)
  bytes.set(strToU8(name), 4)
  bytes.set(body, 8)
  return bytes
}
const png = (text: string): Uint8Array =>
  joined(
    Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a]),
    pngChunk('IHDR', new Uint8Array(13)),
    pngChunk('tEXt', strToU8(`Author\0${text}`)),
    pngChunk('IEND', new Uint8Array()),
  )
function jpeg(said: Uint8Array): Uint8Array {
  const length = said.length + 2
  const block = joined(Uint8Array.from([0xff, 0xe1, length >> 8, length & 0xff]), said)
  return joined(Uint8Array.from([0xff, 0xd8]), block, Uint8Array.from([0xff, 0xda, 0, 2, 1, 0xff, 0xd9]))
}
function webp(text: string): Uint8Array {
  const said = strToU8(text)
  const block = new Uint8Array(8 + said.length)
  block.set(strToU8('XMP '))
  new DataView(block.buffer).setUint32(4, said.length, true)
  block.set(said, 8)
  return joined(strToU8('RIFF'), new Uint8Array(4), strToU8('WEBP'), block)
}
function gif(text: string): Uint8Array {
  const said = strToU8(text).subarray(0, 255)
  const head = [...strToU8('GIF89a'), 1, 0, 1, 0, 0, 0, 0]
  return Uint8Array.from([...head, 0x21, 0xfe, said.length, ...said, 0, 0x3b])
}
/** RTF with every letter outside ASCII escaped. */
const rtf = (text: string): string =>
  [...text].map(letter => (letter.charCodeAt(0) < 128 ? letter : `\\u${letter.charCodeAt(0)}?`)).join('')
const escaped = (text: string): string =>
  [...text]
    .map((letter, at) =>
      at % 3 === 1 || letter.charCodeAt(0) > 127
        ? `\\u${letter.charCodeAt(0).toString(16).padStart(4, '0')}`
        : letter,
    )
    .join('')
const folded = (text: string): string => text.replace(/(.{7})/gu, '$1\r\n ')
const encodedWord = (text: string): string => `=?utf-8?B?${Buffer.from(text).toString('base64')}?=`
const mail = (subject: string, body: string, from = 'office@port-ellery.example'): string =>
  [
    `From: ${from}`,
    'To: all@port-ellery.example',
    `Subject: ${subject}`,
    'MIME-Version: 1.0',
    'Content-Type: text/plain; charset=utf-8',
    'Content-Transfer-Encoding: base64',
    '',
    Buffer.from(body).toString('base64'),
  ].join('\r\n')

/** Every place of the corpus by its name, as the table in docs/student-data.md groups them. */
export const tracePlacesOf: Readonly<Record<string, Readonly<Record<string, Place>>>> = {
  'page: text': {
    paragraph: page(text => `<p>${xml(text)}</p>`),
    'across marks': page(text => {
      const [first, last] = halves(text)
      return `<p>${xml(first)}<b>${xml(last)}</b></p>`
    }),
    'list item': page(text => `<ul><li>${xml(text)}</li></ul>`),
    heading: page(text => `<h2>${xml(text)}</h2><p>x</p>`),
    references: page(
      text =>
        `<p>${[...text].map(letter => (letter.charCodeAt(0) > 127 ? `&#${letter.codePointAt(0)};` : xml(letter))).join('')}</p>`,
    ),
  },
  'page: attribute, link, comment': {
    'alternative text': page(text => `<p><img alt="${xml(text)}" src="a.png"></p>`),
    link: page(text => `<a href="https://port-ellery.example/u/${encodeURIComponent(text)}/log">x</a>`),
    comment: page(text => `<p>x</p><!-- ${text.replaceAll('--', '')} -->`),
    'data attribute': page(text => `<p data-by="${xml(text)}">x</p>`),
  },
  'page: script, style': {
    script: page(text => `<script>var by = "${escaped(text)}";</script>`),
    style: page(text => `<style>/* ${text} */ p { color: red }</style>`),
    handler: page(text => `<p onclick="show('${xml(text)}')">x</p>`),
  },
  questions: {
    text: questions(
      text => `<item><mattext texttype="text/html">&lt;p&gt;${xml(xml(text))}&lt;/p&gt;</mattext></item>`,
    ),
    feedback: questions(text => `<itemfeedback><mattext><![CDATA[${text}]]></mattext></itemfeedback>`),
    'title of one': questions(text => `<item title="${xml(text)}"><mattext>Which?</mattext></item>`),
  },
  'drawing, XML': {
    drawing: file('a.svg', text => `<svg xmlns="http://www.w3.org/2000/svg"><desc>${xml(text)}</desc></svg>`),
    'unnamed XML': file('', text => `<?xml version="1.0"?><notes><note by="${xml(text)}">x</note></notes>`),
  },
  'table (CSV, TSV)': {
    csv: file('a.csv', text => `note,mark\r\n"${text.replaceAll('"', '""')}",7\r\n`),
    tsv: file('a.tsv', text => `note\tmark\n${text}\t7\n`),
  },
  'text, Markdown, JSON': {
    text: file('a.txt', text => `Tides\n${text}\n`),
    markdown: file('a.md', text => `# Tides\n\n- **${text}**\n`),
    json: file('a.json', text => `{"tide": 1, "note": "${escaped(text)}"}`),
    'unnamed text': file('', text => text),
  },
  'calendar, mail, rich text': {
    calendar: file(
      'a.ics',
      text => `BEGIN:VCALENDAR\r\nBEGIN:VEVENT\r\nSUMMARY:${folded(text)}\r\nEND:VEVENT\r\nEND:VCALENDAR`,
    ),
    'mail text': file('a.eml', text => mail('Fog', text)),
    'mail head': file('a.eml', text => mail(encodedWord(text), 'Fog again.')),
    'rich text': file('a.rtf', text => `{\\rtf1\\ansi {\\b Tides}\\par ${rtf(text)}\\par}`),
  },
  'word processing (DOCX, ODT)': {
    'docx text': packed('a.docx', 'word/document.xml', text => {
      const [first, last] = halves(text)
      return `<w:p><w:r><w:t>${xml(first)}</w:t></w:r><w:r><w:t>${xml(last)}</w:t></w:r></w:p>`
    }),
    'docx comment': packed(
      'a.docx',
      'word/comments.xml',
      text => `<w:comment><w:p><w:t>${xml(text)}</w:t></w:p></w:comment>`,
    ),
    'docx change': packed(
      'a.docx',
      'word/document.xml',
      text => `<w:p><w:del><w:delText>${xml(text)}</w:delText></w:del></w:p>`,
    ),
    'docx author': packed(
      'a.docx',
      'word/comments.xml',
      text => `<w:comment w:author="${xml(text)}"><w:p/></w:comment>`,
    ),
    'docx properties': packed(
      'a.docx',
      'docProps/core.xml',
      text => `<cp:coreProperties><dc:creator>${xml(text)}</dc:creator></cp:coreProperties>`,
    ),
    'docx header': packed(
      'a.docx',
      'word/header1.xml',
      text => `<w:hdr><w:p><w:t>${xml(text)}</w:t></w:p></w:hdr>`,
    ),
    'odt text': open('text', text => `<text:p>${xml(text)}</text:p>`),
    'odt properties': open(
      'text',
      text => `<office:meta><meta:initial-creator>${xml(text)}</meta:initial-creator></office:meta>`,
      'meta.xml',
    ),
  },
  'sheets (XLSX, ODS)': {
    'xlsx cell': packed('a.xlsx', 'xl/sharedStrings.xml', text => `<sst><si><t>${xml(text)}</t></si></sst>`),
    'xlsx hidden sheet': packed(
      'a.xlsx',
      'xl/workbook.xml',
      text => `<workbook><sheets><sheet name="${xml(text)}" state="hidden"/></sheets></workbook>`,
    ),
    'xlsx name': packed(
      'a.xlsx',
      'xl/workbook.xml',
      text =>
        `<workbook><definedNames><definedName name="a">'${xml(text)}'!$A$1</definedName></definedNames></workbook>`,
    ),
    'xlsx note': packed(
      'a.xlsx',
      'xl/comments1.xml',
      text => `<comments><comment><text><r><t>${xml(text)}</t></r></text></comment></comments>`,
    ),
    'ods cell': open(
      'spreadsheet',
      text => `<table:table-cell><text:p>${xml(text)}</text:p></table:table-cell>`,
    ),
  },
  'slides (PPTX, ODP)': {
    slide: packed('a.pptx', 'ppt/slides/slide1.xml', text => `<a:p><a:r><a:t>${xml(text)}</a:t></a:r></a:p>`),
    'speaker notes': packed(
      'a.pptx',
      'ppt/notesSlides/notesSlide1.xml',
      text => `<a:p><a:r><a:t>${xml(text)}</a:t></a:r></a:p>`,
    ),
    'odp slide': open('presentation', text => `<text:p>${xml(text)}</text:p>`),
  },
  PDF: {
    text: text => pdf(doc => void doc.text(text)),
    author: text => pdf(doc => void doc.text('Tides'), { Author: text }),
    keywords: text => pdf(doc => void doc.text('Tides'), { Keywords: text, Title: 'Tides' }),
    note: text => pdf(doc => void doc.text('Tides').note(50, 50, 20, 20, text)),
    attached: text => pdf(doc => void doc.text('Tides').file(Buffer.from(text), { name: 'note.txt' })),
  },
  pictures: {
    png: text => ({ bytes: png(text) }),
    jpeg: text => ({ bytes: jpeg(strToU8(text)) }),
    'jpeg in UTF-16': text => ({ bytes: jpeg(new Uint8Array(Buffer.from(text, 'utf16le'))) }),
    webp: text => ({ bytes: webp(text) }),
    gif: text => ({ bytes: gif(text) }),
  },
  archives: {
    'text in one': text => ({ bytes: zipSync({ 'notes/a.txt': strToU8(text) }) }),
    'document in one': async text => ({
      bytes: zipSync({
        'a.docx': ((await tracePlacesOf['word processing (DOCX, ODT)']?.['docx text']?.(text)) as Put).bytes,
      }),
    }),
    'picture in one in another': text => ({ bytes: zipSync({ 'b.zip': zipSync({ 'a.png': png(text) }) }) }),
    'name of a file': text => ({
      bytes: zipSync({ [`hand-ins/${text.replaceAll('/', ' ')}_essay.txt`]: strToU8('x') }),
    }),
  },
  'title, category, rubric, group': {
    title: text => [linePart('title', text)],
  },
  'settings, details, scale': {
    value: text => jsonParts({ note: text }, 'settings'),
    name: text => jsonParts({ extra: { [text]: 2 } }, 'settings'),
    address: text =>
      jsonParts({ url: `https://port-ellery.example/u/${encodeURIComponent(text)}/x` }, 'settings'),
    'file name': text => jsonParts({ fileName: `${text}.docx` }, 'settings'),
    criterion: text => jsonParts([{ title: 'Log', levels: [{ title: text }] }], 'details'),
    'letter of a scale': text => jsonParts({ scale: [{ from: 0, letter: text }] }, 'details'),
  },
  'identifier in the package': {
    identifier: text => [linePart('identifier', text)],
  },
}
