import { Parser } from 'htmlparser2'
import { shallowHtml } from '../formats/html/shallow'

/** A paragraph, heading, list entry, table row or the like, as it came: the smallest piece in which a text is taken or compared. */
export interface Piece {
  /** Opening tags of the elements that it stands in, outermost first. */
  readonly within: readonly string[]
  /** The piece before it in its own page, and how many elements hold both. */
  readonly after: Piece | null
  readonly shared: number
  readonly html: string
  /** What one reads of it. */
  readonly text: string
  /** 1 to 6 of a heading; null for anything else. */
  readonly level: number | null
}

const names = (line: string): ReadonlySet<string> => new Set(line.split(' '))
/** Elements that only hold others: what stands in them is looked at piece by piece. */
const holders = names(
  'html body div section article main header footer aside nav center form fieldset details blockquote ul ol dl table thead tbody tfoot',
)
/** Elements that are a piece of their own (HTML standard, section 15.3: those that are shown as blocks). */
const pieceNames = names(
  'head p h1 h2 h3 h4 h5 h6 li dt dd tr caption colgroup pre hr address figure summary legend title style script noscript template video audio iframe object',
)
const levelOf = (name: string): number | null => (/^h[1-6]$/.test(name) ? Number(name[1]) : null)
/** What stands in two of these is not one word. */
const apart = names('td th li p br div dt dd option')
/** Of what stands in these nothing is read. */
const unread = names('head style script template title')
const deepest = 100
export const nameOf = (tag: string): string => /^<([^\s/>]+)/.exec(tag)?.[1] ?? ''

/** A page without what it breaks off in: a comment that would swallow whatever comes after it, half a tag. `<` is a sign where no tag begins. */
function ended(html: string): string {
  const comment = html.indexOf('<!--', Math.max(0, html.lastIndexOf('-->')))
  const whole = (comment < 0 ? html : html.slice(0, comment)).replace(/<[a-z/!?][^<>]*$/i, '')
  return whole.replace(/<(?![a-z/!?])/gi, '&lt;')
}
/**
 * The pieces of a page in its order. `piecesOf` and `htmlOf` lose nothing but the white space between pieces; elements that were never closed are.
 */
export function piecesOf(page: string): Piece[] {
  const html = shallowHtml(ended(page), deepest)
  const found: Piece[] = []
  const within: string[] = []
  let shared = 0
  let piece: { start: number; name: string | null; depth: number; text: string } | null = null
  let silent = 0

  function end(at: number, isClosed: boolean): void {
    if (!piece) return
    const raw = html.slice(piece.start, at).trim()
    const made = piece.name === null || isClosed ? raw : `${raw}</${piece.name}>`
    if (made !== '') {
      found.push({
        within: [...within],
        after: found.at(-1) ?? null,
        shared: Math.min(shared, within.length),
        html: made,
        text: piece.text.replace(/\s+/g, ' ').trim(),
        level: piece.name === null ? null : levelOf(piece.name),
      })
      shared = within.length
    }
    piece = null
  }
  /** Words and inline elements that stand in no piece are one together. */
  const loose = (at: number): void => {
    piece ??= { start: at, name: null, depth: 0, text: '' }
  }
  const parser: Parser = new Parser(
    {
      onopentag(name) {
        if (unread.has(name)) silent++
        const isLoose = piece !== null && piece.name === null && piece.depth === 0
        if (isLoose && (holders.has(name) || pieceNames.has(name))) end(parser.startIndex, true)
        if (piece) {
          piece.depth++
          if (apart.has(name)) piece.text += ' '
        } else if (holders.has(name)) within.push(html.slice(parser.startIndex, parser.endIndex + 1))
        else if (pieceNames.has(name)) piece = { start: parser.startIndex, name, depth: 0, text: '' }
        else {
          loose(parser.startIndex)
          if (piece) (piece as { depth: number }).depth++
        }
      },
      ontext(text) {
        if (!piece && text.trim() !== '') loose(parser.startIndex)
        if (piece && silent === 0) piece.text += text
      },
      oncomment: () => piece ?? loose(parser.startIndex),
      onprocessinginstruction: () => piece ?? loose(parser.startIndex),
      onclosetag(name, isImplied) {
        if (unread.has(name)) silent--
        if (piece && piece.depth > 0) {
          piece.depth--
          return
        }
        if (piece?.name === name) {
          // What has no end tag ends where it began: a ruled line.
          const isWhole = !isImplied || parser.startIndex === piece.start
          return end(isWhole ? parser.endIndex + 1 : parser.startIndex, isWhole)
        }
        end(parser.startIndex, true)
        within.pop()
        shared = Math.min(shared, within.length)
      },
    },
    { decodeEntities: true },
  )
  parser.write(html)
  parser.end()
  end(html.length, false)
  return found
}

/** Pieces, of one page or of several, as one page: each stands in what it stood in, and a list goes on where the next piece is of a list alike. */
export function htmlOf(pieces: readonly Piece[]): string {
  const lines: string[] = []
  let open: readonly string[] = []
  let before: Piece | null = null
  const close = (down: number): void => {
    for (const tag of open.slice(down).reverse()) lines.push(`</${nameOf(tag)}>`)
  }
  for (const piece of pieces) {
    const { within } = piece
    let common = 0
    while (common < open.length && open[common] === within[common]) common++
    const kept = piece.after === before ? Math.min(common, piece.shared) : common
    close(kept)
    lines.push(...within.slice(kept), piece.html)
    open = within
    before = piece
  }
  close(0)
  return lines.join('\n')
}
/** A piece in words, also where there is nothing to read in it; empty for what stands before a page. */
export function readingOf({ text, html }: Pick<Piece, 'text' | 'html'>): string {
  if (text !== '') return text
  if (/<(img|picture|svg|video|audio|iframe|object)\b/i.test(html)) return '(a picture or a player)'
  if (/^<(head|title|style|script|!)/i.test(html)) return ''
  return /^<hr\b/i.test(html) ? '(a line across)' : '(nothing to read)'
}
