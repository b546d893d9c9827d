import { z } from 'zod'
import { itemKinds } from '../../core/course/model'
import { settingNames } from '../../core/course/settings'
import { lineage, wall } from './courses'
import { zoneRulesReply } from './plans'

/** What the ledger of a course needs beside its outline. */
export const courseLedger = z.object({
  /** Dates of what a run brought, as it wrote them, by lineage. */
  asRun: z.record(lineage, z.object({ opens: wall, due: wall, closes: wall })),
  settings: z.record(lineage, z.partialRecord(z.enum(settingNames), z.string())),
  /** What was removed, and can be brought back. */
  removed: z.array(
    z.object({
      lineage,
      title: z.string(),
      type: z.enum(['unit', 'item']),
      kind: z.enum(itemKinds).nullable(),
    }),
  ),
  /** Items on which students worked. */
  worked: z.array(lineage),
  zone: zoneRulesReply,
})
export type CourseLedger = z.infer<typeof courseLedger>
