import type { CourseLine } from '~~/shared/api/courses'
import type { EffectReply, PlanReply } from '~~/shared/api/plans'
import type { PlanDocument } from '~~/core/plan/document'
import { rangeText } from '~~/core/dates/words'
import type { SectionFacts } from '~~/core/plan/parts/sections'
import { codeText, counted, listText } from '~/composables/words'

/** What student data a run clears, and how long it is kept aside; empty where nothing is. */
export function clearingText({ rows, people, days }: EffectReply['clearing']): string {
  if (rows + people === 0) return ''
  const off = people > 0 ? ` ${counted(people, 'student')} taken off.` : ''
  return `${counted(rows, 'record')} about students cleared.${off} Kept aside for ${counted(days, 'day')}.`
}

/** What a course is called from which things come: the one old course, a file, or of several each by its code. */
export function whoseText(
  { source, more }: Pick<PlanReply, 'source' | 'more'>,
  side: PlanReply['source'] | null,
): string {
  if ((side ?? source).course.origin === 'file') return 'the file’s'
  return more.length > 0 && side ? `${codeText(side.course)}’s` : 'the old course’s'
}
/** A fact of the shell that a run changes. */
export interface FactChange {
  what: string
  before: string
  after: string
}
type Windows = CourseLine['windows']
function daysText(from: string | null, to: string | null): string {
  if (!from && !to) return 'not limited'
  return rangeText(from, to)
}
const enrolText = ({ enrolFrom, enrolTo }: Windows): string => daysText(enrolFrom, enrolTo)
const openText = ({ openFrom, openTo }: Windows): string => daysText(openFrom, openTo)
/** What the run changes in the shell itself: its names and windows. */
export function factChanges(
  { names, windows }: Pick<PlanDocument, 'names' | 'windows'>,
  shell: CourseLine,
): FactChange[] {
  const was = shell.windows
  const is = windows ?? was
  const facts = [
    { what: 'Title', before: shell.title, after: names.title ?? shell.title },
    {
      what: 'Section label',
      before: shell.label || 'none',
      after: (names.label ?? shell.label) || 'none',
    },
    { what: 'Students may enrol', before: enrolText(was), after: enrolText(is) },
    { what: 'Students may enter', before: openText(was), after: openText(is) },
  ]
  return facts.filter(fact => fact.before !== fact.after)
}

/** What the run changes in a section that shows the shell's content: its label and windows. */
export function sectionChanges(facts: SectionFacts | undefined, section: CourseLine): FactChange[] {
  if (!facts) return []
  const names = { title: null, label: facts.label }
  return factChanges({ names, windows: facts.windows }, section).map(fact => ({
    ...fact,
    what: `${codeText(section)}: ${fact.what.toLowerCase()}`,
  }))
}
/** Every course that a run writes into: the shell, and the sections that show its content. */
export function writtenText(plan: PlanReply): string {
  const joined = plan.mode === 'roll' ? plan.sections.filter(entry => entry.chosen || entry.joined) : []
  const names = [shellOf(plan), ...joined.map(entry => entry.course)].map(codeText)
  return listText(names)
}

/** The course that a run writes into: the shell, or in place the course itself. */
export const shellOf = (plan: PlanReply): CourseLine =>
  plan.mode === 'in-place' && plan.state === 'draft' ? plan.source.course : plan.target.course
