import { pageText, tableText, xmlText } from '../../../formats/text'
import { markupSegments, segment, type Segment } from '../markup'
import { oneText, type BodyReader } from './reader'

export const pages: BodyReader = {
  words: ['page', 'pages'],
  isTable: false,
  fits: (type, ending) =>
    type === 'text/html' || type === 'application/xhtml+xml' || /^x?html?$/.test(ending),
  open(bytes) {
    const { text } = pageText(bytes)
    return oneText(text, markupSegments(text))
  },
}
/** Questions (QTI), drawings (SVG) and other documents in XML. */
export const xmlDocuments: BodyReader = {
  words: ['document in XML', 'documents in XML'],
  isTable: false,
  fits: (type, ending) => /[/+]xml$/.test(type) || ending === 'svg' || ending === 'xml',
  open(bytes, name) {
    const text = xmlText(name, bytes)
    const segments = markupSegments(text, tag => tag !== 'tspan' && tag !== 'a')
    // Nobody counts the paragraphs of questions or of a drawing.
    return oneText(
      text,
      segments.map(each => ({ ...each, paragraph: null })),
    )
  },
}
/** Lines of a text, so that what is found can be told with its line. */
export function lineSegments(text: string): Segment[] {
  const segments: Segment[] = []
  let from = 0
  for (const line of text.split('\n')) {
    if (line.trim() !== '') segments.push({ ...segment('text', line, from), paragraph: segments.length + 1 })
    from += line.length + 1
  }
  return segments
}
export const tables: BodyReader = {
  words: ['table', 'tables'],
  isTable: true,
  fits: (type, ending) => /^text\/(csv|tab-separated-values)$/.test(type) || /^(csv|tsv)$/.test(ending),
  open(bytes, name) {
    const { text } = tableText(name, bytes)
    return oneText(text, lineSegments(text))
  },
}
export const plainTexts: BodyReader = {
  words: ['text file', 'text files'],
  isTable: false,
  fits: (type, ending) =>
    type.startsWith('text/') || type === 'application/json' || /^(txt|md|json|ics)$/.test(ending),
  open(bytes) {
    const { text } = pageText(bytes)
    return oneText(text, lineSegments(text))
  },
}
