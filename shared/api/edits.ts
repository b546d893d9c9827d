import { z } from 'zod'
import { madeThing } from '../../core/carry/added'
import { isDateTime } from '../../core/calendar/day'
import { itemStates } from '../../core/course/model'
import { settingNames, type SettingName } from '../../core/course/settings'
import { filledLine, line } from '../../core/text'
import { id, lineage, wall } from './courses'

const setting = line(200).nullable()
/** A date as it is sent: it may be none that there is. */
const moment = z
  .string()
  .refine(isDateTime, 'This is no date and time, like 2027-02-05T23:59.')
  .brand<'WallTime'>()
  .nullable()
/** Parts of a unit or item as they are to be; of points, ten-thousandths. */
export const parts = z.strictObject({
  title: filledLine(500, 'Give it a name.').optional(),
  opens: moment.optional(),
  due: moment.optional(),
  closes: moment.optional(),
  points: z
    .int('Points are a number, like 12.5.')
    .min(0, 'Points cannot be below 0.')
    .max(999_999_990_000, 'That is more points than there can be.')
    .nullable()
    .optional(),
  category: lineage.nullable().optional(),
  period: line(200).nullable().optional(),
  state: z.enum(itemStates).optional(),
  ...(Object.fromEntries(settingNames.map(name => [name, setting.optional()])) as Record<
    SettingName,
    z.ZodOptional<typeof setting>
  >),
})
/** One change of what a course holds, made in the course itself. */
export const courseEdit = z.discriminatedUnion('does', [
  z.object({
    does: z.literal('rename'),
    /** New names, by lineage. */
    titles: z
      .record(lineage, filledLine(500, 'Give it a name.'))
      .refine(titles => Object.keys(titles).length > 0, 'Name at least one thing.'),
  }),
  z.object({
    does: z.literal('change'),
    /** Parts of units and items, by lineage; what is not named stays. */
    things: z
      .record(lineage, parts)
      .refine(things => Object.keys(things).length > 0, 'Name at least one thing.')
      .refine(things => Object.keys(things).length <= 5000, 'At most 5 000 things at once.'),
  }),
  z.object({
    does: z.literal('move'),
    lineage,
    /** The unit that it stands in then; null: outside the units. */
    parent: lineage.nullable(),
    /** What it stands right after there; null: before all others. */
    after: lineage.nullable(),
  }),
  z.object({
    does: z.literal('add'),
    thing: madeThing,
    parent: lineage.nullable(),
    category: lineage.nullable().default(null),
    opens: wall.default(null),
    due: wall.default(null),
  }),
])
export type CourseEdit = z.output<typeof courseEdit>
export type NewCourseEdit = z.input<typeof courseEdit>
export const editDone = z.object({
  /** Null where all was so already. */
  id: id.nullable(),
  /** The key of what was added, or of what was moved; null for new names. */
  lineage: lineage.nullable(),
})
export type EditDone = z.infer<typeof editDone>
export const editsReply = z.object({
  /** The latest first; those that were taken back are left out. */
  edits: z.array(z.object({ id, at: z.string(), by: z.string(), words: z.string() })),
  /** Of the edit that was just taken back: how many of its parts were changed since, and stay. */
  overtaken: z.int().default(0),
})
export type EditsReply = z.infer<typeof editsReply>
