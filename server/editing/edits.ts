import type { Knex } from 'knex'
import { madeText } from '../../core/carry/added'
import { noDates, type ItemDates } from '../../core/course/dates'
import { kindWords } from '../../core/course/model'
import { subtree, type OutlineNode } from '../../core/course/outline'
import { counted } from '../../core/dates/words'
import { present } from '../../core/present'
import type { CourseEdit, EditDone, EditsReply } from '../../shared/api/edits'
import { isoInstant } from '../clock'
import { hashOf, storeBodies } from '../courses/bodies.queries'
import { mayEditCourse } from '../courses/access'
import { loadCategories } from '../courses/around.queries'
import { loadOutline } from '../courses/content.queries'
import { loadCourse, lockCourse } from '../courses/courses.queries'
import { shownBody } from '../courses/shown/shown'
import { contentOf } from '../courses/sections.queries'
import { countStudentData } from '../courses/student-data.queries'
import { inTransaction } from '../db/transaction'
import { newId } from '../db/rows'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { keepSearchable } from '../search/index.queries'
import { ownText } from '../search/plain-text'
import * as queries from './edits.queries'
import type { Former, Stands } from './edits.queries'

const listedAtMost = 50
/** The latest changes that were made in a course itself. */
export async function readEdits(db: Knex, courseId: string): Promise<EditsReply> {
  const edits = await queries.loadEdits(db, courseId, listedAtMost)
  return { edits: edits.map(edit => ({ ...edit, at: isoInstant(edit.at) })) }
}

const standsOf = ({ lineage, title, parent, position }: OutlineNode): Stands => ({
  lineage,
  title,
  parent,
  position,
})
const childrenOf = (nodes: readonly OutlineNode[], parent: string | null): OutlineNode[] => {
  const known = new Set(nodes.map(node => node.lineage))
  return nodes.filter(
    node => (node.parent !== null && known.has(node.parent) ? node.parent : null) === parent,
  )
}
/** The order of a parent's children with one put right after another (null: first). @throws Refusal where that other is not among them. */
function withPlaced(children: readonly OutlineNode[], lineage: string, after: string | null): string[] {
  const others = children.map(node => node.lineage).filter(each => each !== lineage)
  if (after !== null && !others.includes(after)) throw refuse('edit-place-gone')
  const at = after === null ? 0 : others.indexOf(after) + 1
  return others.toSpliced(at, 0, lineage)
}
/** What an edit does: names and places to be written, what it took the place of, and what it is called. */
interface Outcome {
  writes: Stands[]
  former: Stands[]
  words: string
}
function renaming(nodes: readonly OutlineNode[], titles: Readonly<Record<string, string>>): Outcome {
  const named = Object.entries(titles).map(([lineage, title]) => {
    const node = nodes.find(each => each.lineage === lineage)
    if (!node) throw notFound('What is to be renamed')
    if (node.fixed) throw refuse('edit-fixed', { title: node.title })
    return { node, title }
  })
  const [first] = named
  return {
    writes: named.map(({ node, title }) => ({ ...standsOf(node), title })),
    former: named.map(({ node }) => standsOf(node)),
    words:
      named.length === 1 && first
        ? `renamed “${first.node.title}” to “${first.title}”`
        : `renamed ${counted(named.length, 'thing')}`,
  }
}
function moving(
  nodes: readonly OutlineNode[],
  { lineage, parent, after }: Extract<CourseEdit, { does: 'move' }>,
): Outcome {
  const node = nodes.find(each => each.lineage === lineage)
  if (!node) throw notFound('What is to be moved')
  if (node.fixed) throw refuse('edit-fixed', { title: node.title })
  const unit = parent === null ? null : nodes.find(each => each.lineage === parent)
  if (parent !== null && unit?.type !== 'unit') throw refuse('edit-place-gone')
  if (parent !== null && subtree(nodes, lineage).includes(parent)) throw refuse('edit-into-itself')
  const order = withPlaced(childrenOf(nodes, parent), lineage, after)
  const placed = new Map(nodes.map(each => [each.lineage, each]))
  const writes = order.map((each, position) => ({ ...standsOf(present(placed.get(each))), parent, position }))
  return {
    writes,
    former: order.map(each => standsOf(present(placed.get(each)))),
    words: `moved “${node.title}”${unit ? ` in “${unit.title}”` : ''}`,
  }
}

/** Changes a course itself: names, places, or something new in it. It can be taken back as long as nothing else was changed since. */
export async function editCourse(
  db: Knex,
  person: Person,
  courseId: string,
  edit: CourseEdit,
): Promise<EditDone> {
  return inTransaction(db, async trx => {
    await checkEditable(trx, person, courseId)
    const nodes = await loadOutline(trx, courseId)
    if (edit.does === 'add') return addThing(trx, person, courseId, nodes, edit)
    const { writes, former, words } =
      edit.does === 'rename' ? renaming(nodes, edit.titles) : moving(nodes, edit)
    await queries.putStands(trx, courseId, writes)
    const id = await keepEdit(trx, person, courseId, words, { stood: former, added: null })
    return { id, lineage: edit.does === 'move' ? edit.lineage : null }
  })
}
async function checkEditable(trx: Knex, person: Person, courseId: string): Promise<void> {
  await lockCourse(trx, courseId)
  // Asked once more now that nobody else can change it.
  if (!(await mayEditCourse(trx, person, courseId))) throw refuse('may-not-edit')
  if ((await contentOf(trx, courseId)) !== courseId) throw refuse('into-joined-section')
  const { origin } = await loadCourse(trx, courseId)
  if (['snapshot', 'version', 'file'].includes(origin)) throw refuse('into-snapshot')
}
/** Keeps what a change took the place of, and says in the log what it was. */
export async function keepEdit(
  trx: Knex,
  person: Person,
  courseId: string,
  words: string,
  former: Former,
): Promise<string> {
  const id = await queries.insertEdit(trx, { courseId, personId: person.id, words, former })
  await keepSearchable(trx, courseId, ownText)
  await writeLog(trx, { action: 'course.edited', personId: person.id, courseId, detail: { words } })
  return id
}
async function addThing(
  trx: Knex,
  person: Person,
  courseId: string,
  nodes: readonly OutlineNode[],
  { thing, parent, category, opens, due }: Extract<CourseEdit, { does: 'add' }>,
): Promise<EditDone> {
  const unit = parent === null ? null : nodes.find(each => each.lineage === parent)
  if (parent !== null && unit?.type !== 'unit') throw refuse('edit-place-gone')
  const categories = await loadCategories(trx, courseId)
  if (category !== null && !categories.some(each => each.lineage === category))
    throw refuse('edit-category-gone')
  const lineage = newId()
  const text = madeText(thing)
  const bytes = text === null ? null : Buffer.from(text)
  if (bytes) {
    await storeBodies(trx, [bytes])
    const source = { hash: hashOf(bytes), size: bytes.length, load: () => Promise.resolve(bytes) }
    await shownBody(trx, source, 'page')
  }
  const position = Math.max(-1, ...childrenOf(nodes, parent).map(node => node.position)) + 1
  const dates: ItemDates = { ...noDates, opens, due }
  await queries.insertThing(
    trx,
    courseId,
    { lineage, parent, position },
    { thing, body: bytes && hashOf(bytes), category, dates },
  )
  const what = thing.kind === null ? 'unit' : kindWords(thing.kind)[0]
  const words = `added the ${what} “${thing.title}”`
  return { id: await keepEdit(trx, person, courseId, words, { stood: [], added: lineage }), lineage }
}

/** Takes the latest change of a course back. @throws Refusal where another came after it, or students have worked on what it added. */
export async function undoEdit(
  db: Knex,
  person: Person,
  { id: courseId, edit: id }: { id: string; edit: string },
): Promise<EditsReply> {
  return inTransaction(db, async trx => {
    await checkEditable(trx, person, courseId)
    const [latest] = await queries.loadEdits(trx, courseId, 1)
    const edit = await queries.findEdit(trx, courseId, id)
    if (!edit || latest?.id !== id || (await queries.runSince(trx, courseId, { id, at: edit.at })))
      throw refuse('edit-overtaken')
    const { stood, added, fields } = edit.former
    if (added !== null) {
      const counts = await countStudentData(trx, courseId, [added])
      const { students: _, ...work } = counts
      if (Object.values(work).some(count => count > 0)) throw refuse('edit-worked-on')
      const nodes = await loadOutline(trx, courseId)
      if (nodes.some(node => node.parent === added)) throw refuse('edit-overtaken')
      await queries.removeThing(trx, courseId, added)
    }
    await queries.putStands(trx, courseId, stood)
    if (fields) await queries.putFields(trx, courseId, fields)
    await queries.markUndone(trx, id)
    await keepSearchable(trx, courseId, ownText)
    await writeLog(trx, {
      action: 'course.edit-undone',
      personId: person.id,
      courseId,
      detail: { words: edit.words },
    })
    return readEdits(trx, courseId)
  })
}
