import type { Knex } from 'knex'
import { madeText } from '../../core/carry/added'
import { writesText, type PlaceRow } from '../../core/carry/places'
import type { TextRecipe } from '../../core/carry/texts'
import type { OutlineNode } from '../../core/course/outline'
import { compilePlan, sourceOutline, type CompileInput } from '../../core/plan/compile'
import type { QuestionChoice } from '../../core/carry/decisions'
import { chooseQuestions } from '../../core/formats/cartridge/qti/choose'
import { readLimits } from '../../core/formats/limits'
import { xmlText } from '../../core/formats/text'
import { piecesOf, htmlOf, readingOf, type Piece } from '../../core/prose/pieces'
import {
  headingsOf,
  joinPages,
  mergedHtml,
  passagesOf,
  underHeading,
  type Passage,
} from '../../core/prose/compose'
import type { PlanText } from '../../shared/api/plans'
import type { MergedSources } from '../../core/plan/sources'
import { accessToCourses } from '../courses/access'
import { loadBody } from '../courses/bodies.queries'
import type { ReadableForm } from '../courses/readable-body'
import { notFound, refuse } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { compileInput } from './compile'
import { findPlan, sidesOfPlan, type Plan } from './plans.queries'

/** A longer text comes whole or not at all: what takes it apart has other people wait. */
const partedAtMost = 256 * 1024
type Node = Pick<OutlineNode, 'title' | 'body' | 'size'>
type Nodes = ReadonlyMap<string, OutlineNode>

async function piecesOfNode(db: Knex, { title, body, size }: Node): Promise<Piece[]> {
  if (size > partedAtMost) throw refuse('text-too-long', { title })
  const bytes = body === null ? null : await loadBody(db, body)
  return bytes ? piecesOf(bytes.toString('utf8')) : []
}
/** The text of a thing with what is decided of it, but for the shell's: under one heading, with others below. */
async function sourceText(
  db: Knex,
  node: Node,
  { heading, further }: Omit<TextRecipe, 'passages'>,
  nodes: Nodes,
): Promise<string> {
  const all = await piecesOfNode(db, node)
  const first = heading ? underHeading(all, heading) : all
  if (!first) throw refuse('heading-gone', { title: node.title, heading: heading?.title ?? '' })
  const others: { title: string; pieces: Piece[] }[] = []
  for (const lineage of further) {
    const other = nodes.get(lineage)
    if (other) others.push({ title: other.title, pieces: await piecesOfNode(db, other) })
  }
  return others.length > 0 ? joinPages(first, others) : htmlOf(first)
}
/** The questions of a quiz that come, with all that stands around them as it was. */
async function questionsText(db: Knex, node: Node, { body, takes }: QuestionChoice): Promise<string> {
  if (node.body !== body) throw refuse('questions-changed', { title: node.title })
  const bytes = await loadBody(db, body)
  if (!bytes || bytes.length > readLimits.xmlBytes) throw refuse('text-too-long', { title: node.title })
  return chooseQuestions(node.title, xmlText(node.title, bytes), takes, readLimits)
}
async function comparedTexts(
  db: Knex,
  row: PlaceRow & { source: OutlineNode; shell: OutlineNode },
  nodes: Nodes,
  base: Piece[] | null,
): Promise<Passage[]> {
  const { source, shell, text } = row
  const isMade = text !== null && (text.heading !== null || text.further.length > 0)
  const ours = isMade ? piecesOf(await sourceText(db, source, text, nodes)) : await piecesOfNode(db, source)
  return passagesOf(ours, await piecesOfNode(db, shell), base)
}
const withBoth = (row: PlaceRow): row is PlaceRow & { source: OutlineNode; shell: OutlineNode } =>
  row.source !== null && row.shell !== null

/** A text that a run makes, and what of it is made to be read. */
export interface MadeText {
  readonly text: string
  readonly form: ReadableForm
}
/**
 * The texts that a run of these rows makes, by the lineage of the source's thing.
 * @throws Refusal where a heading or a question is not there any more, or a text is too long.
 */
export async function composeTexts(
  db: Knex,
  input: CompileInput,
  rows: readonly PlaceRow[],
): Promise<Map<string, MadeText>> {
  const { made: own } = input.document.added
  const wanted = rows.filter(row => writesText(row) && (row.text ?? own[row.source?.lineage ?? '']))
  const made = new Map<string, MadeText>()
  if (wanted.length === 0) return made
  const nodes = new Map(sourceOutline(input).nodes.map(node => [node.lineage, node]))
  for (const row of wanted) {
    const thing = own[row.source?.lineage ?? '']
    const text = thing && madeText(thing)
    if (row.source && text) made.set(row.source.lineage, { text, form: 'page' })
    if (!row.source || !row.text || row.text.isFrame) continue
    const { passages, questions } = row.text
    if (questions) {
      const chosen = await questionsText(db, row.source, questions)
      made.set(row.source.lineage, { text: chosen, form: 'questions' })
      continue
    }
    const html =
      passages && withBoth(row)
        ? mergedHtml(await comparedTexts(db, row, nodes, null), passages)
        : await sourceText(db, row.source, row.text, nodes)
    made.set(row.source.lineage, { text: html, form: 'page' })
  }
  return made
}

/** What of a plan's sources and of its shell somebody may read themselves: the plan itself rests on the right of whoever chose the sources. */
async function readableBy(db: Knex, person: Person, plan: Plan, merged: MergedSources) {
  const sides = sidesOfPlan(plan)
  const access = await accessToCourses(db, person, [...sides, plan.targetId])
  const mayRead = (course: string, { kind }: OutlineNode): boolean => {
    const own = access.get(course)
    return Boolean(own?.read) && !(kind !== null && own?.withheld.has(kind))
  }
  return {
    inSources: (node: OutlineNode): boolean =>
      mayRead(sides[merged.from.get(node.lineage) ?? 0] ?? plan.targetId, node),
    inShell: (node: OutlineNode): boolean => mayRead(plan.targetId, node),
  }
}
/** A text that a plan carries, as one chooses a part of it, or passages. */
export async function readPlanText(
  db: Knex,
  person: Person,
  { id, lineage }: { id: string; lineage: string },
): Promise<PlanText> {
  const plan = await findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const input = await compileInput(db, plan)
  const row = compilePlan(input).rows.find(each => each.source?.lineage === lineage)
  const merged = sourceOutline(input)
  const nodes = new Map(merged.nodes.map(node => [node.lineage, node]))
  const may = await readableBy(db, person, plan, merged)
  const asked = [row?.source, ...(row?.text?.further ?? []).map(each => nodes.get(each))]
  if (!row?.source?.isHtml || !asked.every(node => node && may.inSources(node))) throw notFound('This text')
  const headings = headingsOf(await piecesOfNode(db, row.source))
  const { shell, carries } = row
  if (!withBoth(row) || !shell?.isHtml || !shell.body || !carries?.text || !may.inShell(shell))
    return { headings, compared: null }
  const base = input.before.bases.find(each => each.source === lineage)
  const before = base && (base.wrote ?? base.parts.text)
  const bytes = before && /^[0-9a-f]{64}$/.test(before) ? await loadBody(db, before) : null
  const found = await comparedTexts(db, row, nodes, bytes && piecesOf(bytes.toString('utf8')))
  return {
    headings,
    compared: {
      source: carries.text,
      shell: shell.body,
      passages: found.map(each => ({
        ...each,
        source: each.source.map(readingOf),
        shell: each.shell.map(readingOf),
      })),
    },
  }
}
