import type { Knex } from 'knex'
import { madeText } from '../../core/carry/added'
import { writesText, type PlaceRow } from '../../core/carry/places/row'
import { isComposed, type TextRecipe } from '../../core/carry/texts'
import { utf8Bytes } from '../../core/student-data/traces/readers/reader'
import type { OutlineNode } from '../../core/course/outline'
import { compilePlan } from '../../core/plan/compile'
import type { CompileInput } from '../../core/plan/ledger'
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
import { formOf } from '../courses/shown/shown'
import type { ShownForm } from '../courses/shown/body'
import { notFound, refuse } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { redactorFor } from '../student-data/redactor'
import { compileInput } from '../plans/compile'
import { findPlan, sidesOfPlan, type Plan } from '../plans/plans.queries'

/** A longer text comes whole or not at all: what takes it apart has other people wait. */
const partedAtMost = 256 * 1024
type Node = Pick<OutlineNode, 'lineage' | 'title' | 'body' | 'size'>
type Nodes = ReadonlyMap<string, OutlineNode>

/** How a text is got: as it stands, or rid of what is about students. */
type Load = (node: Node) => Promise<Uint8Array | null>
const asItStands =
  (db: Knex): Load =>
  ({ body }) =>
    body === null ? Promise.resolve(null) : loadBody(db, body)
async function piecesOfNode(load: Load, node: Node): Promise<Piece[]> {
  const { title, size } = node
  if (size > partedAtMost) throw refuse('text-too-long', { title })
  const bytes = await load(node)
  return bytes ? piecesOf(new TextDecoder().decode(bytes)) : []
}
/** The text of a thing with what is decided of it, but for the shell's: under one heading, with others below. */
async function sourceText(
  load: Load,
  node: Node,
  { heading, further }: Pick<TextRecipe, 'heading' | 'further'>,
  nodes: Nodes,
): Promise<string> {
  const all = await piecesOfNode(load, node)
  const first = heading ? underHeading(all, heading) : all
  if (!first) throw refuse('heading-gone', { title: node.title, heading: heading?.title ?? '' })
  const others: { title: string; pieces: Piece[] }[] = []
  for (const lineage of further) {
    const other = nodes.get(lineage)
    if (other) others.push({ title: other.title, pieces: await piecesOfNode(load, other) })
  }
  return others.length > 0 ? joinPages(first, others) : htmlOf(first)
}
/** The questions of a quiz that come, with all that stands around them as it was. */
async function questionsText(load: Load, node: Node, { body, takes }: QuestionChoice): Promise<string> {
  if (node.body !== body) throw refuse('questions-changed', { title: node.title })
  const bytes = await load(node)
  if (!bytes || bytes.length > readLimits.xmlBytes) throw refuse('text-too-long', { title: node.title })
  return chooseQuestions(node.title, xmlText(node.title, bytes), takes, readLimits)
}
async function comparedTexts(
  { ours: load, theirs }: { ours: Load; theirs: Load },
  row: PlaceRow & { source: OutlineNode; shell: OutlineNode },
  nodes: Nodes,
  base: Piece[] | null,
): Promise<Passage[]> {
  const { source, shell, text } = row
  const isMade = text !== null && (text.heading !== null || text.further.length > 0)
  const ours = isMade
    ? piecesOf(await sourceText(load, source, text, nodes))
    : await piecesOfNode(load, source)
  return passagesOf(ours, await piecesOfNode(theirs, shell), base)
}
const withBoth = (row: PlaceRow): row is PlaceRow & { source: OutlineNode; shell: OutlineNode } =>
  row.source !== null && row.shell !== null

/** A text that a run makes, and what of it is made to be read. */
export interface MadeText {
  readonly bytes: Uint8Array
  /** Null: it is a file, which is not shown but handed out. */
  readonly form: ShownForm | null
}
/**
 * The texts that a run of these rows makes, by the lineage of the source's thing.
 * @throws Refusal where a heading or a question is not there any more, or a text is too long.
 */
export async function composeTexts(
  db: Knex,
  plan: Plan,
  input: CompileInput,
  rows: readonly PlaceRow[],
): Promise<Map<string, MadeText>> {
  const { made: own } = input.document.added
  const wanted = rows.filter(row => writesText(row) && (row.text ?? own[row.source?.lineage ?? '']))
  const made = new Map<string, MadeText>()
  if (wanted.length === 0) return made
  const { merged } = input.brought
  const nodes = new Map(merged.nodes.map(node => [node.lineage, node]))
  const redactor = await redactorFor(db, plan, input)
  const loads = { ours: redactor.body, theirs: asItStands(db) }
  const page = (text: string): MadeText => ({ bytes: utf8Bytes(text), form: 'page' })
  for (const row of wanted) {
    const thing = own[row.source?.lineage ?? '']
    const text = thing && madeText(thing)
    if (row.source && text) made.set(row.source.lineage, page(text))
    if (!row.source || !row.text || row.text.isFrame) continue
    const { lineage } = row.source
    const { passages, questions } = row.text
    if (questions) {
      const chosen = await questionsText(redactor.body, row.source, questions)
      made.set(lineage, { bytes: utf8Bytes(chosen), form: 'questions' })
    } else if (!isComposed(row.text)) {
      const bytes = await redactor.body(row.source)
      const form = formOf({ kind: row.source.kind ?? 'page', mediaType: await redactor.mediaType(lineage) })
      if (bytes) made.set(lineage, { bytes, form })
    } else if (passages && withBoth(row))
      made.set(lineage, page(mergedHtml(await comparedTexts(loads, row, nodes, null), passages)))
    else made.set(lineage, page(await sourceText(redactor.body, row.source, row.text, nodes)))
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
  const { merged } = input.brought
  const nodes = new Map(merged.nodes.map(node => [node.lineage, node]))
  const may = await readableBy(db, person, plan, merged)
  const asked = [row?.source, ...(row?.text?.further ?? []).map(each => nodes.get(each))]
  if (!row?.source?.isHtml || !asked.every(node => node && may.inSources(node))) throw notFound('This text')
  const headings = headingsOf(await piecesOfNode(asItStands(db), row.source))
  const { shell, carries } = row
  if (!withBoth(row) || !shell?.isHtml || !shell.body || !carries?.text || !may.inShell(shell))
    return { headings, compared: null }
  const base = input.before.bases.find(each => each.source === lineage)
  const before = base && (base.wrote ?? base.parts.text)
  const bytes = before && /^[0-9a-f]{64}$/.test(before) ? await loadBody(db, before) : null
  const found = await comparedTexts(
    { ours: asItStands(db), theirs: asItStands(db) },
    row,
    nodes,
    bytes && piecesOf(bytes.toString('utf8')),
  )
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
