import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import {
  basesOf,
  sourceOutline,
  type CompiledPlan,
  type CompileInput,
  type Placement,
} from '../../core/plan/compile'
import { there } from '../../core/there'
import type { CarriedBase } from '../../core/carry/base'
import { recordEntries, packedEntries, type PackedEntries } from '../../core/plan/record'
import { hashOf } from '../courses/bodies.queries'
import { packedBases } from '../courses/carried.queries'
import { factsOfCourses } from '../courses/courses.queries'
import { contentsOf } from '../courses/sections.queries'
import { packed, type Packed } from '../db/rows'
import { inSnapshot, isSnapshot } from '../db/transaction'
import { compiledFor, compileInput } from '../plans/compile'
import { effectOf } from '../plans/effect'
import { findPlan, sidesOfPlan, type Plan } from '../plans/plans.queries'
import { composeTexts, type MadeText } from '../plans/texts'
import { redactorFor } from '../student-data/redactor'
import { tracesBasis } from '../student-data/traces'
import { readyWrites, type ReadyWrite } from './write.queries'

/** A plan as a run finds it. `basis`: stands for the students whom its texts were searched for. */
export interface PlanFound {
  readonly plan: Plan
  readonly input: CompileInput
  readonly compiled: CompiledPlan
  readonly basis: string
}
/** What was made of a plan, as long as that is kept: what it was computed from is immutable. By name, with whatever else it rests on. */
const made = new WeakMap<CompiledPlan, Map<string, { readonly on: string; readonly value: unknown }>>()
/** Makes something of a plan, or answers what was made of the very same. `isKept`: false where it is read at another moment than the plan. */
async function once<T>(
  compiled: CompiledPlan,
  { name, on, isKept = true }: { name: string; on: unknown; isKept?: boolean },
  make: () => T | Promise<T>,
): Promise<T> {
  const all = made.get(compiled) ?? new Map<string, { on: string; value: unknown }>()
  const restsOn = JSON.stringify(on)
  const last = all.get(name)
  if (last?.on === restsOn) return last.value as T
  const value = await make()
  if (isKept) made.set(compiled, all.set(name, { on: restsOn, value }))
  return value
}

/** What the record says, thing by thing, as it is kept. `codes`: of the courses that the plan brings from. */
export const readyEntries = (
  { input, compiled }: PlanFound,
  codes: readonly string[],
): Promise<Packed<PackedEntries>> =>
  once(compiled, { name: 'entries', on: codes }, () =>
    packed(packedEntries({ entries: recordEntries(input, compiled, codes), left: compiled.left })),
  )
/** What is written, rid of what is to go of students. */
export const readyPlacements = async (
  db: Knex,
  { plan, input, compiled, basis }: PlanFound,
): Promise<readonly Placement[]> =>
  once(
    compiled,
    { name: 'placements', on: [plan.id, plan.targetId, basis], isKept: isSnapshot(db) },
    async () => (await redactorFor(db, plan, input, sourceOutline(input))).rows(compiled.placements),
  )
/** The texts that a run makes by their hashes, as the rows name them. */
export type TextHashes = ReadonlyMap<string, string>
export const textHashes = (texts: ReadonlyMap<string, MadeText>): TextHashes =>
  new Map([...texts].map(([lineage, { bytes }]) => [lineage, hashOf(bytes)]))

/** Courses that the rows of content come from: a section shows those of another. */
export async function contentsOfSides(db: Knex, plan: Plan): Promise<string[]> {
  const sides = sidesOfPlan(plan)
  const contents = await contentsOf(db, sides)
  return sides.map(side => contents.get(side) ?? side)
}
/** The statements that write all that into a shell, with their rows. */
export async function readyStatements(
  db: Knex,
  { plan, input, compiled, basis }: PlanFound,
  placements: readonly Placement[],
  texts: TextHashes,
): Promise<readonly ReadyWrite[]> {
  const sourceIds = await contentsOfSides(db, plan)
  const on = [plan.id, plan.targetId, basis, sourceIds, [...texts]]
  return once(compiled, { name: 'statements', on, isKept: isSnapshot(db) }, () =>
    readyWrites({
      placements,
      sourceIds,
      nodes: [input.source, ...input.more, ...input.found].map(side => side.nodes),
      made: texts,
      found: plan.document.added.found,
    }),
  )
}
/** What the next run compares with. `settings`: hashes of those that this one writes. */
export const readyBases = (
  { input, compiled }: PlanFound,
  texts: TextHashes,
  settings: ReadonlyMap<string, string>,
): Promise<Packed<readonly CarriedBase[]>> =>
  once(compiled, { name: 'bases', on: [[...texts], [...settings]] }, () =>
    packedBases(input.before.bases, basesOf(input, compiled.rows, { texts, settings })),
  )
/** What of a plan is given settings of its own. */
export const withSettings = (placements: readonly Placement[]): Placement[] =>
  placements.filter(entry => entry.settings !== null)

/**
 * Looks at a plan that is likely to be run, and makes ready all of its run that follows from the plan: what the database is to be told, and
 * the record. Nothing is written. A run that finds all as it stands here takes it; else it makes all of it anew.
 */
export async function makeReady(db: Knex, planId: string): Promise<void> {
  await effectOf(db, planId)
  await inSnapshot(db, async trx => {
    const plan = await findPlan(trx, planId)
    if (plan?.state !== 'draft') return
    const input = await compileInput(trx, plan)
    const compiled = compiledFor(input)
    const { basis } = await tracesBasis(trx, plan, input)
    const found = { plan, input, compiled, basis }
    const courses = await factsOfCourses(trx, sidesOfPlan(plan))
    await readyEntries(
      found,
      sidesOfPlan(plan).map(id => codeText(there(courses.get(id)))),
    )
    if (input.inPlace) return
    const texts = textHashes(await composeTexts(trx, plan, input, compiled.rows))
    const placements = await readyPlacements(trx, found)
    await readyStatements(trx, found, placements, texts)
    if (withSettings(placements).length === 0) await readyBases(found, texts, new Map())
  })
}
