import type { Knex } from 'knex'
import { carriedAs } from '../../core/carry/base'
import { subtree, type OutlineNode } from '../../core/course/outline'
import type { MoreReply } from '../../shared/api/more'
import { accessToCourse } from '../courses/access'
import { loadBases } from '../courses/carried.queries'
import { loadOutline } from '../courses/content.queries'
import { courseLines, lineIn } from '../courses/lines'
import { contentOf } from '../courses/sections.queries'
import { inSnapshot } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { runsInto } from '../run-facts/runs.queries'
import { findPlan } from './plans.queries'
import { savePlan } from './plans'
import { startPlan } from './start'

/** The course that a shell was filled from last, where it may still be rolled from. */
async function filledFrom(db: Knex, person: Person, shellId: string): Promise<string | null> {
  if ((await contentOf(db, shellId)) !== shellId) return null
  const run = (await runsInto(db, [shellId])).find(({ snapshotId }) => snapshotId === null)
  return run && (await accessToCourse(db, person, run.sourceId)).rollFrom ? run.sourceId : null
}
/** Units of a source of which nothing stands in the shell yet, with how many items each has. */
async function unitsLeft(
  db: Knex,
  shellId: string,
  source: readonly OutlineNode[],
): Promise<MoreReply['units']> {
  const there = new Set((await loadOutline(db, shellId, new Set(), true)).map(({ lineage }) => lineage))
  const keyThere = carriedAs(await loadBases(db, shellId))
  const isThere = (lineage: string): boolean => there.has(keyThere.get(lineage) ?? lineage)
  const kinds = new Map(source.map(({ lineage, type }) => [lineage, type]))
  return source
    .filter(({ type, depth }) => type === 'unit' && depth === 0)
    .flatMap(({ lineage, title }) => {
      const all = subtree(source, lineage)
      const items = all.filter(each => kinds.get(each) === 'item')
      return items.length === 0 || all.some(isThere) ? [] : [{ lineage, title, items: items.length }]
    })
}
/** What of the course that a shell was filled from is not in it yet, unit by unit; null where there is no such course any more. */
export const readMore = (db: Knex, person: Person, shellId: string): Promise<MoreReply> =>
  inSnapshot(db, async trx => {
    const source = await filledFrom(trx, person, shellId)
    if (source === null) return { source: null, units: [] }
    const units = await unitsLeft(trx, shellId, await loadOutline(trx, source))
    return { source: lineIn(await courseLines(trx, person, [source]))(source), units }
  })
/** Begins a plan with the last run's decisions that brings one more unit of the same course. Answers the plan. */
export async function bringMore(db: Knex, person: Person, shellId: string, unit: string): Promise<string> {
  const source = await filledFrom(db, person, shellId)
  if (source === null) throw notFound('The course that this shell was filled from')
  const nodes = await loadOutline(db, source)
  if (!(await unitsLeft(db, shellId, nodes)).some(({ lineage }) => lineage === unit))
    throw refuse('more-is-there')
  const id = await startPlan(db, person, { sources: [source], target: shellId })
  const plan = await findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const wanted = new Set(subtree(nodes, unit))
  const { carry } = plan.document
  await savePlan(db, person, id, plan.revision, {
    document: {
      ...plan.document,
      carry: {
        ...carry,
        leave: carry.leave.filter(lineage => !wanted.has(lineage)),
        take: [...new Set([...carry.take, ...wanted])],
      },
    },
  })
  return id
}
