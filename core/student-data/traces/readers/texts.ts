import { pageText, tableText, xmlText } from '../../../formats/text'
import { codeSegment, decodedSegment, markupSegments, segment, type Notation } from '../markup'
import { writerLike } from './encoding'
import { lineSegments } from './lines'
import { oneText, type BodyReader, type OpenBody } from './reader'

export const pages: BodyReader = {
  words: ['page', 'pages'],
  isTable: false,
  open({ bytes }) {
    const { text, encoding } = pageText(bytes)
    return oneText(text, markupSegments(text), writerLike(bytes, encoding))
  },
}
/** Questions (QTI), drawings (SVG) and other documents in XML. */
export const xmlDocuments: BodyReader = {
  words: ['document in XML', 'documents in XML'],
  isTable: false,
  open({ bytes, name }) {
    const text = xmlText(name, bytes)
    const segments = markupSegments(text)
    // Nobody counts the paragraphs of questions or of a drawing.
    return oneText(
      text,
      segments.map(each => ({ ...each, paragraph: null })),
      writerLike(bytes, null),
    )
  },
}
export const tables: BodyReader = {
  words: ['table', 'tables'],
  isTable: true,
  open({ bytes, name }) {
    const { text, encoding } = tableText(name, bytes)
    return oneText(text, lineSegments(text), writerLike(bytes, encoding))
  },
}
const textFile = (withEscapes: boolean) => ({
  words: ['text file', 'text files'] as const,
  isTable: false,
  open({ bytes }: { bytes: Uint8Array }): OpenBody {
    const { text, encoding } = pageText(bytes)
    return oneText(text, lineSegments(text, withEscapes), writerLike(bytes, encoding))
  },
})
export const plainTexts: BodyReader = textFile(false)
/** JSON, whose letters may be escaped. */
export const jsonTexts: BodyReader = textFile(true)
/** Scripts and styles. */
export const scripts: BodyReader = {
  words: ['script', 'scripts'],
  isTable: false,
  open({ bytes }) {
    const { text, encoding } = pageText(bytes)
    return oneText(text, [codeSegment('script', text)], writerLike(bytes, encoding))
  },
}

/** Calendars (RFC 5545): lines are folded after some 75 bytes (3.1), and commas and line ends in texts are escaped (3.3.11). */
const folds: Notation = {
  mark: /\r?\n[ \t]|\\/,
  written: /\r?\n[ \t]|\\[nN]|\\[,;\\]/g,
  decoded: written => (/^\r?\n/.test(written) ? '' : written.replace(/^\\[nN]$/, '\n').replace(/^\\/, '')),
}
export const calendars: BodyReader = {
  words: ['calendar', 'calendars'],
  isTable: false,
  open({ bytes }) {
    const { text, encoding } = pageText(bytes)
    const lines = [...text.matchAll(/(?:[^\r\n]|\r?\n[ \t])+/g)]
    const segments = lines.map(({ 0: line, index }) =>
      decodedSegment('text', text, { from: index, to: index + line.length, notation: folds }),
    )
    return oneText(text, segments, writerLike(bytes, encoding))
  },
}

/** Rich text: groups, control words and escaped letters (RTF 1.9.1). Letters of a byte are taken for windows-1252, which nearly all are. */
const control =
  /\\u(-?\d{1,6}) ?(?:\\'[0-9a-f]{2}|[^\\{}])?|\\'([0-9a-f]{2})|\\([a-z]+)(-?\d+)? ?|\\([^a-z])|[{}]|\r?\n/gi
const endsParagraph = new Set(['par', 'line', 'tab', 'cell', 'row', 'page', 'sect'])
function rtfLetter(found: RegExpMatchArray): string | null {
  const [, unicode, hex] = found
  if (unicode !== undefined) return String.fromCharCode((Number(unicode) + 65_536) % 65_536)
  if (hex !== undefined) return pageText(Uint8Array.of(parseInt(hex, 16))).text
  return found[5] === '~' ? '\u00a0' : (found[5] ?? '').replace(/[-_*]/, '')
}
export const richTexts: BodyReader = {
  words: ['document', 'documents'],
  isTable: false,
  open({ bytes }) {
    // Each byte a letter, so that what is written back is what was read.
    const raw = Array.from(bytes, byte => String.fromCharCode(byte)).join('')
    const segments = rtfSegments(raw)
    return oneText(raw, segments, text => Uint8Array.from(text, letter => letter.charCodeAt(0) & 0xff))
  },
}
function rtfSegments(raw: string) {
  const ends: number[] = []
  for (const found of raw.matchAll(control)) if (endsParagraph.has(found[3] ?? '')) ends.push(found.index)
  const notation: Notation = {
    mark: /[\\{}\r\n]/,
    written: control,
    decoded: written => {
      const found = new RegExp(control.source, 'i').exec(written)
      return found && found[3] === undefined ? (rtfLetter(found) ?? '') : ''
    },
  }
  const segments = []
  let from = 0
  for (const to of [...ends, raw.length]) {
    const made = decodedSegment('text', raw, { from, to, notation })
    if (made.text.trim() !== '') segments.push({ ...made, paragraph: segments.length + 1 })
    from = to
  }
  return segments.length > 0 ? segments : [segment('text', '')]
}
