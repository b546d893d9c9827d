import { z } from 'zod'
import { meeting, termCalendar } from '../../core/calendar/schema'
import { mapCounts } from '../../core/student-data/student-data'
import { itemFieldSchemas } from '../../core/course/fields'
import { furnishingNames } from '../../core/course/furniture'
import { itemKinds, itemStates, makers, releaseNeeds } from '../../core/course/model'
import { graceSchema } from '../../core/grading/grace'
import { windowsSchema } from '../../core/pairing/windows'
import { questionTypes } from '../../core/formats/cartridge/qti/model'
import { writingNow } from './writing'

export const id = z.uuid()
export const lineage = z.uuid()
/** A wall-clock date-time or none; checked where it is read in, so plain here. */
export const wall = z.string().brand<'WallTime'>().nullable()
/** The dates of an item. */
export const itemDates = { opens: wall, due: wall, closes: wall }

/** `shared`: somebody else's course from which one may take. */
export const courseRoles = ['instructor', 'assistant', 'coordinator', 'office', 'shared'] as const
export const courseOrigins = [
  'registrar',
  'hand',
  'awaited',
  'template',
  'snapshot',
  'version',
  'file',
] as const
export type CourseRole = (typeof courseRoles)[number]

/** A course or shell in a line: enough to recognise it. */
export const courseLine = z.object({
  id,
  code: z.string(),
  section: z.string(),
  title: z.string(),
  term: z.object({
    code: z.string(),
    name: z.string(),
    timeZone: z.string(),
    classesFrom: z.string(),
    classesTo: z.string(),
  }),
  meetings: z.array(meeting.extend({ room: z.string().nullable() })),
  instructors: z.array(z.string()),
  students: z.int(),
  items: z.int(),
  /** What tells this section from others, for students. */
  label: z.string().nullable(),
  origin: z.enum(courseOrigins),
  windows: windowsSchema,
  missing: z.boolean(),
  /** The section whose content it shows, where that is not its own. */
  sharesWith: id.nullable(),
  /** What the person who asks is to this course; null where they may only read it through a duty. */
  role: z.enum(courseRoles).nullable(),
})
export type CourseLine = z.infer<typeof courseLine>

/** `chance`: how often such a suggestion is right, from 0 to 1 (docs/pairing.md). */
export const suggestion = z.object({
  course: courseLine,
  sureness: z.enum(['sure', 'likely', 'possible']),
  chance: z.number(),
  reasons: z.array(z.string()),
})
export const outlineNode = z.object({
  lineage,
  parent: lineage.nullable(),
  position: z.int(),
  type: z.enum(['unit', 'item']),
  depth: z.int(),
  unit: lineage.nullable(),
  title: z.string(),
  kind: z.enum(itemKinds).nullable(),
  state: z.enum(itemStates),
  exam: z.boolean(),
  /** Ten-thousandths. */
  points: z.int().nullable(),
  category: lineage.nullable(),
  rubric: lineage.nullable(),
  group: lineage.nullable(),
  release: z
    .array(z.object({ after: lineage, needs: z.enum(releaseNeeds), least: z.string().nullable() }))
    .readonly(),
  ...itemFieldSchemas,
  identifier: z.string().nullable(),
  /** SHA-256 of its body and of its settings; bytes of the body. */
  body: z.string().nullable(),
  size: z.int(),
  isHtml: z.boolean(),
  settings: z.string().nullable(),
  /** The kinds that an empty place can hold; null for whatever is none. */
  holds: z.array(z.enum(itemKinds)).readonly().nullable(),
  fixed: z.boolean(),
  madeBy: z.enum(makers),
  /** The grading period of its term that an item is filed under. */
  gradingPeriod: z.string().nullable(),
  ...itemDates,
})
/** Weights in ten-thousandths, in column order. */
export const gradeCategory = z.object({
  lineage,
  identifier: z.string().nullable(),
  title: z.string(),
  weight: z.int().nullable(),
  within: z.enum(['points', 'equal']),
  dropLowest: z.int(),
  dropHighest: z.int(),
  exempt: z.boolean(),
  fixed: z.boolean(),
})
export const gradeRules = z.object({
  by: z.enum(['weights', 'points']),
  ungraded: z.enum(['skip', 'zero']),
  decimals: z.int(),
  scale: z.array(z.object({ from: z.int(), letter: z.string() })).readonly(),
})
const named = { lineage, identifier: z.string(), title: z.string() }
export const rubric = z.object({
  ...named,
  criteria: z
    .array(
      z.object({
        title: z.string(),
        levels: z.array(z.object({ title: z.string(), points: z.int() })).readonly(),
      }),
    )
    .readonly(),
})
export const workGroup = z.object(named)
export const furnishing = z.object({
  lineage,
  part: z.enum(furnishingNames),
  title: z.string(),
  item: lineage.nullable(),
  details: z.record(z.string(), z.string()),
})
export const studentCounts = z.object(mapCounts(() => z.int()))

/** A course whole, without bodies and without anything about single students. */
export const courseWhole = z.object({
  course: courseLine,
  calendar: termCalendar,
  nodes: z.array(outlineNode),
  categories: z.array(gradeCategory),
  /** How its grades are reckoned; null: nobody has said. */
  grading: gradeRules.nullable(),
  /** How often students may hand in later without asking; null: nobody has said. */
  grace: graceSchema.nullable(),
  rubrics: z.array(rubric),
  groups: z.array(workGroup),
  furniture: z.array(furnishing),
  studentData: studentCounts,
})
export type CourseWhole = z.infer<typeof courseWhole>

export const courseReply = courseWhole.extend({
  /** What the one who asks keeps of it for themselves. */
  preferences: z.object({ pinned: z.boolean(), hidden: z.boolean(), label: z.string().nullable() }),
  /** `ledger`: change it as it stands; of a section that shows another's content, its dates. */
  may: z.object({ share: z.boolean(), delegate: z.boolean(), edit: z.boolean(), ledger: z.boolean() }),
  lastRun: z
    .object({
      id,
      planId: id,
      at: z.string(),
      by: z.string(),
      source: courseLine,
      /** The keys of what came with the run, or was added by hand since. */
      came: z.array(lineage),
    })
    .nullable(),
  /** Who runs into it now. */
  writing: writingNow,
  /** The package it was read from, as it came. */
  package: z.object({ name: z.string(), size: z.int() }).nullable(),
})
export type CourseReply = z.infer<typeof courseReply>

/** A question to read, its HTML sanitised. `answers`: the choices offered, or the texts that are accepted. */
export const question = z.object({
  type: z.enum(questionTypes),
  points: z.int(),
  prompt: z.string(),
  answers: z.array(z.object({ html: z.string(), right: z.boolean() })),
  feedback: z.array(z.string()),
})
export const fixedMark = z.object({ fixed: z.boolean() })
export const itemReply = z.object({
  lineage,
  title: z.string(),
  kind: z.enum(itemKinds),
  state: z.enum(itemStates),
  exam: z.boolean(),
  points: z.int().nullable(),
  category: z.string().nullable(),
  gradingPeriod: z.string().nullable(),
  ...itemDates,
  unit: z.string().nullable(),
  /** Sanitised HTML with links resolved for this course. */
  html: z.string().nullable(),
  questions: z.array(question).nullable(),
  /** What only staff are told. */
  staffText: z.string().nullable(),
  attachments: z.array(z.object({ lineage, title: z.string(), url: z.string() })),
  tool: z
    .object({
      launch: z.string().nullable(),
      parameters: z.array(z.object({ name: z.string(), value: z.string() })),
    })
    .nullable(),
  file: z.object({ url: z.string(), mediaType: z.string(), size: z.int() }).nullable(),
  url: z.string().nullable(),
  /** SHA-256 of its text or file. */
  body: z.string().nullable(),
  settings: z.record(z.string(), z.unknown()),
  /** What it is marked by, whom it is for (null: everyone), and what must be so before it opens. */
  rubric: rubric.nullable(),
  group: z.string().nullable(),
  release: z.array(
    z.object({ title: z.string(), needs: z.enum(releaseNeeds), least: z.string().nullable() }),
  ),
  holds: z.array(z.enum(itemKinds)).readonly().nullable(),
  fixed: z.boolean(),
  may: z.object({ fix: z.boolean() }),
  previous: lineage.nullable(),
  next: lineage.nullable(),
})
export type ItemReply = z.infer<typeof itemReply>
export const coursesReply = z.object({ courses: z.array(courseLine) })
export type CoursesReply = z.infer<typeof coursesReply>
