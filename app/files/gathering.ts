import { dateFields } from '~~/core/course/dates'
import { courseChanges } from '~~/core/gather/changes'
import { fieldKey, gather, type Taken } from '~~/core/gather/gather'
import { saidFields, type SaidField } from '~~/core/gather/saying'
import { datedSpan } from '~~/core/gather/dated-span'
import type { GatherReply } from '~~/shared/api/gathering'
import type { ImportWish } from '~~/shared/api/uploads'

/** What somebody decides of the files that come in with a package. */
export interface GatherChoices {
  /** The files that come with it. */
  beside: string[]
  pairs: Record<string, string | null>
  choices: Record<string, string>
  /** Tables that are read in the other order of day and month. */
  otherOrder: string[]
}
export const noGatherChoices = (): GatherChoices => ({
  beside: [],
  pairs: {},
  choices: {},
  otherOrder: [],
})
/** From which day to which a course was taught, as far as somebody has said it, and on which days there were no classes. */
export interface OwnSpan {
  readonly from: string | null
  readonly to: string | null
  readonly closures: { readonly name: string; readonly from: string; readonly to: string }[]
}
export const noOwnSpan = (): OwnSpan => ({ from: null, to: null, closures: [] })
/** When a course was taught: in a term that is here, in one whose calendar is a file, or from one day to another. */
export type Taught = Required<Pick<Extract<ImportWish, { as: 'course' }>, 'term' | 'calendar' | 'span'>>
export const contributionWords: Readonly<Record<GatherReply['files'][number]['as'], string>> = {
  'line-items': 'line items',
  'course-json': 'course JSON',
  sheet: 'table of dates',
}

/** Two files that say different things of one field of one item. */
export interface Disagreement {
  readonly key: string
  readonly title: string
  readonly field: SaidField
  readonly takes: Taken
}
/** A package and the files beside it as they are put together now: the very computation with which they are brought in. */
export function useGathered(
  reply: () => GatherReply,
  decided: () => GatherChoices,
  packageFile: () => string,
) {
  const files = computed(() =>
    reply().files.map(({ other, ...file }) => ({
      ...file,
      other,
      ...(other && decided().otherOrder.includes(file.id) ? other : {}),
    })),
  )
  const chosen = computed(() => files.value.filter(({ id }) => decided().beside.includes(id)))
  const gathered = computed(() =>
    gather(
      reply().items,
      chosen.value.flatMap(({ sayings }) => sayings),
      { ...decided(), packageFile: packageFile() },
    ),
  )
  /** How many lines of each file meet an item, of how many; whichever files come. */
  const metOf = computed(
    () =>
      new Map(
        files.value.map(({ id, sayings }) => {
          const { met } = gather(reply().items, sayings, { pairs: decided().pairs })
          return [id, { met: met.length, of: sayings.length }] as const
        }),
      ),
  )
  const disagreements = computed(() =>
    gathered.value.items.flatMap(({ item, fields }): Disagreement[] =>
      saidFields.flatMap(field => {
        const takes = fields[field]
        if (!takes || takes.others.length === 0) return []
        return [{ key: fieldKey(item.identifier, field), title: item.title, field, takes }]
      }),
    ),
  )
  const unmet = computed(() => gathered.value.unmet)
  const likely = computed(() => gathered.value.met.filter(({ how }) => how === 'likely'))
  /** How many items get something of a sort. */
  const gets = computed(() => {
    const count = (of: readonly SaidField[]): number =>
      gathered.value.items.filter(({ fields }) => of.some(field => fields[field]?.value)).length
    return {
      dates: count(['opens', 'due', 'closes']),
      points: count(['points']),
      categories: count(['category']),
    }
  })
  /** First and last day of what is dated; null: nothing is. */
  const dated = computed(() =>
    datedSpan(
      gathered.value.items.flatMap(({ fields }) =>
        dateFields.flatMap(field => fields[field]?.value?.slice(0, 10) ?? []),
      ),
    ),
  )
  /** What changes in a course that is there, and how much stays as it has it. */
  const changes = computed(() => {
    const { changes: changed, kept } = courseChanges(gathered.value)
    const items = new Set(changed.map(({ identifier }) => identifier)).size
    return { fields: changed.length, items, kept: kept.length }
  })
  return { chosen, gathered, metOf, disagreements, unmet, likely, gets, dated, changes }
}
