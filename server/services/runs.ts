import type { Knex } from 'knex'
import { studentDataKinds } from '../../core/clear/kinds'
import { compilePlan, type Placement } from '../../core/plan/compile'
import type { RunReply } from '../../shared/api/plans'
import { countStudentData, loadOutline } from '../db/queries/courses'
import { writeLog } from '../db/queries/log'
import type { Person } from '../db/queries/people'
import { lockPlan, markRun } from '../db/queries/plans'
import * as queries from '../db/queries/runs'
import { inTransaction } from '../db/connection'
import { newId } from '../db/rows'
import { notFound, Problem } from '../http/problem'
import { courseLines } from './courses'
import { compileInput, fingerprintOf } from './plans'
import { instantText, now, stampOf } from './today'

const countOf = (placements: readonly Placement[], entity: Placement['entity']): number => placements.filter(entry => entry.entity === entity).length

/**
 * Runs a plan: everything is computed again here, written in one transaction, counted and audited before it is committed.
 * `fingerprint` is what the person consented to; if plan, source or shell have changed since, nothing is written.
 */
export async function runPlan(db: Knex, person: Person, planId: string, fingerprint: string): Promise<string> {
  const runId = newId()
  await inTransaction(db, async (trx) => {
    const plan = await lockPlan(trx, planId)
    if (!plan) throw notFound('This plan')
    if (plan.state === 'run') throw new Problem(409, 'This plan has been run already', 'Open the shell to see what came of it.')
    const input = await compileInput(trx, plan)
    const { placements, effect } = compilePlan(input)
    if (fingerprintOf(plan, input, { placements, effect }) !== fingerprint)
      throw new Problem(409, 'Something changed since you looked', 'The plan, the old course or the shell is not as it was when these numbers were made. Nothing was written. Look at the numbers again, then run.')
    if (placements.length === 0) throw new Problem(409, 'There is nothing to add', 'Everything in this plan is in the shell already, or was left behind.')

    const before = await countStudentData(trx, plan.targetId)
    await queries.insertRun(trx, { id: runId, planId, sourceId: plan.sourceId, targetId: plan.targetId, personId: person.id, document: plan.document, effect, at: stampOf(now()) })
    await queries.insertEntries(trx, runId, placements)
    const written = await queries.copyContent(trx, runId, plan.sourceId, plan.targetId)
    for (const entity of ['category', 'unit', 'item'] as const)
      if (written[entity] !== countOf(placements, entity)) throw new Error(`run ${runId}: ${written[entity]} rows of ${entity} written, ${countOf(placements, entity)} planned`)
    if (written.slots !== effect.dates.dates) throw new Error(`run ${runId}: ${written.slots} dates written, ${effect.dates.dates} planned`)

    const after = await countStudentData(trx, plan.targetId)
    const onNew = await countStudentData(trx, plan.targetId, placements.filter(entry => entry.entity === 'item').map(entry => entry.lineage))
    const audit = studentDataKinds.map(kind => ({ kind, before: before[kind], after: after[kind], onNewItems: onNew[kind] }))
    const found = audit.find(line => line.after !== line.before || line.onNewItems !== 0)
    if (found) throw new Error(`run ${runId}: the audit found student data (${found.kind})`)
    await queries.finishRun(trx, runId, audit, stampOf(now()))
    await markRun(trx, planId)
    await writeLog(trx, { action: 'plan.run', personId: person.id, courseId: plan.targetId, planId, runId, detail: { added: effect.added } })
  })
  return runId
}

/** A run as a record: what it did, in the source's order, and what its audit found. */
export async function readRun(db: Knex, person: Person, id: string): Promise<RunReply> {
  const run = await queries.findRun(db, id)
  if (!run) throw notFound('This run')
  const lines = await courseLines(db, person, [run.sourceId, run.targetId])
  const order = new Map((await loadOutline(db, run.targetId)).map((node, at) => [node.lineage, { at, depth: node.depth }]))
  const entries = (await queries.loadEntries(db, run)).map(entry => ({ ...entry, depth: order.get(entry.lineage)?.depth ?? 0 }))
    .sort((a, b) => (order.get(a.lineage)?.at ?? -1) - (order.get(b.lineage)?.at ?? -1))
  return {
    id, planId: run.planId, source: lines.get(run.sourceId)!, target: lines.get(run.targetId)!, by: run.by, startedAt: instantText(run.startedAt), finishedAt: instantText(run.finishedAt),
    effect: run.effect as RunReply['effect'], audit: run.audit, entries,
  }
}
