import { computed, watch, type Ref, type ShallowRef } from 'vue'
import type { FoundThing } from '~~/core/carry/added'
import type { QuestionChoice } from '~~/core/carry/decisions'
import { lineageOf } from '~~/core/course/lineage'
import type { OutlineNode } from '~~/core/course/outline'
import type { PlanDocument } from '~~/core/plan/document'
import type { PlanReply } from '~~/shared/api/plans'
import { present } from '~/composables/api'
import { fetchPlan } from './fetch'
import { isSame } from './saving'

interface Parts {
  plan: ShallowRef<PlanReply | null>
  document: ShallowRef<PlanDocument | null>
  nodes: Readonly<Ref<readonly OutlineNode[]>>
  saving: { readonly save: () => Promise<void>; readonly saveAll: () => Promise<void> }
  put: (next: PlanDocument) => void
  show: (loaded: PlanReply) => void
  load: (id: string) => Promise<void>
}
/** Items that a plan takes of courses that are no sources: the page must have these courses before it can show what is taken of them. */
export function useTakenThings({ plan, document, nodes, saving, put, show, load }: Parts) {
  /** Takes items of a course that is no source, and what is decided of them at once. The plan is fetched anew, since it must know them. */
  async function take(
    wanted: Pick<FoundThing, 'course' | 'lineage'>,
    { by, into, questions }: { by: string; into: string | null; questions: QuestionChoice | null },
  ): Promise<string> {
    const now = present(document.value)
    const isKnown = nodes.value.some(node => node.lineage === wanted.lineage)
    const key = isKnown ? lineageOf(wanted.course, wanted.lineage) : wanted.lineage
    put({
      ...now,
      added: { ...now.added, found: { ...now.added.found, [key]: { ...wanted, by } } },
      places: {
        ...now.places,
        ...(into !== null && { into: { ...now.places.into, [key]: into } }),
        ...(questions && { questions: { ...now.places.questions, [key]: questions } }),
      },
    })
    await bringSides()
    return key
  }
  /** Takes everything out that was taken from a course that is no source. */
  async function takeOutCourse(course: string): Promise<void> {
    const { found } = present(document.value).added
    const rest = Object.entries(found).filter(([, each]) => each.course !== course)
    const now = present(document.value)
    put({ ...now, added: { ...now.added, found: Object.fromEntries(rest) } })
    await saving.save()
    await load(present(plan.value).id)
  }
  /** What the document takes of other courses that came with no answer of the server yet: taken just now, or by a step back or forward. */
  const unknownFound = computed(() => {
    const known = new Set(
      plan.value?.found.flatMap(({ course, nodes: all }) => all.map(each => `${course.id} ${each.lineage}`)),
    )
    const keys = Object.values(document.value?.added.found ?? {}).map(
      each => `${each.course} ${each.lineage}`,
    )
    return keys.filter(key => !known.has(key)).join()
  })
  /** What was asked for already: what a course does not have any more is not asked for again and again. */
  let askedFor = ''
  watch(unknownFound, unknown => {
    // What cannot be fetched now is there once the page is loaded again.
    if (unknown === '') askedFor = ''
    else if (unknown !== askedFor) bringSides().catch(() => {})
  })
  async function bringSides(): Promise<void> {
    askedFor = unknownFound.value
    await saving.saveAll()
    await fetchSides()
    // The answer may be of a document that did not have it, since a step back came before: then a step forward asks for the same again.
    if (unknownFound.value === '') askedFor = ''
  }
  /** Fetches the courses of the plan anew. What was changed here meanwhile stays as it is. */
  async function fetchSides(): Promise<void> {
    const loaded = await fetchPlan(present(plan.value).id)
    if (isSame(document.value, loaded.document)) return show(loaded)
    plan.value = loaded
  }
  return { take, takeOutCourse }
}
