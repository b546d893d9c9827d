import { diffArrays } from 'diff'
import { htmlOf, nameOf, type Piece } from './pieces'

/** A heading of a page. `nth`: which one of those with the same words, from 0. */
export interface Heading {
  readonly title: string
  readonly nth: number
}
export interface PageHeading extends Heading {
  /** 1 to 6. */
  readonly level: number
}
/** A heading that is longer is no name for an item. */
const longestTitle = 500
/** The headings of a page that an item could be called by, in its order. */
export function headingsOf(pieces: readonly Piece[]): PageHeading[] {
  const seen = new Map<string, number>()
  return pieces.flatMap(({ level, text: title }) => {
    if (level === null || title === '' || title.length > longestTitle) return []
    const nth = seen.get(title) ?? 0
    seen.set(title, nth + 1)
    return [{ title, nth, level }]
  })
}
/** What stands under one heading of a page, up to the next of its level or above; null where the page has no such heading. */
export function underHeading(pieces: readonly Piece[], { title, nth }: Heading): Piece[] | null {
  const places = pieces.flatMap((piece, at) => (piece.level !== null && piece.text === title ? [at] : []))
  const at = places[nth]
  const level = at === undefined ? null : (pieces[at]?.level ?? null)
  if (at === undefined || level === null) return null
  const below = pieces.slice(at + 1)
  const end = below.findIndex(piece => piece.level !== null && piece.level <= level)
  return end < 0 ? below : below.slice(0, end)
}

const isFrame = (tag: string): boolean => ['html', 'body'].includes(nameOf(tag))
const isHead = ({ html }: Piece): boolean => /^<(head[\s>]|!doctype|\?xml|title[\s>])/i.test(html)
/** The pieces of a page to stand in another one: without what frames a page, in what frames the other. */
function framedAs(pieces: readonly Piece[], frame: readonly string[]): Piece[] {
  const made: Piece[] = []
  for (const piece of pieces.filter(each => !isHead(each)))
    made.push({
      ...piece,
      within: [...frame, ...piece.within.filter(tag => !isFrame(tag))],
      after: made.at(-1) ?? null,
      shared: frame.length + piece.within.slice(0, piece.shared).filter(tag => !isFrame(tag)).length,
    })
  return made
}
const frameOf = (pieces: readonly Piece[]): string[] => pieces.at(-1)?.within.filter(isFrame) ?? []

const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
export interface TitledPage {
  readonly title: string
  readonly pieces: readonly Piece[]
}
/** One page of several: those after the first each under its title. */
export function joinPages(first: readonly Piece[], others: readonly TitledPage[]): string {
  const frame = frameOf(first)
  const further = others.flatMap(({ title, pieces }) => {
    const own = framedAs(pieces, frame)
    const opens = own.find(piece => piece.text !== '')
    // A page that begins with its own title has it already.
    if (opens && opens.level !== null && opens.text === title.trim()) return own
    const heading = { html: `<h2>${escaped(title)}</h2>`, text: title, level: 2 }
    return [{ ...heading, within: frame, after: null, shared: 0 }, ...own]
  })
  return htmlOf([...first, ...further])
}

/** A stretch of two texts: alike in both, or what one has in the place of what the other has. */
export interface Passage {
  readonly isAlike: boolean
  readonly source: readonly Piece[]
  readonly shell: readonly Piece[]
  /** Where it was changed since the last run; null: alike, or nobody knows. */
  readonly changed: 'source' | 'shell' | 'both' | null
}
const keyOf = ({ html }: Pick<Piece, 'html'>): string => html.replace(/\s+/g, ' ')
/** Two texts that differ in more pieces than this are one passage: comparing takes time with the square of the differences. */
const differencesAtMost = 500
/** A piece with what it is compared by, made once. */
interface Compared {
  readonly piece: Piece
  readonly key: string
}
const compared = (pieces: readonly Piece[]): Compared[] => pieces.map(piece => ({ piece, key: keyOf(piece) }))
/** Where the text of a source and the shell's are alike, and where they differ. `base`: the text as the last run carried it. */
export function passagesOf(
  source: readonly Piece[],
  shell: readonly Piece[],
  base: readonly Piece[] | null,
): Passage[] {
  const ours = framedAs(source, frameOf(shell))
  // What stands before a page, its style and its own title, is the shell's without asking.
  const heads = shell.filter(isHead)
  const theirs = shell.filter(piece => !isHead(piece))
  const before = base && new Set(base.map(keyOf))
  const isOf = (pieces: readonly Piece[]): boolean =>
    pieces.every(piece => before?.has(keyOf(piece)) ?? false)
  const differing = (there: readonly Piece[], from: readonly Piece[]): Passage => {
    const [asWas, sourceAsWas] = [isOf(there), isOf(from)]
    const oneSide = asWas ? 'source' : 'shell'
    return {
      isAlike: false,
      source: from,
      shell: there,
      changed: before ? (asWas === sourceAsWas ? 'both' : oneSide) : null,
    }
  }
  const found = diffArrays<Compared>(compared(theirs), compared(ours), {
    comparator: (one: Compared, other: Compared) => one.key === other.key,
    maxEditLength: differencesAtMost,
  })
  const passages: Passage[] =
    heads.length > 0 ? [{ isAlike: true, source: heads, shell: heads, changed: null }] : []
  if (!found) return [...passages, differing(theirs, ours)]
  let at = 0
  let waiting: { source: Piece[]; shell: Piece[] } = { source: [], shell: [] }
  const send = (): void => {
    if (waiting.source.length + waiting.shell.length > 0)
      passages.push(differing(waiting.shell, waiting.source))
    waiting = { source: [], shell: [] }
  }
  for (const { added, removed, value } of found) {
    if (added) waiting.source.push(...value.map(({ piece }) => piece))
    else if (removed) waiting.shell.push(...theirs.slice(at, (at += value.length)))
    else {
      send()
      const alike = theirs.slice(at, (at += value.length))
      passages.push({ isAlike: true, source: alike, shell: alike, changed: null })
    }
  }
  send()
  return passages
}
/** Passages by their places among those that differ: which are the source's, and of which both stay, the shell's first. The rest is the shell's. */
export interface PassageChoices {
  readonly takes: readonly number[]
  readonly both: readonly number[]
}
/** The shell's text with what is chosen of the source's. */
export function mergedHtml(passages: readonly Passage[], { takes, both }: PassageChoices): string {
  let differing = 0
  const pieces = passages.flatMap(({ isAlike, source, shell }) => {
    if (isAlike) return shell
    const passage = differing++
    if (takes.includes(passage)) return source
    return both.includes(passage) ? [...shell, ...source] : shell
  })
  return htmlOf(pieces)
}
