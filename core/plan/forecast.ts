import { dayOf } from '../calendar/day'
import { writesSource, type PlaceRow } from '../carry/places/row'
import { brokenBy, type Need } from '../carry/needs'
import { calendarKnown, courseChecks, dateChecks } from '../checks'
import { checkCourse, type Knowledge } from '../checks/check'
import { cannotEnter } from '../checks/dates-no-term'
import type { Finding } from '../checks/finding'
import { dateFields, type ItemDates } from '../course/dates'
import type { OutlineNode } from '../course/outline'
import type { PlannedItem } from '../dates/plan'
import type { PlanBase } from './base'
import type { CarriedPlan } from './carried'
import { uncategorisedIn } from './grades'
import { windowsOf } from './ledger'
import type { MergedSources } from './sources'

const dayOrNull = (date: string | null): number | null => (date === null ? null : dayOf(date))

/** Whether a date lies on a day on which students may not enter; `from` and `to` are days, null ends are open. */
const liesOutside = (item: Readonly<ItemDates>, from: string | null, to: string | null): boolean =>
  dateFields.some(field => {
    const at = item[field]
    return at !== null && ((to !== null && at.slice(0, 10) > to) || (from !== null && at < from))
  })
const standingAs = (node: OutlineNode, { opens, due, closes }: PlannedItem): OutlineNode => ({
  ...node,
  opens,
  due,
  closes,
})
const isHeld = ({ flags }: PlannedItem): boolean => flags.includes('set-by-hand')

/**
 * What is to be looked at in the dates that a plan will write, by item. Dates set by hand are looked at in every way; those
 * that a rule made have their flags, and are looked at only against the days on which students may enter.
 */
export function dateFindings(
  base: Pick<PlanBase, 'document' | 'target'>,
  { nodes }: Pick<MergedSources, 'nodes'>,
  planned: readonly PlannedItem[],
): Map<string, Finding[]> {
  const { openFrom, openTo } = windowsOf(base)
  // Of thousands that a rule placed, only those are looked at that lie outside the windows: the rest is known to be in order.
  const looked = new Map(
    planned.flatMap(item =>
      isHeld(item) || liesOutside(item, openFrom, openTo) ? [[item.id, item] as const] : [],
    ),
  )
  const found = new Map<string, Finding[]>()
  if (looked.size === 0) return found
  const kinds = new Map(nodes.map(node => [node.lineage, node.kind]))
  const usual = planned.map(({ id, due }) => ({ kind: kinds.get(id) ?? null, due }))
  const { term, meetings } = base.target
  const window = { from: dayOrNull(openFrom), to: dayOrNull(openTo) }
  const standing = nodes.flatMap(node => {
    const dates = looked.get(node.lineage)
    return dates ? [standingAs(node, dates)] : []
  })
  const calendar = calendarKnown(usual, { term, meetings, window })
  for (const finding of checkCourse(dateChecks, { nodes: standing, calendar })) {
    const lineage = finding.where.lineage ?? ''
    const item = looked.get(lineage)
    if (item && (isHeld(item) || finding.short === cannotEnter))
      found.set(lineage, [...(found.get(lineage) ?? []), finding])
  }
  return found
}

/** What the shell will hold once a plan is run: what comes as it comes, what stays as it stands. */
function outcomeOf(rows: readonly PlaceRow[], planned: ReadonlyMap<string, PlannedItem>): OutlineNode[] {
  return rows.flatMap(row => {
    if (row.lineage === null) return []
    if (!writesSource(row) || !row.source) return row.shell ?? []
    const dates = planned.get(row.source.lineage)
    const title = row.carries?.title ?? row.source.title
    const titled = title === row.source.title ? row.source : { ...row.source, title }
    return dates ? standingAs(titled, dates) : titled
  })
}
/** What of the sources is needed by what comes, and does not come. */
function needsKnown(plan: CarriedPlan, all: readonly Need[]): Knowledge['needs'] {
  const { nodes } = plan.merged
  const titles = new Map(nodes.map(node => [node.lineage, node.title]))
  const standsThere = new Set(
    plan.rows.flatMap(row => (row.shell && row.lineage && row.source ? row.source.lineage : [])),
  )
  return {
    all,
    comes: plan.carried,
    isThere: lineage => !titles.has(lineage) || standsThere.has(lineage),
    titleOf: lineage => titles.get(lineage) ?? null,
  }
}
/** What breaks by what stays behind: told while one chooses. `needs`: all that the sources need. */
export const lostByPlan = (plan: CarriedPlan, needs: readonly Need[]): Finding[] =>
  checkCourse({ 'link.lost': courseChecks['link.lost'] }, { nodes: [], needs: needsKnown(plan, needs) })
/** How many links of what comes lead nowhere then, and to how many things that stay behind. */
export function linksLost(
  plan: CarriedPlan,
  all: readonly Need[],
): { readonly links: number; readonly things: number } {
  const { comes, isThere, titleOf } = needsKnown(plan, all)
  const broken = brokenBy(comes, all, isThere)
    .filter(({ needed }) => titleOf(needed) !== null)
    .map(({ by }) => by.filter(({ why }) => why === 'link').length)
    .filter(links => links > 0)
  return { links: broken.reduce((sum, links) => sum + links, 0), things: broken.length }
}
/**
 * What is to be looked at in what a plan will write, beside its dates one by one: the same checks that look at a course look at the outcome
 * before it is there.
 */
export function planFindings(
  base: PlanBase,
  plan: CarriedPlan,
  planned: ReadonlyMap<string, PlannedItem>,
  needs: readonly Need[],
): Finding[] {
  const { weekStart } = base.target.term
  // Where nobody has said how much is too much, no day is crowded.
  const { crowding } = base.document.dates
  return checkCourse(courseChecks, {
    nodes: outcomeOf(plan.rows, planned),
    ...(crowding && { crowding: { ...crowding, weekStart } }),
    held: new Set([...planned.values()].flatMap(item => (isHeld(item) ? item.id : []))),
    uncategorised: uncategorisedIn(base, plan, plan.grades),
    needs: needsKnown(plan, needs),
  })
}
