import { decodeHTML } from 'entities'

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
} as const
export type TracePlace = keyof typeof tracePlaces
export const tracePlaceNames = Object.keys(tracePlaces) as [TracePlace, ...TracePlace[]]

/** A text that is looked through as one: a paragraph, an attribute, a comment. */
export interface Segment {
  readonly place: TracePlace
  readonly text: string
  /** Null: letter for letter, from `rawFrom` on. */
  readonly stretches: readonly Stretch[] | null
  readonly rawFrom: number
  /** All of an attribute with its name: it goes where its value must. */
  readonly whole: readonly [from: number, to: number] | null
  /** Which paragraph of the text it is, from 1 on; null where it is none. */
  readonly paragraph: number | null
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
})
/** How a raw text is changed so that something else stands in a segment from one letter to another. */
export function editsFor(segment: Segment, from: number, to: number, text: string): Edit[] {
  if (!segment.stretches) return [{ from: segment.rawFrom + from, to: segment.rawFrom + to, text }]
  const edits: Edit[] = []
  for (const each of segment.stretches) {
    if (each.to <= from || each.from >= to) continue
    const start = each.exact ? each.rawFrom + Math.max(0, from - each.from) : each.rawFrom
    const end = each.exact ? each.rawTo - Math.max(0, each.to - to) : each.rawTo
    edits.push({ from: start, to: end, text: edits.length === 0 ? text : '' })
  }
  return edits
}
/** A raw text with changes; of two that overlap the first counts. */
export function edited(raw: string, edits: readonly Edit[]): string {
  const parts: string[] = []
  let at = 0
  for (const edit of [...edits].sort((a, b) => a.from - b.from || b.to - a.to)) {
    if (edit.from < at) continue
    parts.push(raw.slice(at, edit.from), edit.text)
    at = edit.to
  }
  parts.push(raw.slice(at))
  return parts.join('')
}

/** Puts a segment together from stretches of raw text, with references (`&euml;`, `%20`) taken for what they stand for. */
class Stretches {
  private readonly parts: string[] = []
  private readonly list: Stretch[] = []
  private length = 0
  add(text: string, rawFrom: number, rawTo: number, exact: boolean): void {
    if (text === '') return
    this.list.push({ from: this.length, to: this.length + text.length, rawFrom, rawTo, exact })
    this.parts.push(text)
    this.length += text.length
  }
  /** Adds raw text from one place to another, references decoded. */
  decode(raw: string, from: number, to: number, isLink = false): void {
    const reference = isLink ? /&(?:#\w+|\w+);?|(?:%[0-9a-f]{2})+/gi : /&(?:#\w+|\w+);?/gi
    let at = from
    const text = raw.slice(from, to)
    if (!text.includes('&') && !(isLink && text.includes('%'))) return this.add(text, from, to, true)
    for (const found of text.matchAll(reference)) {
      const start = from + found.index
      const end = start + found[0].length
      const is = found[0].startsWith('%') ? percentDecoded(found[0]) : decodeHTML(found[0])
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
  end(place: TracePlace, more: Partial<Segment> = {}): Segment {
    return {
      place,
      text: this.parts.join(''),
      stretches: [...this.list],
      rawFrom: 0,
      whole: null,
      paragraph: null,
      ...more,
    }
  }
}
function percentDecoded(text: string): string {
  try {
    return decodeURIComponent(text)
  } catch {
    return text
  }
}

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
const unread = new Set(['script', 'style'])
const tag =
  /<!--[\s\S]*?(?:-->|$)|<!\[CDATA\[[\s\S]*?(?:\]\]>|$)|<[/!?]?[a-z](?:"[^"]*"|'[^']*'|[^<>"'])*>?|<[!?][^>]*>?/gi
const attribute = /([^\s"'<>/=]+)\s*=\s*(?:"([^"]*)"|'([^']*)'|([^\s"'=<>`]+))/g

/**
 * The texts of a page or of an XML document: paragraphs as one reads them, whatever elements stand within, attributes, links,
 * comments, scripts. A text that is itself a page, as in questions, is taken apart too. Time is linear in its length.
 */
export function markupSegments(raw: string, breaks: Breaks = htmlBreaks): Segment[] {
  const segments: Segment[] = []
  let open = new Stretches()
  let paragraph = 0
  let skipped: string | null = null
  const close = (): void => {
    if (open.isEmpty) return
    const made = open.end('text')
    open = new Stretches()
    if (made.text.trim() === '') return
    paragraph++
    if (/<[a-z][^>]*>/i.test(made.text)) segments.push(...within(made, raw))
    else segments.push({ ...made, paragraph })
  }
  const text = (from: number, to: number): void => {
    if (from >= to) return
    if (skipped === null) open.decode(raw, from, to)
    else segments.push(segment('script', raw.slice(from, to), from))
  }
  let at = 0
  for (const found of raw.matchAll(tag)) {
    const [whole] = found
    text(at, found.index)
    at = found.index + whole.length
    if (whole.startsWith('<!--'))
      segments.push(segment('comment', whole.replace(/^<!--|-->$/g, ''), found.index + 4))
    else if (whole.startsWith('<![CDATA[')) {
      const end = whole.endsWith(']]>') ? at - 3 : at
      open.add(raw.slice(found.index + 9, end), found.index + 9, end, true)
    } else {
      const name = (/^<\/?([^\s/>]+)/.exec(whole)?.[1] ?? '').toLowerCase()
      const isEnd = whole.startsWith('</')
      if (skipped !== null && !(isEnd && name === skipped)) {
        segments.push(segment('script', whole, found.index))
        continue
      }
      if (breaks(name)) close()
      if (name === 'body') paragraph = 0
      if (unread.has(name)) skipped = isEnd || whole.endsWith('/>') ? null : name
      if (!isEnd) segments.push(...attributesOf(raw, whole, found.index))
    }
  }
  text(at, raw.length)
  close()
  return segments
}
function attributesOf(raw: string, whole: string, from: number): Segment[] {
  if (!whole.includes('=')) return []
  return [...whole.matchAll(attribute)].map(found => {
    const name = (found[1] ?? '').toLowerCase()
    const value = found[2] ?? found[3] ?? found[4] ?? ''
    const start = from + found.index
    const end = start + found[0].length
    const isQuoted = found[4] === undefined
    const to = isQuoted ? end - 1 : end
    const isLink = links.has(name)
    const stretches = new Stretches()
    stretches.decode(raw, to - value.length, to, isLink)
    return stretches.end(isLink ? 'link' : 'attribute', { whole: [start, end] })
  })
}
/** The texts of a page that stands, written in references, within another. */
function within(outer: Segment, raw: string): Segment[] {
  return markupSegments(outer.text).map(inner => {
    const list = inner.stretches ?? [
      {
        from: 0,
        to: inner.text.length,
        rawFrom: inner.rawFrom,
        rawTo: inner.rawFrom + inner.text.length,
        exact: true,
      },
    ]
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
function throughOuter(outer: Segment, inner: Stretch): Stretch[] {
  const over = (outer.stretches ?? []).filter(each => each.to > inner.rawFrom && each.from < inner.rawTo)
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
  const over = (outer.stretches ?? []).filter(each => each.to > from && each.from < to)
  const [first, last] = [over[0], over.at(-1)]
  return first && last ? [rawAt(first, from), rawEnd(last, to)] : [raw.length, raw.length]
}
