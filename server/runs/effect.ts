import type { Knex } from 'knex'
import { isComposed } from '../../core/carry/texts'
import { summarise, type PlannedItem } from '../../core/dates/plan'
import { looksAtMeetings, sectionDifferences } from '../../core/plan/sections'
import { present } from '../../core/present'
import type { EffectReply } from '../../shared/api/plans'
import { inSnapshot } from '../db/transaction'
import { notFound } from '../errors/refusal'
import { clearableIn, clearingMark, daysKept } from '../student-data/clearing'
import { areTracesKnown, ensureTraces } from '../student-data/traces'
import { compiledFor, compileInput, effectBeside, fingerprintOf, sectionPlans } from '../plans/compile'
import { findPlan, sectionsOfPlan } from '../plans/plans.queries'
import { composeTexts } from './texts'

/** What Run would do now: in numbers, and for each section where its dates differ. */
export async function effectOf(db: Knex, id: string): Promise<EffectReply> {
  // Mostly the texts have been searched as they stand: then all is read once.
  const known = await inSnapshot(db, trx => effectNow(trx, id, { isSearched: false }))
  if (known) return known
  await ensureTraces(db, id)
  const effect = await inSnapshot(db, trx => effectNow(trx, id, { isSearched: true }))
  return present(effect)
}
/** The effect as all stands now; null where its texts have not been searched as they stand, unless that has just been done. */
async function effectNow(
  trx: Knex.Transaction,
  id: string,
  { isSearched }: { isSearched: boolean },
): Promise<EffectReply | null> {
  const plan = await findPlan(trx, id)
  if (!plan) throw notFound('This plan')
  const input = await compileInput(trx, plan)
  if (!isSearched && !(await areTracesKnown(trx, plan, input))) return null
  const compiled = compiledFor(input)
  // What could not be made is said here, not only by Run.
  const composed = compiled.rows.filter(row => row.text && isComposed(row.text))
  await composeTexts(trx, plan, input, composed)
  const sections = await sectionPlans(trx, plan, input, await sectionsOfPlan(trx, plan))
  const clearable = await clearableIn(trx, plan)
  const fresh = new Set(compiled.placements.flatMap(entry => (entry.dates ? entry.source : [])))
  const ofRun = (items: readonly PlannedItem[]) => items.filter(item => fresh.has(item.id))
  const shell = compiled.placements.flatMap(entry => entry.dates ?? [])
  const titles = new Map(input.brought.merged.nodes.map(node => [node.lineage, node.title]))
  const byMeetings = looksAtMeetings(plan.document.dates)
  return {
    effect: effectBeside(compiled.effect, sections),
    writes: compiled.placements.length > 0,
    sections: sections.map(({ id: section, ledger, leaves }) => {
      const items = ofRun(ledger.items)
      const differences = sectionDifferences(shell, items)
      return {
        course: section,
        dates: summarise(items),
        byMeetings,
        leaves: [...leaves],
        differences: differences.map(each => ({ ...each, title: titles.get(each.lineage) ?? '' })),
      }
    }),
    clearing: {
      rows: clearable.planned.rows,
      people: clearable.planned.off.length,
      kinds: Object.fromEntries(
        [...clearable.planned.kinds].flatMap(([kind, { go, staffGo }]) =>
          go + staffGo > 0 ? [[kind, go + staffGo]] : [],
        ),
      ),
      days: await daysKept(trx),
    },
    fingerprint: fingerprintOf(plan, input, compiled, { sections, clearing: clearingMark(clearable) }),
  }
}
