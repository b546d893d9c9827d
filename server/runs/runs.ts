import type { Knex } from 'knex'
import { studentDataKinds } from '../../core/clear/kinds'
import { checkWindows } from '../../core/pairing/windows'
import {
  compilePlan,
  planLedger,
  type CompileInput,
  type Effect,
  type Placement,
} from '../../core/plan/compile'
import type { RunReply } from '../../shared/api/plans'
import { countStudentData, loadCalendar, loadCourses, loadOutline } from '../courses/courses.queries'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { findPlan, lockPlan, markRun, repairPlan, writtenCourse, type PlanRow } from '../plans/plans.queries'
import * as queries from './runs.queries'
import {
  contentsOf,
  joinSection,
  planSections,
  sectionsOf,
  sectionsOfRun,
  takeOverSlots,
  writeSectionSlots,
} from '../courses/sections.queries'
import { beginWriting, endWriting, writingInto } from '../shells/shells.queries'
import { dropAwaited, moveIntoTerm, takeSnapshot } from './snapshots.queries'
import { inTransaction } from '../db/connection'
import { newId } from '../db/rows'
import { notFound, Problem } from '../http/problem'
import { courseLines } from '../courses/lines'
import { compileInput, fingerprintOf, joinable, sectionInput } from '../plans/plans'
import { instantText, now, stampOf } from '../clock'

const countOf = (placements: readonly Placement[], entity: Placement['entity']): number =>
  placements.filter(entry => entry.entity === entity).length

/**
 * Runs a plan: everything is computed again here, written in one transaction, counted and audited before it is committed.
 * `fingerprint` is what the person consented to; if plan, source or shell have changed since, nothing is written. While it writes, others
 * see who does and since when, and cannot run into the same shell.
 */
export async function runPlan(
  db: Knex,
  person: Person,
  planId: string,
  fingerprint: string,
): Promise<string> {
  const wanted = await findPlan(db, planId)
  if (!wanted) throw notFound('This plan')
  const course = writtenCourse(wanted)
  if (!(await beginWriting(db, course, person.id, planId))) {
    const held = (await writingInto(db, [course])).get(course)
    throw new Problem(
      409,
      'Somebody is writing into this shell',
      held
        ? `${held.by} has been at it since ${instantText(held.since).slice(11, 16)} (UTC). Nothing of yours was written; look again when it is done.`
        : 'Try again in a moment.',
    )
  }
  try {
    return await inTransaction(db, trx => runLocked(trx, person, planId, fingerprint))
  } finally {
    await endWriting(db, course, planId)
  }
}

async function runLocked(
  trx: Knex.Transaction,
  person: Person,
  planId: string,
  fingerprint: string,
): Promise<string> {
  const runId = newId()
  const plan = await lockPlan(trx, planId)
  if (!plan) throw notFound('This plan')
  if (plan.state === 'run')
    throw new Problem(409, 'This plan has been run already', 'Open the shell to see what came of it.')
  const input = await compileInput(trx, plan)
  const { placements, effect } = compilePlan(input)
  const chosen = await planSections(trx, planId)
  if (fingerprintOf(plan, input, { placements, effect }, chosen) !== fingerprint)
    throw new Problem(
      409,
      'Something changed since you looked',
      'The plan, the old course or the shell is not as it was when these numbers were made. Nothing was written. Look at the numbers again, then run.',
    )
  if (placements.length === 0)
    throw new Problem(
      409,
      'There is nothing to add',
      'Everything in this plan is in the shell already, or was left behind.',
    )
  const target = (await loadCourses(trx, [plan.targetId])).get(plan.targetId)!
  if (plan.mode === 'roll' && target.origin === 'awaited')
    throw new Problem(
      409,
      'There is no shell yet',
      'This plan waits for one. Attach the shell when it has come, then run.',
    )
  if (plan.document.windows) {
    const fault = checkWindows(plan.document.windows, await loadCalendar(trx, plan.targetId)).find(
      entry => entry.severity === 'must',
    )
    if (fault)
      throw new Problem(
        409,
        'The windows cannot be meant so',
        `${fault.message} Set it right in Pair; nothing was written.`,
      )
  }
  const courseId = writtenCourse(plan)
  const before = await countStudentData(trx, courseId)
  await queries.insertRun(trx, {
    id: runId,
    planId,
    sourceId: plan.sourceId,
    targetId: courseId,
    personId: person.id,
    document: plan.document,
    effect,
    at: stampOf(now()),
  })
  await (plan.mode === 'in-place' ? writeInPlace : writeIntoShell)(
    trx,
    runId,
    person,
    plan,
    placements,
    effect,
  )
  await joinSections(trx, runId, plan, input, placements, chosen)
  const { names, windows } = plan.document
  await queries.setCourseFacts(trx, runId, courseId, {
    ...(names.title !== null && { shown_title: names.title }),
    ...(names.label !== null && { label: names.label === '' ? null : names.label }),
    ...(windows && {
      enrol_from: windows.enrolFrom,
      enrol_to: windows.enrolTo,
      open_from: windows.openFrom,
      open_to: windows.openTo,
    }),
  })
  const after = await countStudentData(trx, courseId)
  const onNew = await countStudentData(
    trx,
    courseId,
    plan.mode === 'in-place'
      ? []
      : placements.filter(entry => entry.entity === 'item').map(entry => entry.lineage),
  )
  const audit = studentDataKinds.map(kind => ({
    kind,
    before: before[kind],
    after: after[kind],
    onNewItems: onNew[kind],
  }))
  const found = audit.find(line => line.after !== line.before || line.onNewItems !== 0)
  if (found) throw new Error(`run ${runId}: the audit found student data (${found.kind})`)
  await queries.finishRun(trx, runId, audit, stampOf(now()))
  await markRun(trx, planId)
  await writeLog(trx, {
    action: plan.mode === 'in-place' ? 'plan.run-in-place' : 'plan.run',
    personId: person.id,
    courseId,
    planId,
    runId,
    detail: { added: effect.added },
  })
  return runId
}

async function writeIntoShell(
  trx: Knex,
  runId: string,
  person: Person,
  plan: PlanRow,
  placements: Placement[],
  effect: Effect,
): Promise<void> {
  const contents = await contentsOf(trx, plan.sourceIds)
  await queries.insertEntries(
    trx,
    runId,
    plan.sourceIds.map(source => contents.get(source)!),
    placements,
  )
  const written = await queries.copyContent(trx, runId, plan.targetId)
  for (const entity of ['category', 'unit', 'item'] as const)
    if (written[entity] !== countOf(placements, entity))
      throw new Error(
        `run ${runId}: ${written[entity]} rows of ${entity} written, ${countOf(placements, entity)} planned`,
      )
  if (written.slots !== effect.dates.dates)
    throw new Error(`run ${runId}: ${written.slots} dates written, ${effect.dates.dates} planned`)
}

/** Sections that show the shell's content, chosen now or joined before: each gets dates for what is new, from its own meetings. */
async function joinSections(
  trx: Knex,
  runId: string,
  plan: PlanRow,
  input: CompileInput,
  placements: readonly Placement[],
  chosen: readonly string[],
): Promise<void> {
  if (plan.mode === 'in-place') return
  const before = await sectionsOf(trx, plan.targetId)
  const fresh = chosen.filter(section => !before.includes(section))
  for (const section of [...fresh].sort()) await trx('courses').where({ id: section }).forUpdate().first('id')
  for (const { faults } of (await joinable(trx, plan.targetId, fresh)).values())
    if (faults.length > 0)
      throw new Problem(
        409,
        'A section cannot share this content any more',
        `Of one of them ${faults.join(', ')}. Nothing was written; choose the sections anew in Pair.`,
      )
  const added = new Set(placements.filter(entry => entry.entity === 'item').map(entry => entry.lineage))
  for (const section of [...before, ...fresh]) {
    const ledger = planLedger(await sectionInput(trx, input, section))
    await writeSectionSlots(
      trx,
      section,
      plan.targetId,
      ledger.items.filter(item => added.has(item.id)),
    )
  }
  for (const section of fresh) {
    await takeOverSlots(trx, section, plan.targetId, runId)
    await joinSection(trx, section, plan.targetId, runId)
  }
}

/** The course itself goes on in the new term, and a snapshot of it, with its students, takes its place in the old one. */
async function writeInPlace(
  trx: Knex,
  runId: string,
  person: Person,
  plan: PlanRow,
  placements: Placement[],
  effect: Effect,
): Promise<void> {
  const snapshot = await takeSnapshot(trx, plan.sourceId)
  const items = placements.filter(entry => entry.entity === 'item')
  await queries.insertEntries(
    trx,
    runId,
    [snapshot],
    items.map(entry => ({ ...entry, action: 'replaced' })),
  )
  await moveIntoTerm(
    trx,
    plan.sourceId,
    plan.targetId,
    items.map(entry => entry.lineage),
  )
  const slots = await queries.writeSlots(trx, runId, plan.sourceId)
  if (slots !== effect.dates.dates)
    throw new Error(`run ${runId}: ${slots} dates written, ${effect.dates.dates} planned`)
  await queries.keepSnapshot(trx, runId, snapshot)
  await repairPlan(trx, plan.id, { sourceId: snapshot, targetId: plan.sourceId, personId: person.id })
  await dropAwaited(trx, plan.targetId)
}

/** A run as a record: what it did, in the source's order, and what its audit found. */
export async function readRun(db: Knex, person: Person, id: string): Promise<RunReply> {
  const run = await queries.findRun(db, id)
  if (!run) throw notFound('This run')
  const joined = await sectionsOfRun(db, id)
  const lines = await courseLines(db, person, [
    run.sourceId,
    run.targetId,
    ...joined,
    ...(run.snapshotId ? [run.snapshotId] : []),
  ])
  const order = new Map(
    (await loadOutline(db, run.targetId)).map((node, at) => [node.lineage, { at, depth: node.depth }]),
  )
  const entries = (await queries.loadEntries(db, run))
    .map(entry => ({ ...entry, depth: order.get(entry.lineage)?.depth ?? 0 }))
    .sort((a, b) => (order.get(a.lineage)?.at ?? -1) - (order.get(b.lineage)?.at ?? -1))
  return {
    id,
    planId: run.planId,
    source: lines.get(run.sourceId)!,
    target: lines.get(run.targetId)!,
    by: run.by,
    startedAt: instantText(run.startedAt),
    finishedAt: instantText(run.finishedAt),
    effect: run.effect as RunReply['effect'],
    audit: run.audit,
    entries,
    snapshot: run.snapshotId ? lines.get(run.snapshotId)! : null,
    course: await queries.courseFactsOf(db, id),
    sections: joined.map(section => lines.get(section)!),
  }
}
