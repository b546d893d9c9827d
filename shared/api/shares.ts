import { z } from 'zod'
import { filledLine } from '../../core/text'
import { itemKinds } from '../../core/course/model'
import { courseLine, id, lineage } from './courses'

/** `withheld`: kinds that the other person does not get. `org`: the department it is shared with; without one a code is made. */
export const newShare = z.object({
  withheld: z.array(z.enum(itemKinds)).max(itemKinds.length).default([]),
  days: z.int('Give whole days.').min(1, 'At least a day.').max(730, 'At most two years.').nullable(),
  org: id.nullable().default(null),
})
export type NewShare = z.infer<typeof newShare>
export const shareLine = z.object({
  id,
  by: z.string(),
  code: z.string().nullable(),
  org: z.object({ id, name: z.string() }).nullable(),
  withheld: z.array(z.enum(itemKinds)),
  createdAt: z.string(),
  expiresAt: z.string().nullable(),
  state: z.enum(['holds', 'expired', 'revoked']),
  uses: z.int(),
})
export const sharesReply = z.object({
  departments: z.array(z.object({ id, name: z.string() })),
  shares: z.array(shareLine),
})
export type ShareLine = z.infer<typeof shareLine>
export type SharesReply = z.infer<typeof sharesReply>
export const shareMade = z.object({ id, code: z.string().nullable() })
export const codeEntered = z.object({
  code: z.string().trim().min(1, 'Type the code you were given.').max(40),
})
export const codeOpened = z.object({ courseId: id })

export const newTemplate = z.object({
  title: filledLine(200, 'Give the template a name.'),
  subject: filledLine(100, 'Give its subject.'),
  arrangement: z.enum(['weeks', 'units']),
  about: z.string().trim().max(1000, 'At most 1 000 characters.').default(''),
  /** Only this unit of the course, by its lineage key; null: all of it. */
  unit: lineage.nullable().default(null),
  /** The department on whose shelf it stands as well. */
  org: id.nullable().default(null),
  /** Whether colleagues to whom it is offered may improve it. */
  colleagues: z.boolean().default(false),
})
export type NewTemplate = z.infer<typeof newTemplate>
/** The same, with nothing said of what has a default. */
export type TemplateWish = z.input<typeof newTemplate>
/** `from`: a course with whose content, or that of one `unit`, it goes on; else it goes on as it is. */
export const newVersion = z.object({
  note: filledLine(200, 'Say what changes with this version.'),
  from: id.nullable().default(null),
  unit: lineage.nullable().default(null),
})
export type NewVersion = z.infer<typeof newVersion>
export const versionChosen = z.object({ number: z.int().min(1) })
export const versionsReply = z.object({
  versions: z.array(
    z.object({ number: z.int(), by: z.string(), at: z.string(), note: z.string(), items: z.int() }),
  ),
})
export type VersionsReply = z.infer<typeof versionsReply>
export const templateLine = z.object({
  course: courseLine,
  subject: z.string(),
  arrangement: z.enum(['weeks', 'units']),
  about: z.string(),
  author: z.string(),
  own: z.boolean(),
  /** Not offered any more; only who keeps it sees it still. */
  retired: z.boolean(),
  mayChange: z.boolean(),
  mayImprove: z.boolean(),
  version: z.int(),
  /** What changed with this version. */
  note: z.string(),
  /** Colleagues to whom it is offered may improve it. */
  colleagues: z.boolean(),
  createdAt: z.string(),
  /** Its top units with what they hold: what its picture is drawn from. */
  shape: z.array(
    z.object({ title: z.string(), kinds: z.array(z.object({ kind: z.enum(itemKinds), exam: z.boolean() })) }),
  ),
  offeredTo: z.array(z.string()),
})
export type TemplateLine = z.infer<typeof templateLine>
export const templateRetired = z.object({ retired: z.boolean() })
export const templateDone = z.object({ id })
export const templatesReply = z.object({ templates: z.array(templateLine) })
export type TemplatesReply = z.infer<typeof templatesReply>
