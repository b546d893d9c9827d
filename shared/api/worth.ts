import { z } from 'zod'
import { courseModes } from '../../core/carry/mode'
import { settingNames } from '../../core/course/settings'
import { lineage } from './courses'

const of = <W extends string>(why: W) => ({ lineage, why: z.literal(why) })
export const lookReply = z.discriminatedUnion('why', [
  z.object({ ...of('untouched'), students: z.int() }),
  z.object(of('unseen')),
  z.object({ ...of('another-year'), year: z.int(), where: z.enum(['name', 'address']) }),
  z.object({ ...of('double'), of: lineage, title: z.string(), likeness: z.number() }),
  z.object({ ...of('used-before'), terms: z.array(z.string()) }),
  z.object({ ...of('other-mode'), mode: z.enum(courseModes), sign: z.string() }),
])
export const worthReply = z.object({
  looks: z.array(lookReply),
  /** How the old course was taught and how the new one will be, as far as their meetings say. */
  modes: z.object({ from: z.enum(courseModes), into: z.enum(courseModes) }),
})
export type WorthReply = z.infer<typeof worthReply>
/** The settings of a plan's items that are known by name, by lineage. */
export const planSettings = z.object({
  items: z.array(z.object({ lineage, settings: z.partialRecord(z.enum(settingNames), z.string()) })),
})
export type PlanSettings = z.infer<typeof planSettings>
