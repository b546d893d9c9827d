import { diffArrays } from 'diff'
import { htmlOf, nameOf, type Block } from './blocks'

/** A heading of a page. `nth`: which one of those with the same words, from 0. */
export interface Heading {
  readonly title: string
  readonly nth: number
}
export interface PageHeading extends Heading {
  /** 1 to 6. */
  readonly level: number
}
/** The headings of a page that say something, in its order. */
export function headingsOf(blocks: readonly Block[]): PageHeading[] {
  const seen = new Map<string, number>()
  return blocks.flatMap(({ level, text: title }) => {
    if (level === null || title === '') return []
    const nth = seen.get(title) ?? 0
    seen.set(title, nth + 1)
    return [{ title, nth, level }]
  })
}
/** What stands under one heading of a page, up to the next of its level or above; null where the page has no such heading. */
export function underHeading(blocks: readonly Block[], { title, nth }: Heading): Block[] | null {
  const places = blocks.flatMap((block, at) => (block.level !== null && block.text === title ? [at] : []))
  const at = places[nth]
  const level = at === undefined ? null : (blocks[at]?.level ?? null)
  if (at === undefined || level === null) return null
  const below = blocks.slice(at + 1)
  const end = below.findIndex(block => block.level !== null && block.level <= level)
  return end < 0 ? below : below.slice(0, end)
}

const isFrame = (tag: string): boolean => ['html', 'body'].includes(nameOf(tag))
const isHead = ({ html }: Block): boolean => /^<(head[\s>]|!doctype|\?xml|title[\s>])/i.test(html)
/** The pieces of a page to stand in another one: without what frames a page, in what frames the other. */
function framedAs(blocks: readonly Block[], frame: readonly string[]): Block[] {
  const made: Block[] = []
  for (const block of blocks.filter(each => !isHead(each)))
    made.push({
      ...block,
      within: [...frame, ...block.within.filter(tag => !isFrame(tag))],
      after: made.at(-1) ?? null,
      shared: frame.length + block.within.slice(0, block.shared).filter(tag => !isFrame(tag)).length,
    })
  return made
}
const frameOf = (blocks: readonly Block[]): string[] => blocks.at(-1)?.within.filter(isFrame) ?? []

const escaped = (text: string): string =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')
export interface TitledPage {
  readonly title: string
  readonly blocks: readonly Block[]
}
/** One page of several: those after the first each under its title. */
export function joinPages(first: readonly Block[], others: readonly TitledPage[]): string {
  const frame = frameOf(first)
  const further = others.flatMap(({ title, blocks }) => {
    const own = framedAs(blocks, frame)
    const opens = own.find(block => block.text !== '')
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
  readonly source: readonly Block[]
  readonly shell: readonly Block[]
  /** Where it was changed since the last run; null: alike, or nobody knows. */
  readonly changed: 'source' | 'shell' | 'both' | null
}
const keyOf = ({ html }: Pick<Block, 'html'>): string => html.replace(/\s+/g, ' ')
/** Two texts that differ in more pieces than this are one passage: comparing takes time with every difference. */
const differencesAtMost = 3000
/** Where the text of a source and the shell's are alike, and where they differ. `base`: the text as the last run carried it. */
export function passagesOf(
  source: readonly Block[],
  shell: readonly Block[],
  base: readonly Block[] | null,
): Passage[] {
  const ours = framedAs(source, frameOf(shell))
  // What stands before a page, its style and its own title, is the shell's without asking.
  const heads = shell.filter(isHead)
  const theirs = shell.filter(block => !isHead(block))
  const before = base && new Set(base.map(keyOf))
  const isOf = (blocks: readonly Block[]): boolean =>
    blocks.every(block => before?.has(keyOf(block)) ?? false)
  const differing = (there: readonly Block[], from: readonly Block[]): Passage => {
    const [asWas, sourceAsWas] = [isOf(there), isOf(from)]
    const oneSide = asWas ? 'source' : 'shell'
    return {
      isAlike: false,
      source: from,
      shell: there,
      changed: before ? (asWas === sourceAsWas ? 'both' : oneSide) : null,
    }
  }
  const found = diffArrays<Block>(theirs, ours, {
    comparator: (one: Block, other: Block) => keyOf(one) === keyOf(other),
    maxEditLength: differencesAtMost,
  })
  const passages: Passage[] =
    heads.length > 0 ? [{ isAlike: true, source: heads, shell: heads, changed: null }] : []
  if (!found) return [...passages, differing(theirs, ours)]
  let at = 0
  let waiting: { source: Block[]; shell: Block[] } = { source: [], shell: [] }
  const send = (): void => {
    if (waiting.source.length + waiting.shell.length > 0)
      passages.push(differing(waiting.shell, waiting.source))
    waiting = { source: [], shell: [] }
  }
  for (const { added, removed, value } of found) {
    if (added) waiting.source.push(...value)
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
  const blocks = passages.flatMap(({ isAlike, source, shell }) => {
    if (isAlike) return shell
    const passage = differing++
    if (takes.includes(passage)) return source
    return both.includes(passage) ? [...shell, ...source] : shell
  })
  return htmlOf(blocks)
}
