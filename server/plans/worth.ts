import type { Knex } from 'knex'
import { modeByMeetings } from '../../core/carry/mode'
import { sourceChecks } from '../../core/checks'
import { checkCourse } from '../../core/checks/check'
import { isoOf } from '../../core/calendar/day'
import { knownSettings } from '../../core/course/settings'
import type { CompileInput } from '../../core/plan/ledger'
import type { PlanSettings, WorthReply } from '../../shared/api/worth'
import { accessToCourses, readableCourses } from '../courses/access'
import { loadSettings } from '../courses/content.queries'
import { countStudentData, itemsWorkedOn } from '../courses/student-data.queries'
import { notFound } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { compileInput } from './compile'
import { findPlan, sidesOfPlan, type Plan } from './plans.queries'
import { termsOfBodies, textsOfBodies } from './worth.queries'

async function settingsOfSides(db: Knex, plan: Plan): Promise<Map<string, Record<string, unknown>>> {
  const all = new Map<string, Record<string, unknown>>()
  // What an earlier side holds already does not come from a later one.
  for (const side of sidesOfPlan(plan).toReversed())
    for (const [lineage, settings] of await loadSettings(db, side)) all.set(lineage, settings)
  return all
}
/** What students did in the sources, as far as the person may be told: nothing where they may only roll from one of them. */
async function workedIn(db: Knex, person: Person, plan: Plan) {
  const access = await accessToCourses(db, person, plan.sourceIds)
  const isTold = plan.sourceIds.every(id => {
    const role = access.get(id)?.role ?? null
    return role !== null && role !== 'shared'
  })
  if (!isTold) return null
  const on = new Set<string>()
  let students = 0
  for (const id of plan.sourceIds) {
    students += (await countStudentData(db, id)).students
    for (const lineage of await itemsWorkedOn(db, id)) on.add(lineage)
  }
  return { students, on }
}
const yearsOfTerms = ({ source, more, target }: CompileInput): Set<number> =>
  new Set(
    [source, ...more, target].flatMap(({ term }) =>
      [term.classes.from, term.classes.to].map(day => Number(isoOf(day).slice(0, 4))),
    ),
  )

/** What of a plan's sources is worth a look before it comes, each with its reason. */
export async function readWorth(db: Knex, person: Person, id: string): Promise<WorthReply> {
  const plan = await findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const input = await compileInput(db, plan)
  const { nodes } = input.brought.merged
  const bodies = nodes.flatMap(node => node.body ?? [])
  const settings = await settingsOfSides(db, plan)
  const addresses = new Map(
    [...settings].flatMap(([lineage, { url }]) => (typeof url === 'string' ? [[lineage, url] as const] : [])),
  )
  const byMeetings = {
    from: modeByMeetings(input.source.meetings),
    into: modeByMeetings(input.target.meetings),
  }
  const worked = await workedIn(db, person, plan)
  return {
    modes: byMeetings,
    findings: checkCourse(sourceChecks, {
      nodes,
      content: { texts: await textsOfBodies(db, bodies), addresses, years: yearsOfTerms(input) },
      usedIn: await termsOfBodies(
        db,
        bodies,
        await readableCourses(db, person),
        isoOf(input.target.term.classes.from),
      ),
      modes: { ...byMeetings, ...plan.document.carry.modes },
      ...(worked && { worked }),
    }) as WorthReply['findings'],
  }
}
/** The settings of a plan's items that are known by name: of those that have any. */
export async function readPlanSettings(db: Knex, id: string): Promise<PlanSettings> {
  const plan = await findPlan(db, id)
  if (!plan) throw notFound('This plan')
  const input = await compileInput(db, plan)
  const settings = await settingsOfSides(db, plan)
  const { found } = plan.document.added
  return {
    items: input.brought.merged.nodes.flatMap(({ lineage, type }) => {
      const known = knownSettings(settings.get(found[lineage]?.lineage ?? lineage) ?? {})
      return type === 'item' && Object.keys(known).length > 0 ? [{ lineage, settings: known }] : []
    }),
  }
}
