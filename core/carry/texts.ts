import type { Heading, PassageChoices } from '../prose/compose'
import type { OutlineNode } from '../course/outline'
import type { CarriedBase } from './base'
import { itemKindDefinitions } from '../course/kinds'
import type { PlacesDecisions, QuestionChoice } from './decisions'

/** How a run makes the text of a thing, where it is not the source's as it is. */
export interface TextRecipe {
  /** Only what stands under this heading; null: all of it. */
  readonly heading: Heading | null
  /** Lineage keys of the sources' things whose texts come after it. */
  readonly further: readonly string[]
  /** Of the passages in which that and the shell's text differ, those that are taken; null: it takes the place of the shell's. */
  readonly passages: PassageChoices | null
  /** Of a quiz, the questions that come, by their place among those of one body; null: all. */
  readonly questions: QuestionChoice | null
  /** A frame: nothing of it comes. */
  readonly isFrame: boolean
  /** What is taken out of it about students, as one mark; null: nothing. */
  readonly redacts: string | null
}
export const wholeText: TextRecipe = {
  heading: null,
  further: [],
  passages: null,
  questions: null,
  isFrame: false,
  redacts: null,
}

/** Whether a text is put together from parts, and not only rid of what is about students. */
export const isComposed = ({ heading, further, passages, questions }: TextRecipe): boolean =>
  heading !== null || further.length > 0 || passages !== null || questions !== null

type Node = Pick<OutlineNode, 'lineage' | 'parent' | 'body' | 'isHtml' | 'type' | 'kind'>
interface TextsInput {
  readonly sources: readonly Node[]
  readonly carried: ReadonlySet<string>
  readonly decisions: Pick<PlacesDecisions, 'headings' | 'further' | 'questions'>
  /** Whether an item comes as a frame. */
  readonly isFrame: (node: Node) => boolean
  /** Stands for what is taken out of an item's text about students; null: nothing. */
  readonly redacts: (lineage: string) => string | null
  /** Whether a thing is written, so that others can go along with it. */
  readonly isWritten: (lineage: string) => boolean
}
/** The texts that come in part or together. What is decided of things that do not come, or of no page, counts for nothing. */
export function plannedTexts({ sources, carried, decisions, isFrame, redacts, isWritten }: TextsInput) {
  const nodes = new Map(sources.map(node => [node.lineage, node]))
  const comesWhole = (lineage: string): Node | null => {
    const node = nodes.get(lineage)
    return node?.type === 'item' && carried.has(lineage) && !isFrame(node) ? node : null
  }
  const isThere = (lineage: string): boolean => comesWhole(lineage)?.isHtml ?? false
  const goesInto = new Map<string, string>()
  // What holds others below it stays where they can stand.
  const holders = new Set(sources.map(node => node.parent))
  // What goes into another's place takes nothing along itself.
  const named = new Set(Object.values(decisions.further).flat())
  const takers = Object.entries(decisions.further).filter(
    ([taker]) => !named.has(taker) && isThere(taker) && isWritten(taker),
  )
  for (const [taker, further] of takers)
    for (const each of further)
      if (isThere(each) && !holders.has(each) && !goesInto.has(each)) goesInto.set(each, taker)
  const recipes = new Map<string, Omit<TextRecipe, 'passages'>>()
  for (const lineage of new Set([...Object.keys(decisions.headings), ...takers.map(([taker]) => taker)])) {
    if (!isThere(lineage) || goesInto.has(lineage)) continue
    const further = decisions.further[lineage]?.filter(each => goesInto.get(each) === lineage) ?? []
    const heading = decisions.headings[lineage] ?? null
    if (heading || further.length > 0) recipes.set(lineage, { ...wholeText, heading, further })
  }
  for (const [lineage, questions] of Object.entries(decisions.questions)) {
    const kind = comesWhole(lineage)?.kind
    if (kind && itemKindDefinitions[kind].shows === 'questions')
      recipes.set(lineage, { ...wholeText, questions })
  }
  for (const node of sources) {
    if (node.body === null || !carried.has(node.lineage)) continue
    const recipe = recipes.get(node.lineage)
    const marks = [node.lineage, ...(recipe?.further ?? [])].map(redacts).filter(mark => mark !== null)
    if (isFrame(node)) recipes.set(node.lineage, { ...wholeText, isFrame: true })
    else if (marks.length > 0) recipes.set(node.lineage, { ...(recipe ?? wholeText), redacts: marks.join() })
  }
  /** What tells a made text from another without reading it: which texts it is made of, and how. Null: it is the source's as it is. */
  const madeOf = (lineage: string): string | null => {
    const recipe = recipes.get(lineage)
    if (!recipe) return null
    if (recipe.isFrame) return ''
    const redacted = recipe.redacts === null ? [] : [recipe.redacts]
    if (recipe.questions) return `made ${JSON.stringify(recipe.questions)}${redacted.join()}`
    const bodies = [lineage, ...recipe.further].map(each => nodes.get(each)?.body ?? '')
    const heading = recipe.heading && [recipe.heading.title, recipe.heading.nth]
    return `made ${JSON.stringify([bodies, heading, ...redacted])}`
  }
  return { recipes, goesInto, madeOf }
}
/** The text of the shell, as it is compared with what was carried: a text that a run made counts as what it was made of. */
export const textHere = (base: CarriedBase, body: string | null): string =>
  base.wrote && base.wrote === body ? (base.parts.text ?? '') : (body ?? '')
