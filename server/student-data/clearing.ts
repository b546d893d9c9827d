import type { Knex } from 'knex'
import { z } from 'zod'
import {
  keptDays,
  plannedClearing,
  type ClearedCounts,
  type HeldRow,
  type PlannedClearing,
} from '../../core/student-data/clearing'
import { allStudentData, studentDataNames } from '../../core/student-data/student-data'
import type { ClearingReply, ClearingsReply, KeepRules, SweepReply } from '../../shared/api/clearing'
import { isoInstant } from '../clock'
import { lockCourse } from '../courses/courses.queries'
import { courseLines, lineIn } from '../courses/lines'
import { loadRules, saveRules } from '../courses/office-rules.queries'
import { inTransaction } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { findPlan, writtenCourse, type Plan } from '../plans/plans.queries'
import * as queries from './clearing.queries'

const rulesSchema = z.object({ days: z.int().min(keptDays.least).max(keptDays.most) })
/** How many days what was cleared is kept aside. */
export async function daysKept(db: Knex): Promise<number> {
  const rules = await loadRules(db, 'clearing')
  return rulesSchema.safeParse(rules?.value).data?.days ?? keptDays.usual
}
export async function readKeepRules(db: Knex): Promise<KeepRules> {
  const rules = await loadRules(db, 'clearing')
  return {
    revision: rules?.revision ?? 0,
    days: await daysKept(db),
    by: rules && { name: rules.by, at: isoInstant(rules.at) },
  }
}
export async function saveKeepRules(
  db: Knex,
  person: Person,
  revision: number,
  { days }: { days: number },
): Promise<KeepRules> {
  if (!(await saveRules(db, 'clearing', revision, { days }, person.id))) throw refuse('rules-changed')
  await writeLog(db, { action: 'clearing.days', personId: person.id, detail: { days } })
  return readKeepRules(db)
}

/** Of a course that is rolled in place all is last term's; in a shell only what hangs off people whom the registrar does not list. */
const whoseIn = ({ mode }: Pick<Plan, 'mode'>): queries.Whose =>
  mode === 'in-place' ? 'everyone' : 'unlisted'
export interface Clearable {
  readonly held: HeldRow[]
  readonly standing: queries.Standing[]
  readonly planned: PlannedClearing
}
/** What a plan clears in the course that it writes, as it stands now. */
export async function clearableIn(db: Knex, plan: Plan): Promise<Clearable> {
  const course = writtenCourse(plan)
  const standing = await queries.standingStudents(db, course, whoseIn(plan))
  // In a shell without leftovers what teaching staff wrote is nobody's business here.
  const held = standing.length > 0 ? await queries.heldRows(db, course, whoseIn(plan)) : []
  return { held, standing, planned: plannedClearing(held, standing, plan.document.clearing) }
}
/** Stands for what a plan clears: who runs it has seen these numbers. */
export const clearingMark = ({ planned: { off, rows, kinds } }: Clearable): unknown => [off, rows, [...kinds]]

export async function readClearable(db: Knex, planId: string): Promise<ClearingReply> {
  return inTransaction(db, async trx => {
    const plan = await findPlan(trx, planId)
    if (!plan) throw notFound('This plan')
    const { held, standing } = await clearableIn(trx, plan)
    return { rows: held, people: standing, days: await daysKept(trx) }
  })
}

/** Clears what a plan says, and keeps it aside. Answers how much, by kind; null where nothing is cleared. `clearable`: where that has been looked at in this transaction. */
export async function clearAtRun(
  trx: Knex,
  { plan, runId, person }: { plan: Plan; runId: string; person: Person },
  clearable?: Clearable,
): Promise<ClearedCounts | null> {
  const { held, planned } = clearable ?? (await clearableIn(trx, plan))
  if (planned.rows === 0 && planned.off.length === 0) return null
  const courseId = writtenCourse(plan)
  return clear(trx, { courseId, runId, person }, held, planned, plan.document.clearing.except)
}
async function clear(
  trx: Knex,
  { courseId, runId, person }: { courseId: string; runId: string | null; person: Person },
  held: readonly HeldRow[],
  planned: PlannedClearing,
  except: Plan['document']['clearing']['except'],
): Promise<ClearedCounts> {
  const clearingId = await queries.insertClearing(trx, {
    courseId,
    runId,
    personId: person.id,
    days: await daysKept(trx),
  })
  const counts: ClearedCounts = {}
  const off = new Set(planned.off)
  for (const kind of allStudentData) {
    const rows = held.filter(row => row.kind === kind.name && planned.goes(row))
    const enrolments = [...new Set(rows.map(row => row.enrolment))]
    const where = { clearingId, courseId }
    const moved =
      (await queries.moveAside(trx, where, kind, {
        enrolments: enrolments.filter(id => off.has(id)),
        except: [],
      })) +
      (await queries.moveAside(trx, where, kind, {
        enrolments: enrolments.filter(id => !off.has(id)),
        except: except[kind.name] ?? [],
      }))
    const wanted = rows.reduce((sum, row) => sum + row.rows, 0)
    if (moved !== wanted) throw new Error(`${moved} rows of ${kind.name} cleared, ${wanted} planned`)
    if (moved > 0) counts[kind.name] = moved
  }
  const ended = await queries.takeOff(trx, { clearingId, courseId }, planned.off)
  if (ended > 0) counts.enrolments = ended
  await queries.setCounts(trx, clearingId, counts)
  await writeLog(trx, {
    action: 'clearing.done',
    personId: person.id,
    courseId,
    ...(runId !== null && { runId }),
    detail: { rows: totalOf(counts), people: ended },
  })
  return counts
}
const totalOf = (counts: ClearedCounts): number =>
  studentDataNames.reduce((sum, name) => sum + (counts[name] ?? 0), 0)

/** What was cleared in a course, and what of it can still be put back. */
export async function readClearings(db: Knex, courseId: string): Promise<ClearingsReply> {
  const clearings = await queries.clearingsOf(db, courseId)
  return {
    clearings: clearings.map(each => ({
      id: each.id,
      by: each.by,
      clearedAt: isoInstant(each.clearedAt),
      keepUntil: isoInstant(each.keepUntil),
      state: each.state,
      endedAt: each.endedAt === null ? null : isoInstant(each.endedAt),
      rows: totalOf(each.counts),
      people: each.counts.enrolments ?? 0,
    })),
  }
}
/** Puts back what was cleared at once. Whoever asks for it twice is told that it was done. @throws Refusal where it is not kept any more. */
export async function restoreClearing(db: Knex, person: Person, courseId: string, id: string): Promise<void> {
  await inTransaction(db, async trx => {
    await lockCourse(trx, courseId)
    const clearing = await queries.lockClearing(trx, id)
    if (clearing?.courseId !== courseId) throw notFound('What was cleared')
    if (clearing.state !== 'kept') throw refuse('clearing-ended', { state: clearing.state })
    await queries.putBack(trx, id, courseId)
    await queries.dropKept(trx, id)
    await queries.endClearing(trx, id, 'restored', person.id)
    await writeLog(trx, {
      action: 'clearing.restored',
      personId: person.id,
      courseId,
      detail: { rows: totalOf(clearing.counts), people: clearing.counts.enrolments ?? 0 },
    })
  })
}
/** Destroys what was kept aside for as long as the office said, with its texts. Each by itself: one that fails keeps no other. */
export async function destroyOverdue(db: Knex): Promise<number> {
  const overdue = await queries.overdueClearings(db)
  for (const id of overdue)
    await inTransaction(db, async trx => {
      const clearing = await queries.lockClearing(trx, id)
      if (clearing?.state !== 'kept') return
      const texts = await queries.keptBodies(trx, id)
      await queries.dropKept(trx, id)
      await queries.destroyBodies(trx, texts)
      await queries.endClearing(trx, id, 'destroyed', null)
      await writeLog(trx, {
        action: 'clearing.destroyed',
        courseId: clearing.courseId,
        detail: { rows: totalOf(clearing.counts), people: clearing.counts.enrolments ?? 0 },
      })
    })
  return overdue.length
}

/** Courses that were rolled in place and in which last term's students still stand. */
export async function readSweep(db: Knex, person: Person): Promise<SweepReply> {
  const courses = await queries.coursesToSweep(db)
  const lineOf = lineIn(
    await courseLines(
      db,
      person,
      courses.map(({ courseId }) => courseId),
    ),
  )
  return {
    courses: courses.map(({ courseId, students, rows }) => ({ course: lineOf(courseId), students, rows })),
    days: await daysKept(db),
  }
}
/** Takes last term's students off some courses that were rolled in place, with what is left of theirs; each course by itself. */
export async function sweep(
  db: Knex,
  person: Person,
  wanted: readonly string[],
): Promise<{ courses: number; people: number }> {
  const known = new Set((await queries.coursesToSweep(db)).map(({ courseId }) => courseId))
  let [courses, people] = [0, 0]
  for (const courseId of wanted.filter(id => known.has(id)))
    await inTransaction(db, async trx => {
      await lockCourse(trx, courseId)
      const standing = (await queries.standingStudents(trx, courseId, 'everyone')).filter(
        ({ origin }) => origin === 'registrar',
      )
      if (standing.length === 0) return
      const off = new Set(standing.map(({ enrolment }) => enrolment))
      const held = (await queries.heldRows(trx, courseId, 'everyone')).filter(row => off.has(row.enrolment))
      const decisions = { kinds: {}, except: {}, staff: 'keep', people: {}, roster: 'clear' } as const
      const planned = plannedClearing(held, standing, decisions)
      const counts = await clear(trx, { courseId, runId: null, person }, held, planned, {})
      courses++
      people += counts.enrolments ?? 0
    })
  return { courses, people }
}
