import { computed, type Ref, type ShallowRef } from 'vue'
import { addedText } from '~~/core/carry/added'
import { planBase, planSide, type CarrySide, type PlanBase } from '~~/core/plan/base'
import { carriedBy, sidesOf, staysOf, type Brought } from '~~/core/plan/bring'
import type { PlanDocument } from '~~/core/plan/document'
import { mergeSources, type MergedSources } from '~~/core/plan/sources'
import type { Trace, UnseenFile } from '~~/core/student-data/traces/trace'
import type { PlanReply } from '~~/shared/api/plans'

interface Parts {
  plan: ShallowRef<PlanReply | null>
  document: Readonly<Ref<PlanDocument | null>>
  /** Traces of students that were found in what the plan brings, and files that could not be looked into. */
  traces: Readonly<Ref<readonly Trace[]>>
  unseen: Readonly<Ref<readonly UnseenFile[]>>
}
const courseParts = ['source', 'more', 'found', 'target', 'before', 'byHand', 'mode'] as const
type Courses = ReturnType<typeof coursesOf>
const coursesOf = (plan: Pick<PlanReply, (typeof courseParts)[number]>) => ({
  sources: [plan.source, ...plan.more].map(planSide),
  found: plan.found.map(each => ({ id: each.course.id, ...planSide(each) })),
  target: planSide(plan.target),
  before: plan.before,
  byHand: plan.byHand,
  mode: plan.mode,
})
interface Outline {
  readonly of: Courses
  readonly adds: string
  readonly sides: readonly CarrySide[]
  readonly merged: MergedSources
}

/** What everything of a plan is computed from, and what it brings. A step of the plan costs only what rests on it. */
export function usePlanBase({ plan, document, traces, unseen }: Parts) {
  // A plan that was saved is another plan with the same courses: nothing of them is computed anew for that.
  const parts = computed<PlanReply | null>(last => {
    const { value: now } = plan
    return last && now && courseParts.every(name => last[name] === now[name]) ? last : now
  })
  const courses = computed(() => parts.value && coursesOf(parts.value))
  const base = computed((): PlanBase | null =>
    courses.value && document.value
      ? planBase({
          ...courses.value,
          document: document.value,
          searched: { traces: traces.value, unseen: unseen.value },
        })
      : null,
  )
  // As long as the plan adds nothing else of its own, the outline stays the same.
  const outline = computed<Outline | null>(last => {
    const of = courses.value
    if (!of || !document.value) return null
    const adds = addedText(document.value)
    if (last && last.of === of && last.adds === adds) return last
    const sides = sidesOf(planBase({ ...of, document: document.value, searched: null }))
    return { of, adds, sides, merged: mergeSources(sides) }
  })
  const merged = computed(() => outline.value?.merged ?? null)
  const further = computed(() => document.value?.places.further)
  const stays = computed((): Brought['stays'] =>
    courses.value && merged.value && further.value
      ? staysOf(
          {
            ...courses.value,
            inPlace: courses.value.mode === 'in-place',
            document: { places: { further: further.value } },
          },
          merged.value,
        )
      : new Map(),
  )
  const carry = computed(() => document.value?.carry)
  const carried = computed((): Brought['carried'] =>
    carry.value && merged.value ? carriedBy({ carry: carry.value }, merged.value, stays.value) : new Set(),
  )
  const brought = computed(
    (): Brought | null =>
      outline.value && {
        sides: outline.value.sides,
        merged: outline.value.merged,
        stays: stays.value,
        carried: carried.value,
      },
  )
  return { base, brought, merged, stays, carried }
}
