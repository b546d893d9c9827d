import type { Knex } from 'knex'
import { compileTerm } from '../../core/calendar/term'
import { madeText } from '../../core/carry/added'
import { noDates, type ItemDates } from '../../core/course/dates'
import { kindWords } from '../../core/course/model'
import { subtree, type OutlineNode } from '../../core/course/outline'
import { yearsOf } from '../../core/dates/words'
import {
  changeFault,
  changesOf,
  isOfDates,
  joinedChanges,
  undoneChanges,
  type Parts,
  type Thing,
  type ThingChange,
} from '../../core/editing/parts'
import { editText, type EditNames } from '../../core/editing/words'
import { present } from '../../core/present'
import { studentDataNames } from '../../core/student-data/student-data'
import type { CourseEdit, EditDone, EditsReply } from '../../shared/api/edits'
import { loadCalendar } from '../calendars/terms.queries'
import { isoInstant } from '../clock'
import { hashOf, storeBodies } from '../courses/bodies.queries'
import { mayEditCourse } from '../courses/access'
import { loadCategories } from '../courses/around.queries'
import { loadOutline } from '../courses/content.queries'
import { loadCourse, lockCourse } from '../courses/courses.queries'
import { shownBody } from '../courses/shown/shown'
import { contentOf, sectionsOf } from '../courses/sections.queries'
import { countStudentData, itemsWorkedOn } from '../courses/student-data.queries'
import { inTransaction } from '../db/transaction'
import { newId } from '../db/rows'
import { notFound, refuse } from '../errors/refusal'
import { rewordLog, writeLog, writeLogLine } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { keepSearchable } from '../search/index.queries'
import { ownText } from '../search/plain-text'
import * as queries from './edits.queries'
import type { Former, Stands } from './edits.queries'
import { loadThings, putParts } from './things.queries'

const listedAtMost = 50
/** The latest changes that were made in a course itself. */
export async function readEdits(db: Knex, courseId: string): Promise<EditsReply> {
  const edits = await queries.loadEdits(db, courseId, listedAtMost)
  return { edits: edits.map(edit => ({ ...edit, at: isoInstant(edit.at) })), overtaken: 0 }
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

/** Changes a course itself: parts of what it holds, places, or something new in it. Each change can be taken back by itself. */
export async function editCourse(
  db: Knex,
  person: Person,
  courseId: string,
  edit: CourseEdit,
): Promise<EditDone> {
  return inTransaction(db, async trx => {
    const place = await checkEditable(trx, person, courseId)
    if (edit.does === 'rename') {
      const things = Object.fromEntries(Object.entries(edit.titles).map(([key, title]) => [key, { title }]))
      return changeParts(trx, person, place, things)
    }
    if (edit.does === 'change') return changeParts(trx, person, place, edit.things)
    if (place.contentId !== courseId) throw refuse('into-joined-section')
    const nodes = await loadOutline(trx, courseId)
    if (edit.does === 'add') return addThing(trx, person, courseId, nodes, edit)
    const { writes, former, words } = moving(nodes, edit)
    await queries.putStands(trx, courseId, writes)
    const id = await keepEdit(trx, person, courseId, words, { stood: former, added: null })
    return { id, lineage: edit.lineage }
  })
}
/** A course, and the one whose content it shows: its own, unless it is a section of another. */
interface Place {
  courseId: string
  contentId: string
}
async function checkEditable(trx: Knex, person: Person, courseId: string): Promise<Place> {
  const contentId = await contentOf(trx, courseId)
  for (const id of [...new Set([courseId, contentId])].sort()) await lockCourse(trx, id)
  // Asked once more now that nobody else can change it.
  if (!(await mayEditCourse(trx, person, courseId))) throw refuse('may-not-edit')
  const { origin } = await loadCourse(trx, courseId)
  if (['snapshot', 'version', 'file'].includes(origin)) throw refuse('into-snapshot')
  return { courseId, contentId }
}

/** Changes parts of units and items. What goes takes along what stands in it; what comes back, what it stands in. @throws Refusal */
async function changeParts(
  trx: Knex,
  person: Person,
  place: Place,
  asked: Readonly<Record<string, Parts>>,
): Promise<EditDone> {
  const wanted = await withWhatGoesAlong(trx, place, asked)
  const things = await loadThings(trx, place, Object.keys(wanted))
  if (Object.keys(asked).some(lineage => !things.has(lineage))) throw notFound('What is to be changed')
  const changes = changesOf(things, wanted)
  if (changes.length === 0) return { id: null, lineage: null }
  if (place.contentId !== place.courseId && !changes.every(isOfDates)) throw refuse('edit-of-content')
  const known = await knownOf(trx, place)
  for (const change of changes) {
    const fault = changeFault(change, things, known)
    if (!fault) continue
    const title = things.get(change.lineage)?.parts.title ?? ''
    throw refuse('edit-refused', {
      title,
      message: fault.message,
      field: `things.${change.lineage}.${fault.part}`,
    })
  }
  await checkNobodysWork(trx, place, changes, things)
  await putParts(trx, place, things, changes)
  return { id: await keepChanges(trx, person, place, { changes, things, names: known }), lineage: null }
}
async function withWhatGoesAlong(
  trx: Knex,
  { contentId }: Place,
  asked: Readonly<Record<string, Parts>>,
): Promise<Record<string, Parts>> {
  const states = Object.entries(asked).filter(([, { state }]) => state !== undefined)
  if (states.length === 0) return { ...asked }
  const nodes = await loadOutline(trx, contentId, new Set(), true)
  const byKey = new Map(nodes.map(node => [node.lineage, node]))
  const along: Record<string, Parts> = {}
  for (const [lineage, { state }] of states) {
    const node = byKey.get(lineage)
    if (!node) continue
    if (state === 'deleted') for (const below of subtree(nodes, lineage)) along[below] = { state: 'deleted' }
    else if (node.state === 'deleted')
      for (let above = byKey.get(node.parent ?? ''); above; above = byKey.get(above.parent ?? ''))
        if (above.state === 'deleted') along[above.lineage] = { state: 'visible' }
  }
  return { ...along, ...asked }
}
/** What a change is measured by: the term, and what can be named in it. */
async function knownOf(trx: Knex, { courseId, contentId }: Place) {
  const term = compileTerm(await loadCalendar(trx, courseId))
  const categories = new Map((await loadCategories(trx, contentId)).map(each => [each.lineage, each.title]))
  return {
    term,
    categories: new Set(categories.keys()),
    periods: new Set(term.gradingPeriods.map(({ name }) => name)),
    years: yearsOf(term),
    categoryTitle: (lineage: string): string => categories.get(lineage) ?? '',
  }
}
/** What students have worked on is hidden, never removed. */
async function checkNobodysWork(
  trx: Knex,
  { contentId }: Place,
  changes: readonly ThingChange[],
  things: ReadonlyMap<string, Thing>,
): Promise<void> {
  const goes = changes.filter(({ after }) => after.state === 'deleted').map(({ lineage }) => lineage)
  if (goes.length === 0) return
  for (const courseId of [contentId, ...(await sectionsOf(trx, contentId))]) {
    const on = await itemsWorkedOn(trx, courseId)
    const [worked] = goes.filter(lineage => on.has(lineage))
    if (worked === undefined) continue
    const counts = await countStudentData(trx, courseId, [worked])
    const records = studentDataNames.reduce((sum, name) => sum + counts[name], 0)
    throw refuse('edit-has-work', { title: things.get(worked)?.parts.title ?? '', records })
  }
}
/** Changes of one row that follow one another at once are one edit, and one line of the log: milliseconds. */
const atOnce = 2000
/** When a key was made, in milliseconds: UUIDv7 begins with that. By it time goes on where the clock of the application stands still. */
const madeAt = (id: string): number => parseInt(id.replaceAll('-', '').slice(0, 12), 16)
async function keepChanges(
  trx: Knex,
  person: Person,
  { courseId }: Place,
  {
    changes,
    things,
    names,
  }: { changes: ThingChange[]; things: ReadonlyMap<string, Thing>; names: EditNames },
): Promise<string> {
  const latest = await queries.latestEdit(trx, courseId)
  const isAtOnce =
    latest !== null &&
    latest.personId === person.id &&
    changes.length === 1 &&
    Date.now() - madeAt(latest.id) < atOnce
  const joined = isAtOnce && latest.former.changes ? joinedChanges(latest.former.changes, changes) : null
  const isSearched = changes.some(({ after }) => 'title' in after || 'state' in after)
  if (latest && joined && joined.length > 0) {
    const words = editText(joined, things, names)
    await queries.widenEdit(trx, latest.id, words, { ...latest.former, changes: joined })
    if (latest.former.log) await rewordLog(trx, latest.former.log, { words })
    if (isSearched) await keepSearchable(trx, courseId, ownText)
    return latest.id
  }
  return keepEdit(
    trx,
    person,
    courseId,
    editText(changes, things, names),
    { stood: [], added: null, changes },
    isSearched,
  )
}
/** Keeps what a change took the place of, and says in the log what it was. `isSearched`: titles, texts or what there is changed. */
export async function keepEdit(
  trx: Knex,
  person: Person,
  courseId: string,
  words: string,
  former: Former,
  isSearched = true,
): Promise<string> {
  const log = await writeLogLine(trx, {
    action: 'course.edited',
    personId: person.id,
    courseId,
    detail: { words },
  })
  const id = await queries.insertEdit(trx, {
    courseId,
    personId: person.id,
    words,
    former: { ...former, log },
  })
  if (isSearched) await keepSearchable(trx, courseId, ownText)
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
  // Students see nothing new by accident: one says when. On a shelf nobody looks.
  const { origin } = await loadCourse(trx, courseId)
  const state = origin === 'template' ? 'visible' : 'hidden'
  await queries.insertThing(
    trx,
    courseId,
    { lineage, parent, position },
    { thing, state, body: bytes && hashOf(bytes), category, dates },
  )
  const what = thing.kind === null ? 'unit' : kindWords(thing.kind)[0]
  const words = `added the ${what} “${thing.title}”`
  return { id: await keepEdit(trx, person, courseId, words, { stood: [], added: lineage }), lineage }
}

/**
 * Takes one change of a course back, whichever it is: the parts that it changed, unless they were changed since; a place, unless something
 * was moved there since. @throws Refusal where nothing of it is left to take back, or students have worked on what it added.
 */
export async function undoEdit(
  db: Knex,
  person: Person,
  { id: courseId, edit: id }: { id: string; edit: string },
): Promise<EditsReply> {
  return inTransaction(db, async trx => {
    const place = await checkEditable(trx, person, courseId)
    const edit = await queries.findEdit(trx, courseId, id)
    if (!edit) throw refuse('edit-overtaken')
    const { stood, added, fields, changes } = edit.former
    if (stood.length > 0 || added !== null || fields) await checkNotOvertaken(trx, courseId, { ...edit, id })
    if (added !== null) await takeOut(trx, courseId, added)
    await queries.putStands(trx, courseId, stood)
    if (fields) await queries.putFields(trx, courseId, fields)
    const overtaken = changes ? await putBack(trx, place, changes) : 0
    await queries.markUndone(trx, id)
    await keepSearchable(trx, courseId, ownText)
    await writeLog(trx, {
      action: 'course.edit-undone',
      personId: person.id,
      courseId,
      detail: { words: edit.words },
    })
    return { ...(await readEdits(trx, courseId)), overtaken }
  })
}
/** Places depend on one another: what was moved or added since among the same things, or run, stands in the way. */
async function checkNotOvertaken(
  trx: Knex,
  courseId: string,
  { id, at, former }: { id: string; at: string; former: Former },
): Promise<void> {
  if (await queries.runSince(trx, courseId, { id, at })) throw refuse('edit-overtaken')
  const own = new Set([
    ...former.stood.map(({ lineage }) => lineage),
    ...(former.added ? [former.added] : []),
  ])
  const fields = new Set(former.fields?.map(({ lineage }) => lineage))
  for (const { stood, fields: others = [], changes = [] } of await queries.editsAfter(trx, courseId, id))
    if (
      stood.some(({ lineage }) => own.has(lineage)) ||
      [...others, ...changes].some(({ lineage }) => fields.has(lineage) || lineage === former.added)
    )
      throw refuse('edit-overtaken')
}
async function takeOut(trx: Knex, courseId: string, lineage: string): Promise<void> {
  const counts = await countStudentData(trx, courseId, [lineage])
  const { students: _, ...work } = counts
  if (Object.values(work).some(count => count > 0)) throw refuse('edit-worked-on')
  const nodes = await loadOutline(trx, courseId)
  if (nodes.some(node => node.parent === lineage)) throw refuse('edit-overtaken')
  await queries.removeThing(trx, courseId, lineage)
}
/** Puts parts back as they were; answers how many were changed since, and stay. @throws Refusal where all of them were. */
async function putBack(trx: Knex, place: Place, changes: readonly ThingChange[]): Promise<number> {
  const things = await loadThings(
    trx,
    place,
    changes.map(({ lineage }) => lineage),
  )
  const { back, overtaken } = undoneChanges(changes, things)
  if (back.length === 0) throw refuse('edit-overtaken')
  await checkNobodysWork(trx, place, back, things)
  await putParts(trx, place, things, back)
  return overtaken
}
