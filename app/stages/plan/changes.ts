import type { ShallowRef } from 'vue'
import type { MadeThing } from '~~/core/carry/added'
import type { ItemDates } from '~~/core/course/dates'
import { ruleBy } from '~~/core/dates/rule'
import type { PlanDocument } from '~~/core/plan/document'
import type { SectionFacts } from '~~/core/plan/parts/sections'
import type { Trace, TraceDecision } from '~~/core/student-data/traces/trace'
import { present } from '~/composables/api'

/** Parts that hold several decisions, of which some are changed at a time. */
type PartOfMany = 'added' | 'carry' | 'clearing' | 'dates' | 'grades' | 'names' | 'places'

/** Every way in which a page changes what is decided: each makes a new document, and one step that can be gone back. */
export function usePlanChanges(
  document: Readonly<ShallowRef<PlanDocument | null>>,
  change: (next: PlanDocument) => void,
) {
  const changePart = <N extends keyof PlanDocument>(name: N, value: PlanDocument[N]): void =>
    change({ ...present(document.value), [name]: value })
  /** Changes some decisions of a part; the others stay. */
  const changeIn = <N extends PartOfMany>(name: N, changed: Partial<PlanDocument[N]>): void =>
    changePart(name, { ...present(document.value)[name], ...changed })
  /** Files items under a grading period; null: under the one that their dates say. */
  function fileUnder(lineages: readonly string[], period: string | null): void {
    const periods = Object.entries(present(document.value).dates.periods).filter(
      ([lineage]) => !lineages.includes(lineage),
    )
    const chosen = period === null ? [] : lineages.map(lineage => [lineage, period] as const)
    changeIn('dates', { periods: Object.fromEntries([...periods, ...chosen]) })
  }
  const changeSection = (id: string, facts: SectionFacts): void =>
    changePart('sections', { ...present(document.value).sections, [id]: facts })
  const leave = (lineages: string[]): void => changeIn('carry', { leave: lineages })
  /** Says what becomes of some traces of students; null: what is proposed. */
  function settle(traceIds: readonly string[], decision: TraceDecision | null): void {
    const now = present(document.value).traces
    const rest = Object.entries(now.answers).filter(([id]) => !traceIds.includes(id))
    const made = decision ? traceIds.map(id => [id, decision] as const) : []
    changePart('traces', { ...now, answers: Object.fromEntries([...rest, ...made]) })
  }
  /** Says that files come though they could not be looked into; null: nobody says so any more. */
  function agreeUnseen(ids: readonly string[], by: string | null): void {
    const now = present(document.value).traces
    const rest = Object.entries(now.unseen).filter(([id]) => !ids.includes(id))
    const made = by === null ? [] : ids.map(id => [id, { by }] as const)
    changePart('traces', { ...now, unseen: Object.fromEntries([...rest, ...made]) })
  }
  /** Gives each place of a word a decision of its own, where an older plan made one for all of them. */
  function tellApart(all: readonly Trace[]): void {
    const now = present(document.value).traces
    const apart = all.flatMap(({ id, wordId }) => {
      const decided = now.answers[wordId]
      return decided && !now.answers[id] ? [[id, decided] as const] : []
    })
    const words = new Set(all.flatMap(({ id, wordId }) => (id === wordId ? [] : [wordId])))
    const rest = Object.entries(now.answers).filter(([id]) => !words.has(id))
    changePart('traces', { ...now, answers: Object.fromEntries([...rest, ...apart]) })
  }
  /** Adds a unit or an item of the plan's own, in a unit or outside; answers the key that it has from now on. */
  function make(thing: MadeThing, into: string | null): string {
    const now = present(document.value)
    const key = crypto.randomUUID()
    change({
      ...now,
      added: { ...now.added, made: { ...now.added.made, [key]: thing } },
      places: into === null ? now.places : { ...now.places, into: { ...now.places.into, [key]: into } },
    })
    return key
  }
  /** Takes something that the plan added of its own out of it again. */
  function takeOut(lineage: string): void {
    const { made, found } = present(document.value).added
    const without = <V>({ [lineage]: _, ...rest }: Record<string, V>): Record<string, V> => rest
    changeIn('added', { made: without(made), found: without(found) })
  }
  /** Holds items at given dates, or (null) lets them go, in one step. */
  function holdAll(dates: ReadonlyMap<string, ItemDates | null>): void {
    const rules = Object.entries(present(document.value).dates.itemRules).filter(([key]) => !dates.has(key))
    for (const [lineage, at] of dates) if (at) rules.push([lineage, ruleBy('set', at)])
    changeIn('dates', { itemRules: Object.fromEntries(rules) })
  }
  const hold = (lineage: string, at: ItemDates | null): void => holdAll(new Map([[lineage, at]]))

  return {
    changePart,
    changeIn,
    changeSection,
    fileUnder,
    leave,
    settle,
    agreeUnseen,
    tellApart,
    make,
    takeOut,
    hold,
    holdAll,
  }
}
