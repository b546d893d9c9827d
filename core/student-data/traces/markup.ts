import { decodeHTML } from 'entities'
import type { Where } from './scan'

/** A stretch of a text as one reads it, and where it stands in what it was read from. `exact`: letter for letter. */
interface Stretch {
  readonly from: number
  readonly to: number
  readonly rawFrom: number
  readonly rawTo: number
  readonly exact: boolean
}
/** Where in a thing something stands. */
export const tracePlaces = {
  title: 'title',
  text: 'text',
  link: 'link',
  attribute: 'attribute',
  comment: 'comment in the page',
  script: 'script or style',
  settings: 'settings',
  details: 'details',
  metadata: 'inside the file',
  page: 'page',
  fileName: 'file name',
  identifier: 'identifier in the package',
} as const
export type TracePlace = keyof typeof tracePlaces
export const tracePlaceNames = Object.keys(tracePlaces) as [TracePlace, ...TracePlace[]]

const inCode: ReadonlySet<TracePlace> = new Set(['link', 'script', 'settings', 'fileName', 'identifier'])
/** Whether people or programs read what stands there: names in code need not begin with capitals. */
export const whereOf = (place: TracePlace): Where => (inCode.has(place) ? 'code' : 'prose')
/** A text that is looked through as one: a paragraph, an attribute, a comment. */
export interface Segment {
  readonly place: TracePlace
  readonly text: string
  /** Null: letter for letter, from `rawFrom` on. */
  readonly stretches: readonly Stretch[] | null
  readonly rawFrom: number
  /** All of an attribute with its name: it goes where its value must. */
  readonly whole: readonly [from: number, to: number] | null
  /** Which paragraph or page of the text it is, from 1 on; null where it is none. */
  readonly paragraph: number | null
  /** What of it stands in italics or in a citation. */
  readonly slanted: readonly (readonly [from: number, to: number])[]
}
/** A change of a raw text. */
export interface Edit {
  readonly from: number
  readonly to: number
  readonly text: string
}
export const segment = (place: TracePlace, text: string, rawFrom = 0): Segment => ({
  place,
  text,
  stretches: null,
  rawFrom,
  whole: null,
  paragraph: null,
  slanted: [],
})
/** The stretches of a segment; of one that stands letter for letter, itself. */
const stretchesOf = ({ stretches, rawFrom, text }: Segment): readonly Stretch[] =>
  stretches ?? [{ from: 0, to: text.length, rawFrom, rawTo: rawFrom + text.length, exact: true }]
/** How a raw text is changed so that something else stands in a segment from one letter to another. */
export function editsFor(segment: Segment, from: number, to: number, text: string): Edit[] {
  if (!segment.stretches) return [{ from: segment.rawFrom + from, to: segment.rawFrom + to, text }]
  const edits: Edit[] = []
  for (const each of overlapping(segment.stretches, from, to)) {
    const start = each.exact ? each.rawFrom + Math.max(0, from - each.from) : each.rawFrom
    const end = each.exact ? each.rawTo - Math.max(0, each.to - to) : each.rawTo
    edits.push({ from: start, to: end, text: edits.length === 0 ? text : '' })
  }
  return edits
}
/** A raw text with changes; two that overlap are one change of all that both cover. */
export function edited(raw: string, edits: readonly Edit[]): string {
  const parts: string[] = []
  let at = 0
  for (const { from, to, text } of [...edits].sort((a, b) => a.from - b.from || b.to - a.to)) {
    if (to <= at && from < at) continue
    parts.push(raw.slice(at, Math.max(at, from)), text)
    at = Math.max(at, to)
  }
  parts.push(raw.slice(at))
  return parts.join('')
}

/** Puts a segment together from stretches of raw text, with references (`&euml;`, `%20`) taken for what they stand for. */
class Stretches {
  private readonly parts: string[] = []
  private readonly list: Stretch[] = []
  private length = 0
  private readonly slanted: [number, number][] = []
  private slantFrom: number | null = null
  /** Italics begin or end here. */
  slant(begins: boolean): void {
    if (begins) this.slantFrom ??= this.length
    else if (this.slantFrom !== null) {
      this.slanted.push([this.slantFrom, this.length])
      this.slantFrom = null
    }
  }
  add(text: string, rawFrom: number, rawTo: number, exact: boolean): void {
    if (text === '') return
    this.list.push({ from: this.length, to: this.length + text.length, rawFrom, rawTo, exact })
    this.parts.push(text)
    this.length += text.length
  }
  /** Adds raw text from one place to another, with what is written otherwise taken for what it stands for. */
  decode(raw: string, from: number, to: number, { mark, written, decoded }: Notation): void {
    let at = from
    const text = raw.slice(from, to)
    if (!mark.test(text)) return this.add(text, from, to, true)
    for (const found of text.matchAll(written)) {
      const start = from + found.index
      const end = start + found[0].length
      const is = decoded(found[0])
      if (is === found[0]) continue
      this.add(raw.slice(at, start), at, start, true)
      this.add(is, start, end, false)
      at = end
    }
    this.add(raw.slice(at, to), at, to, true)
  }
  get isEmpty(): boolean {
    return this.length === 0
  }
  end(place: TracePlace): Segment {
    const [only] = this.list
    // Most are one stretch, letter for letter: nothing need be kept of them but where they begin.
    const isPlain = this.list.length === 1 && only?.exact === true
    return {
      place,
      text: this.parts.length === 1 ? (this.parts[0] ?? '') : this.parts.join(''),
      stretches: isPlain ? null : this.list,
      rawFrom: isPlain ? only.rawFrom : 0,
      whole: null,
      paragraph: null,
      slanted: this.slanted,
    }
  }
}
/** How some letters are written otherwise than as themselves: what tells that there are any, how they look, and what they stand for. */
export interface Notation {
  readonly mark: RegExp
  readonly written: RegExp
  readonly decoded: (written: string) => string
}
/** Percent-encoding (RFC 3986, section 2.1), in UTF-8; where it is none, as it stands. */
function percentDecoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}
/** Character references (WHATWG HTML, 13.5). */
const references: Notation = { mark: /&/, written: /&(?:#\w+|\w+);?/gi, decoded: decodeHTML }
const addresses: Notation = {
  mark: /[&%]/,
  written: /&(?:#\w+|\w+);?|(?:%[0-9a-f]{2})+/gi,
  decoded: written => (written.startsWith('%') ? percentDecoded(written) : decodeHTML(written)),
}
const letterOf = (code: number): string | null =>
  code >= 32 && code <= 0x10ffff ? String.fromCodePoint(code) : null
/** Escapes of JavaScript and JSON (ECMA-262, 12.9.4) and of CSS (CSS Syntax, 4.3.7), and percent-encoding in addresses. */
const escapes: Notation = {
  mark: /[\\%]/,
  written:
    /\\u\{[0-9a-f]{1,6}\}|(?:\\u[0-9a-f]{4})+|\\x[0-9a-f]{2}|\\[0-9a-f]{2,6}\s?|(?:%[0-9a-f]{2})+|\\['"/,;]|\\[nrt]/gi,
  decoded(written) {
    if (written.startsWith('%')) return percentDecoded(written)
    if (/^\\['"/,;]$/.test(written)) return written.slice(1)
    if (/^\\[nrt]$/i.test(written)) return '\n'
    if (/^\\u[0-9a-f]{4}/i.test(written))
      return written.replace(/\\u([0-9a-f]{4})/gi, (_, hex: string) => String.fromCharCode(parseInt(hex, 16)))
    return letterOf(parseInt(written.replace(/[^0-9a-f]/gi, ''), 16)) ?? written
  },
}
/** A segment of raw text in which some letters are written otherwise. */
export function decodedSegment(
  place: TracePlace,
  raw: string,
  { from = 0, to = raw.length, notation }: { from?: number; to?: number; notation: Notation },
): Segment {
  const stretches = new Stretches()
  stretches.decode(raw, from, to, notation)
  return stretches.end(place)
}
/** What a program or a style says, with its escapes. */
export const codeSegment = (place: TracePlace, raw: string, from = 0, to = raw.length): Segment =>
  decodedSegment(place, raw, { from, to, notation: escapes })
/** An address or a name, percent-encoded or not. */
export const addressSegment = (place: TracePlace, raw: string, from = 0, to = raw.length): Segment =>
  decodedSegment(place, raw, { from, to, notation: addresses })

/** Which elements end a paragraph: names as they stand, in small letters. */
export type Breaks = (name: string) => boolean
const withinText = new Set(
  'a abbr b bdi bdo big cite code del dfn em font i ins kbd label mark q s samp small span strike strong sub sup tt u var wbr tspan'.split(
    ' ',
  ),
)
export const htmlBreaks: Breaks = name => !withinText.has(name)
const links = new Set([
  'href',
  'src',
  'action',
  'cite',
  'data',
  'longdesc',
  'poster',
  'srcset',
  'xlink:href',
  'formaction',
  'background',
])
/** Attributes that hold a program or a style. */
const isCode = (name: string): boolean => name.startsWith('on') || name === 'style'
const unread = new Set(['script', 'style'])
const slanting = new Set(['i', 'em', 'cite'])
const isLetter = (code: number): boolean => (code >= 97 && code <= 122) || (code >= 65 && code <= 90)
const endOf = (raw: string, mark: string, from: number): number => {
  const at = raw.indexOf(mark, from)
  return at < 0 ? raw.length : at + mark.length
}
/** Where a tag ends that begins at a place: after its `>`; a quote that is never closed, or another tag, ends it before. */
function endOfTag(raw: string, from: number): number {
  let at = from + 1
  while (at < raw.length) {
    const code = raw.charCodeAt(at)
    if (code === 62) return at + 1
    if (code === 60) return at
    if (code === 34 || code === 39) {
      const close = raw.indexOf(code === 34 ? '"' : "'", at + 1)
      if (close < 0) return at
      at = close
    }
    at++
  }
  return at
}
/** The next tag, comment or section from a place on; null where only text follows. */
function nextMark(raw: string, at: number): { from: number; to: number } | null {
  for (let from = raw.indexOf('<', at); from >= 0; from = raw.indexOf('<', from + 1)) {
    if (raw.startsWith('<!--', from)) return { from, to: endOf(raw, '-->', from + 4) }
    if (raw.startsWith('<![CDATA[', from)) return { from, to: endOf(raw, ']]>', from + 9) }
    const sign = raw.charCodeAt(from + 1)
    const isTag = isLetter(sign) || (sign === 47 && isLetter(raw.charCodeAt(from + 2)))
    if (isTag || sign === 33 || sign === 63) return { from, to: endOfTag(raw, from) }
  }
  return null
}
// A name begins where one can and is no longer than any: a hostile page of one long word is passed in one go.
const attribute = /(?<![^\s"'<>/=])([^\s"'<>/=]{1,200})\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'=<>`]+))/g
/** Whether a text is itself a page, written in references. Looks no further than the last tag can end. */
const isMarkup = (text: string): boolean =>
  text.includes('<') && /<[a-z]/i.test(text.slice(0, Math.max(0, text.lastIndexOf('>'))))

/**
 * The texts of a page or of an XML document: paragraphs as one reads them, whatever elements stand within, attributes, links,
 * comments, scripts. A text that is itself a page, as in questions, is taken apart too. Time is linear in its length.
 */
export function markupSegments(raw: string, breaks: Breaks = htmlBreaks): Segment[] {
  const segments: Segment[] = []
  let open = new Stretches()
  let paragraph = 0
  const close = (): void => {
    if (open.isEmpty) return
    const made = open.end('text')
    open = new Stretches()
    if (made.text.trim() === '') return
    paragraph++
    if (isMarkup(made.text)) segments.push(...within(made, raw))
    else segments.push({ ...made, paragraph })
  }
  let at = 0
  for (let mark = nextMark(raw, at); mark; mark = nextMark(raw, at)) {
    if (mark.from > at) open.decode(raw, at, mark.from, references)
    at = mark.to
    const whole = raw.slice(mark.from, at)
    if (whole.startsWith('<!--'))
      segments.push(segment('comment', whole.slice(4, whole.endsWith('-->') ? -3 : undefined), mark.from + 4))
    else if (whole.startsWith('<![CDATA[')) {
      const end = whole.endsWith(']]>') ? at - 3 : at
      open.add(raw.slice(mark.from + 9, end), mark.from + 9, end, true)
    } else {
      const name = nameOfTag(whole)
      if (breaks(name)) close()
      if (name === 'body') paragraph = 0
      if (slanting.has(name)) open.slant(whole.charAt(1) !== '/')
      if (whole.charAt(1) === '/') continue
      for (const each of attributesOf(raw, whole, mark.from)) segments.push(each)
      if (!unread.has(name) || whole.endsWith('/>')) continue
      // What programs read goes to the end of its element, whatever stands in it.
      const end = endOfElement(raw, name, at)
      if (end > at) segments.push(codeSegment('script', raw, at, end))
      at = end
    }
  }
  if (at < raw.length) open.decode(raw, at, raw.length, references)
  close()
  return segments
}
function endOfElement(raw: string, name: string, from: number): number {
  const closing = new RegExp(`</${name}`, 'gi')
  closing.lastIndex = from
  return closing.exec(raw)?.index ?? raw.length
}
/** The name of an element, in small letters: `<P class=x>` is `p`. */
function nameOfTag(tagText: string): string {
  const from = tagText.charAt(1) === '/' ? 2 : 1
  let to = from
  while (to < tagText.length && !' \n\t\r/>'.includes(tagText.charAt(to))) to++
  return tagText.slice(from, to).toLowerCase()
}
function attributesOf(raw: string, whole: string, from: number): Segment[] {
  if (!whole.includes('=')) return []
  const segments: Segment[] = []
  for (const found of whole.matchAll(attribute)) {
    const name = (found[1] ?? '').toLowerCase()
    const value = found[2] ?? found[3] ?? found[4] ?? ''
    // Nothing so short names anybody.
    if (value.length < 3) continue
    const start = from + found.index
    const end = start + found[0].length
    const to = found[4] === undefined ? end - 1 : end
    const isLink = links.has(name)
    const range = { from: to - value.length, to, notation: isLink ? addresses : references }
    const made = decodedSegment(isLink ? 'link' : isCode(name) ? 'script' : 'attribute', raw, range)
    segments.push({ ...made, whole: [start, end] })
  }
  return segments
}
/** The texts of a page that stands, written in references, within another. */
function within(outer: Segment, raw: string): Segment[] {
  return markupSegments(outer.text).map(inner => {
    const list = stretchesOf(inner)
    const [wholeFrom, wholeTo] = inner.whole ?? []
    return {
      ...inner,
      rawFrom: 0,
      stretches: list.flatMap(stretch => throughOuter(outer, stretch)),
      whole:
        wholeFrom === undefined || wholeTo === undefined
          ? null
          : rangeThrough(outer, wholeFrom, wholeTo, raw),
    }
  })
}
/** Those of some stretches, in order, that share a letter with a range: found by halving, since a quiz in one text has thousands. */
function overlapping(stretches: readonly Stretch[], from: number, to: number): Stretch[] {
  let [low, high] = [0, stretches.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if ((stretches[middle]?.to ?? 0) > from) high = middle
    else low = middle + 1
  }
  let end = low
  while (end < stretches.length && (stretches[end]?.from ?? to) < to) end++
  return stretches.slice(low, end)
}
function throughOuter(outer: Segment, inner: Stretch): Stretch[] {
  const over = overlapping(stretchesOf(outer), inner.rawFrom, inner.rawTo)
  // A reference within a reference stands for one letter, whatever it is written with.
  if (!inner.exact) {
    const [first, last] = [over[0], over.at(-1)]
    if (!first || !last) return []
    return [{ ...inner, rawFrom: rawAt(first, inner.rawFrom), rawTo: rawEnd(last, inner.rawTo) }]
  }
  return over.map(each => {
    const from = Math.max(each.from, inner.rawFrom)
    const to = Math.min(each.to, inner.rawTo)
    return {
      from: inner.from + (from - inner.rawFrom),
      to: inner.from + (to - inner.rawFrom),
      rawFrom: rawAt(each, from),
      rawTo: rawEnd(each, to),
      exact: each.exact,
    }
  })
}
const rawAt = (stretch: Stretch, at: number): number =>
  stretch.exact ? stretch.rawFrom + Math.max(0, at - stretch.from) : stretch.rawFrom
const rawEnd = (stretch: Stretch, at: number): number =>
  stretch.exact ? stretch.rawTo - Math.max(0, stretch.to - at) : stretch.rawTo
function rangeThrough(outer: Segment, from: number, to: number, raw: string): [number, number] {
  const over = overlapping(stretchesOf(outer), from, to)
  const [first, last] = [over[0], over.at(-1)]
  return first && last ? [rawAt(first, from), rawEnd(last, to)] : [raw.length, raw.length]
}
