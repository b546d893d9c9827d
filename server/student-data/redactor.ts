import type { Knex } from 'knex'
import type { Placement } from '../../core/plan/effect'
import type { CompileInput } from '../../core/plan/ledger'
import type { OutlineNode } from '../../core/course/outline'
import { editsByThing, mergePatch, redactedBody, redactedJson } from '../../core/student-data/traces/redact'
import { freshSimilarity } from '../../core/student-data/similarity'
import { openBody } from '../../core/student-data/traces/readers/open'
import type { Furnishing, Rubric } from '../../core/course/furniture'
import { loadBody } from '../courses/bodies.queries'
import { contentsOf } from '../courses/sections.queries'
import { refuse } from '../errors/refusal'
import { sidesOfPlan, type Plan } from '../plans/plans.queries'
import { readPdf } from '../search/pdf'
import { tracedItems, type TracedItem } from './traces.queries'

/** A rubric's criteria, or the details of something around the units, as they come. */
export type RedactedAround =
  | { readonly entity: 'rubric'; readonly lineage: string; readonly details: Rubric['criteria'] }
  | { readonly entity: 'furnishing'; readonly lineage: string; readonly details: Furnishing['details'] }
/** Takes out of a plan's texts what is to go of last term's students: what was found, where it was found. The old course keeps its own: what changes is a new body. */
export interface Redactor {
  /** A body as it comes; null where there is none. */
  readonly body: (node: Pick<OutlineNode, 'lineage' | 'body' | 'title'>) => Promise<Uint8Array | null>
  readonly mediaType: (lineage: string) => Promise<string>
  /** Placements with the settings, criteria and details that come instead of the source's. */
  readonly rows: (placements: readonly Placement[]) => Promise<Placement[]>
  /** Criteria and details around the units of a course that lose a student where it is rolled in place. */
  readonly around: () => RedactedAround[]
}
export async function redactorFor(db: Knex, plan: Plan, input: CompileInput): Promise<Redactor> {
  const edits = editsByThing(input.traces, input.document.traces.answers)
  const courses = sidesOfPlan(plan)
  const contents = await contentsOf(db, courses)
  const known = new Map<string, Map<string, TracedItem>>()
  const { found } = plan.document.added
  // Under this a similarity check knows what is written: another run into the same shell keeps it.
  const checkedIn = plan.mode === 'in-place' ? plan.id : plan.targetId
  async function itemOf(lineage: string): Promise<TracedItem | undefined> {
    const course = courses[input.brought.merged.from.get(lineage) ?? 0]
    if (course === undefined) return undefined
    const content = contents.get(course) ?? course
    const items = known.get(content) ?? (await tracedItems(db, content))
    known.set(content, items)
    return items.get(found[lineage]?.lineage ?? lineage)
  }
  const mediaType = async (lineage: string): Promise<string> => (await itemOf(lineage))?.media_type ?? ''
  async function body({ lineage, body: hash, title }: Pick<OutlineNode, 'lineage' | 'body' | 'title'>) {
    const bytes = hash === null ? null : await loadBody(db, hash)
    const own = edits.get(lineage)
    if (!bytes || !own || ![...own.keys()].some(part => part.startsWith('body:'))) return bytes
    const item = await itemOf(lineage)
    const name = String(item?.settings.fileName ?? '')
    const opened = await openBody({ name, mediaType: item?.media_type ?? '', bytes }, readPdf)
    if ('why' in opened) throw refuse('trace-not-reached', { title })
    return redactedBody(opened.open, own) ?? bytes
  }
  async function settingsOf(placement: Placement): Promise<Placement['settings']> {
    const { source, settings } = placement
    const own = (await itemOf(source))?.settings ?? {}
    const fresh = freshSimilarity(own, checkedIn, source)
    const changes = edits.get(source)
    const left = changes ? (redactedJson(own, changes, 'settings') as Record<string, unknown>) : own
    const patch = mergePatch(own, left)
    if (Object.keys(patch).length === 0 && !fresh) return settings
    return {
      ...patch,
      ...settings,
      ...(fresh && { similarity: { ...(patch.similarity as object), ...fresh.similarity } }),
    }
  }
  const sides = [input.source, ...input.more, ...input.found]
  /** What is left of something's details; null where nothing goes. */
  function detailsLeft<T>(lineage: string, details: T | undefined): T | null {
    const changes = edits.get(lineage)
    if (!changes || details === undefined) return null
    const left = redactedJson(details, changes, 'details') as T
    return JSON.stringify(left) === JSON.stringify(details) ? null : left
  }
  function criteriaLeft(lineage: string, from = 0): Rubric['criteria'] | null {
    const rubric = sides[from]?.rubrics.find(each => each.lineage === lineage) as Rubric | undefined
    return detailsLeft(lineage, rubric?.criteria)
  }
  const furnishingLeft = (lineage: string, from = 0) =>
    detailsLeft(lineage, sides[from]?.furniture.find(each => each.lineage === lineage)?.details)
  async function rows(placements: readonly Placement[]): Promise<Placement[]> {
    const made: Placement[] = []
    for (const placement of placements) {
      const { entity, source, action } = placement
      const writes = action === 'added' || action === 'filled' || action === 'replaced'
      if (!writes || (entity !== 'item' && !edits.has(source))) made.push(placement)
      else if (entity === 'item') {
        const settings = await settingsOf(placement)
        made.push(settings === placement.settings ? placement : { ...placement, settings })
      } else if (entity === 'rubric')
        made.push({ ...placement, details: criteriaLeft(source, placement.from) })
      else if (entity === 'furnishing')
        made.push({ ...placement, details: furnishingLeft(source, placement.from) })
      else made.push(placement)
    }
    return made
  }
  const around = (): RedactedAround[] => [
    ...input.source.rubrics.flatMap(({ lineage }): RedactedAround[] => {
      const details = criteriaLeft(lineage)
      return details ? [{ entity: 'rubric', lineage, details }] : []
    }),
    ...input.source.furniture.flatMap(({ lineage }): RedactedAround[] => {
      const details = furnishingLeft(lineage)
      return details ? [{ entity: 'furnishing', lineage, details }] : []
    }),
  ]
  return { body, mediaType, rows, around }
}
