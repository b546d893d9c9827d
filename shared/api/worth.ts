import { z } from 'zod'
import { sourceCheckNames, type SourceCheck } from '../../core/checks'
import { courseModes } from '../../core/carry/mode'
import { settingNames } from '../../core/course/settings'
import { lineage } from './courses'

/** Something that a check noticed: which, where, how grave it is, as a sentence, and what mends it. */
export const finding = z.object({
  check: z.enum(sourceCheckNames as [SourceCheck, ...SourceCheck[]]),
  short: z.string(),
  grave: z.enum(['must', 'look']),
  where: z.object({ lineage: lineage.nullable(), field: z.string().nullable() }),
  sentence: z.string(),
  mends: z.string(),
})
export const worthReply = z.object({
  findings: z.array(finding),
  /** How the old course was taught and how the new one will be, as far as their meetings say. */
  modes: z.object({ from: z.enum(courseModes), into: z.enum(courseModes) }),
})
export type WorthReply = z.infer<typeof worthReply>
/** The settings of a plan's items that are known by name, by lineage. */
export const planSettings = z.object({
  items: z.array(z.object({ lineage, settings: z.partialRecord(z.enum(settingNames), z.string()) })),
})
export type PlanSettings = z.infer<typeof planSettings>
