import { createHash } from 'node:crypto'
import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import { allStudentData, studentDataNames } from '../../core/student-data/student-data'
import { present } from '../../core/present'
import type { Since, UndoReply, UndoRequest } from '../../shared/api/undo'
import { isoInstant } from '../clock'
import { accessToCourses } from '../courses/access'
import { lockCourse } from '../courses/courses.queries'
import { courseLines, lineIn } from '../courses/lines'
import { contentOf, contentsOf, copyShellDates, sectionsOf } from '../courses/sections.queries'
import { inTransaction } from '../db/transaction'
import { editsSince, markStanding, markUndone } from '../editing/edits.queries'
import { notFound, refuse, Refusal } from '../errors/refusal'
import { addJob } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import {
  dropHeld,
  findPlan,
  lockPlan,
  markAsRun,
  reopenPlan,
  moveDrafts,
  repairPlan,
  type Plan,
} from '../plans/plans.queries'
import { insertPlace } from '../plans/start'
import { clearAtRun, daysKept } from '../student-data/clearing'
import * as clearing from '../student-data/clearing.queries'
import { runsUnderWay } from '../run-facts/run-jobs.queries'
import { findRun, keepSnapshot, runsInto, setBefore, type Run } from '../run-facts/runs.queries'
import { makeSnapshot } from './snapshots.queries'
import { saidOfCourse, findState, keepState, putState } from './states.queries'
import * as queries from './undo.queries'

/** What going back would do, looked at within one transaction. */
interface Looked {
  run: Run
  plan: Plan
  does: 'undo' | 'redo'
  /** The last time it was undone or put back. */
  last: queries.Undo | null
  /** The state that it goes to. */
  state: { id: string; copyId: string | null; sections: string[]; termId: string } | null
  /** Sections that show the course's content now, and those that are put back with it. */
  sections: { shown: string[]; back: string[] }
  since: Since
  barred: Refusal | null
  /** What was run into the course since. */
  later: Run | null
  /** What the run cleared and what is still kept of it. */
  clearings: clearing.Clearing[]
  fingerprint: string
}
const rowsOf = ({ counts }: clearing.Clearing): number =>
  studentDataNames.reduce((sum, name) => sum + (counts[name] ?? 0), 0)

async function look(trx: Knex, runId: string): Promise<Looked> {
  const run = await findRun(trx, runId)
  const plan = run && (await findPlan(trx, run.planId))
  if (!run || !plan) throw notFound('This run')
  const does = run.undoneAt === null ? 'undo' : 'redo'
  const [last = null] = await queries.undosOf(trx, runId)
  const stateId = does === 'undo' ? run.beforeId : (last?.beforeId ?? null)
  const found = stateId === null ? null : await findState(trx, stateId)
  const state = stateId !== null && found ? { id: stateId, ...found } : null
  const since = state ? await sinceIn(trx, run, state.copyId, last?.id ?? run.id, does) : nothingSince
  const clearings = (await clearing.clearingsOf(trx, run.targetId)).filter(each => each.runId === runId)
  const later = await laterRun(trx, { run, does, last })
  const sections = await sectionsNow(trx, run.targetId, does, state?.sections ?? [])
  const barred = await whyBarred(trx, { run, plan, does, last, later, state, since, sections })
  const facts = [does, state?.id, since, run.undoneAt, plan.revision, barred?.code, sections]
  const fingerprint = createHash('sha256').update(JSON.stringify(facts)).digest('hex')
  return { run, plan, does, last, later, state, sections, since, barred, clearings, fingerprint }
}
const everyOf = ({ shown, back }: Looked['sections']): string[] => [...new Set([...shown, ...back])].sort()
const nothingSince: Since = { edits: [], work: [], students: [], mixed: [] }

/** What was done in the course since, and what of it would go with the items that go. */
async function sinceIn(
  trx: Knex,
  run: Run,
  goesTo: string | null,
  afterId: string,
  does: Looked['does'],
): Promise<Since> {
  const course = run.targetId
  const edits = (await editsSince(trx, course, afterId)).map(edit => ({ ...edit, at: isoInstant(edit.at) }))
  const isInPlace = run.snapshotId !== null && does === 'undo'
  const held = (await clearing.heldRows(trx, course, 'everyone')).filter(row => row.isStudent)
  if (isInPlace) return { ...(await sinceInPlace(trx, course, present(run.snapshotId), held)), edits }
  const goes = await queries.onlyIn(trx, course, goesTo)
  const titles = new Map(goes.map(({ lineage, title }) => [lineage, title]))
  const work = held.filter(({ item }) => item !== null && titles.has(item))
  const names = await queries.enrolledNames(trx, [...new Set(work.map(({ enrolment }) => enrolment))])
  return {
    edits,
    work: goes.flatMap(({ lineage, title }) => {
      const rows = work.filter(({ item }) => item === lineage)
      return rows.length > 0 ? [{ lineage, title, kinds: byKind(rows) }] : []
    }),
    students: [...new Set(names.values())].sort(),
    mixed: [],
  }
}
function byKind(rows: readonly clearing.HeldRows[]): Since['work'][number]['kinds'] {
  return studentDataNames.flatMap(kind => {
    const count = rows.filter(row => row.kind === kind).reduce((sum, row) => sum + row.rows, 0)
    return count > 0 ? [{ kind, rows: count }] : []
  })
}
/** In place nothing goes with its item; but what last term's people did more since stands among their old work. */
async function sinceInPlace(
  trx: Knex,
  course: string,
  snapshot: string,
  held: readonly clearing.HeldRows[],
): Promise<Omit<Since, 'edits'>> {
  const keyOf = (row: clearing.HeldRows, enrolment: string): string => `${row.kind} ${row.item} ${enrolment}`
  const before = new Map(
    (await clearing.heldRows(trx, snapshot, 'everyone')).map(row => [keyOf(row, row.enrolment), row.rows]),
  )
  const same = await queries.sameInOther(trx, course, snapshot)
  const more = held.filter(row => {
    const other = same.get(row.enrolment)
    return other !== undefined && row.rows > (before.get(keyOf(row, other)) ?? 0)
  })
  const names = await queries.enrolledNames(trx, [...new Set(more.map(({ enrolment }) => enrolment))])
  return { work: [], students: [], mixed: [...new Set(names.values())].sort() }
}
/** A run into the same course since: it stands on what this one left, so it is undone first. */
async function laterRun(
  trx: Knex,
  { run, does, last }: Pick<Looked, 'run' | 'does' | 'last'>,
): Promise<Run | null> {
  const [latest] = await runsInto(trx, [run.targetId])
  if (!latest || latest.id === run.id) return null
  return does === 'undo' || latest.id > present(last).id ? latest : null
}
/** A section that was unlinked since goes its own way: undoing leaves it alone. Putting back links again those that the run had linked. */
async function sectionsNow(
  trx: Knex,
  courseId: string,
  does: Looked['does'],
  known: readonly string[],
): Promise<Looked['sections']> {
  const shown = await sectionsOf(trx, courseId)
  const contents = await contentsOf(trx, known)
  const isFree = (id: string): boolean => does === 'redo' && contents.get(id) === id
  return { shown, back: known.filter(id => shown.includes(id) || isFree(id)) }
}
/** Whether something came into a section, or was changed there, since `id`. */
async function isUsedSince(trx: Knex, sectionIds: readonly string[], id: string): Promise<boolean> {
  if ((await runsInto(trx, sectionIds)).some(run => run.id > id)) return true
  for (const section of sectionIds) if ((await editsSince(trx, section, id)).length > 0) return true
  return false
}
async function whyBarred(
  trx: Knex,
  looked: Omit<Looked, 'barred' | 'clearings' | 'fingerprint'>,
): Promise<Refusal | null> {
  const { run, plan, does, last, later, state, since, sections } = looked
  if (!state) return refuse('undo-not-kept')
  if ((await runsUnderWay(trx, [run.targetId])).length > 0) return refuse('undo-under-way')
  if (later) return refuse('undo-later-run')
  if ((await contentOf(trx, run.targetId)) !== run.targetId) return refuse('undo-linked')
  if (does === 'redo' && last && (await isUsedSince(trx, sections.back, last.id)))
    return refuse('undo-section-used')
  if (does === 'redo' && plan.state !== 'draft') return refuse('undo-later-run')
  if (since.mixed.length > 0) return refuse('undo-mixed-work', { students: since.mixed })
  return null
}

/** Everything that a person must know before a run is undone, or put back. */
export async function readUndo(db: Knex, person: Person, runId: string): Promise<UndoReply> {
  return inTransaction(db, async trx => {
    const looked = await look(trx, runId)
    const { run, does, later, state, sections, since, barred, clearings, fingerprint } = looked
    const lineOf = lineIn(await courseLines(trx, person, [run.targetId, ...sections.shown]))
    const kept = clearings.filter(each => each.state === 'kept')
    const history = await queries.undosOf(trx, runId)
    return {
      does,
      barred: barred && { title: barred.told.title, detail: barred.told.detail ?? '' },
      later: later && { id: later.id, by: later.by, at: isoInstant(later.finishedAt) },
      mayRun: await mayUndo(trx, person, run, sections),
      course: lineOf(run.targetId),
      sections: sections.shown.map(id => codeText(lineOf(id))),
      planId: run.planId,
      now: await queries.heldIn(trx, run.targetId),
      then: await queries.heldIn(trx, state?.copyId ?? null),
      since,
      cleared:
        clearings.length > kept.length && does === 'undo'
          ? null
          : kept.reduce((sum, each) => sum + rowsOf(each), 0),
      days: await daysKept(trx),
      fingerprint,
      history: history.map(({ kind, by, at }) => ({ kind, by, at: isoInstant(at) })),
    }
  })
}
async function mayUndo(trx: Knex, person: Person, run: Run, sections: Looked['sections']): Promise<boolean> {
  const written = [run.targetId, ...everyOf(sections)]
  const access = await accessToCourses(trx, person, written)
  return written.every(id => access.get(id)?.run)
}

/** Undoes a run, or puts one back that was undone: all of it in one transaction, or nothing. @throws Refusal */
export async function undoRun(db: Knex, person: Person, runId: string, wish: UndoRequest): Promise<void> {
  await inTransaction(db, async trx => {
    const run = await findRun(trx, runId)
    if (!run) throw notFound('This run')
    await lockPlan(trx, run.planId)
    await lockCourse(trx, run.targetId)
    const looked = await look(trx, runId)
    const { since, barred, sections } = looked
    if (barred) throw barred
    for (const section of everyOf(sections)) await lockCourse(trx, section)
    if (!(await mayUndo(trx, person, run, sections)))
      throw refuse('may-not-run-into', { courses: 'this course' })
    if (looked.fingerprint !== wish.fingerprint) throw refuse('changed-since-consent')
    if (since.work.length > 0 && !wish.keepAside)
      throw refuse('undo-students-work', { items: since.work.length, students: since.students })
    if (looked.does === 'undo') await undo(trx, person, looked)
    else await redo(trx, person, looked)
    await addJob(trx, { kind: 'index', subject: run.targetId, personId: null, payload: {} })
  })
}
/** Moves what students did on items that go aside, named and kept for as long as anything that is cleared. */
async function keepWorkAside(trx: Knex, person: Person, { run, since }: Looked): Promise<string | null> {
  if (since.work.length === 0) return null
  const id = await clearing.insertClearing(trx, {
    courseId: run.targetId,
    runId: null,
    personId: person.id,
    days: await daysKept(trx),
  })
  const where = { clearingId: id, courseId: run.targetId }
  const lineages = since.work.map(({ lineage }) => lineage)
  const counts: Record<string, number> = {}
  for (const kind of allStudentData) {
    const moved = await clearing.moveItemsAside(trx, where, kind, lineages)
    if (moved > 0) counts[kind.name] = moved
  }
  await clearing.setCounts(trx, id, counts)
  return id
}
async function undo(trx: Knex, person: Person, looked: Looked): Promise<void> {
  const { run, plan, since, clearings, sections } = looked
  const state = present(looked.state)
  const beforeId = await keepState(trx, run.targetId, everyOf(sections))
  const clearingId = await keepWorkAside(trx, person, looked)
  // The place that it waits for again has the new term's meetings: those of the course as it is now.
  const place = run.snapshotId === null ? null : await placeAgain(trx, person, run)
  if (run.snapshotId !== null) {
    await queries.takeOverFromSnapshot(trx, run.targetId, run.snapshotId, studentDataNames)
    await moveDrafts(trx, run.snapshotId, run.targetId)
  }
  await putState(trx, state.id, { intoItsTerm: run.snapshotId !== null, sectionIds: sections.back })
  // Linked since the run: it shows what the course holds now.
  for (const section of sections.shown)
    if (!sections.back.includes(section)) await copyShellDates(trx, section, run.targetId)
  for (const each of clearings) if (each.state === 'kept') await restore(trx, person, run.targetId, each.id)
  await markUndone(trx, ...since.edits.map(({ id }) => id))
  await queries.insertUndo(trx, {
    runId: run.id,
    personId: person.id,
    kind: 'undo',
    beforeId,
    clearingId,
    told: since,
  })
  await queries.markRunUndone(trx, run.id, true)
  if (place !== null)
    await repairPlan(trx, plan.id, { sourceId: run.targetId, targetId: place, personId: person.id })
  await reopenPlan(trx, plan.id)
  const work = since.work.flatMap(({ kinds }) => kinds).reduce((sum, { rows }) => sum + rows, 0)
  const detail = { edits: since.edits.length, work }
  await writeLog(trx, { action: 'plan.undone', ...whereOf(person, run), detail })
}
const placeAgain = async (trx: Knex, person: Person, run: Run): Promise<string> =>
  insertPlace(trx, person, run.targetId, (await saidOfCourse(trx, run.targetId)).term_id)
async function restore(trx: Knex, person: Person, courseId: string, clearingId: string): Promise<void> {
  await clearing.putBack(trx, clearingId, courseId)
  await clearing.dropKept(trx, clearingId)
  await clearing.endClearing(trx, clearingId, 'restored', person.id)
}
async function redo(trx: Knex, person: Person, looked: Looked): Promise<void> {
  const { run, since, sections } = looked
  // What was changed in the plan since it was undone is no part of this run: it is kept as it was run.
  const plan = { ...looked.plan, document: run.document }
  const [state, last] = [present(looked.state), present(looked.last)]
  const isInPlace = run.snapshotId !== null
  const kept = isInPlace
    ? await snapshotAgain(trx, person, run, plan)
    : await keepState(trx, run.targetId, everyOf(sections))
  const clearingId = await keepWorkAside(trx, person, looked)
  await putState(trx, state.id, { intoItsTerm: isInPlace, sectionIds: sections.back })
  await clearAtRun(trx, { plan, runId: run.id, person })
  if (last.clearingId !== null) {
    const aside = (await clearing.clearingsOf(trx, run.targetId)).find(({ id }) => id === last.clearingId)
    if (aside?.state === 'kept') await restore(trx, person, run.targetId, aside.id)
  }
  await markUndone(trx, ...since.edits.map(({ id }) => id))
  await markStanding(
    trx,
    last.told.edits.map(({ id }) => id),
  )
  await queries.insertUndo(trx, {
    runId: run.id,
    personId: person.id,
    kind: 'redo',
    beforeId: kept,
    clearingId,
    told: since,
  })
  await setBefore(trx, run.id, kept)
  await repairPlan(trx, plan.id, { document: run.document, personId: person.id })
  await queries.markRunUndone(trx, run.id, false)
  await markAsRun(trx, plan.id)
  await writeLog(trx, { action: 'plan.redone', ...whereOf(person, run) })
}
/** The course is put into a snapshot once more, with its students as they are now; the plan rolls from that again. */
async function snapshotAgain(trx: Knex, person: Person, run: Run, plan: Plan): Promise<string> {
  const course = await saidOfCourse(trx, run.targetId)
  const snapshot = await makeSnapshot(trx, run.targetId)
  const kept = await keepState(trx, run.targetId, [], { copy: snapshot, course })
  await keepSnapshot(trx, run.id, snapshot, kept)
  await repairPlan(trx, plan.id, { sourceId: snapshot, targetId: run.targetId, personId: person.id })
  await moveDrafts(trx, run.targetId, snapshot)
  await dropHeld(trx, plan.targetId)
  return kept
}
const whereOf = (person: Person, run: Run) => ({
  personId: person.id,
  courseId: run.targetId,
  planId: run.planId,
  runId: run.id,
})
