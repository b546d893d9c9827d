import { z } from 'zod'
import { studentDataNames } from '../../core/student-data/student-data'
import { thingParts } from '../../core/carry/again'
import { baseWays } from '../../core/carry/base'

import { dateFields } from '../../core/course/dates'
import { itemKinds } from '../../core/course/model'
import { ruleSchemas, type MethodName } from '../../core/dates/rule'
import { graceSchema } from '../../core/grading/grace'
import { traceRecord } from '../../core/student-data/traces/record'
import { planDocument } from '../../core/plan/document'
import { recordEntry, recordLeft } from '../../core/plan/record'
import { settleNames, type SettleName } from '../../core/plan/to-settle'
import { courseLine, courseWhole, id, itemDates, lineage, wall } from './courses'
import { leaving } from './sections'
import { runOutcome, writingNow } from './writing'

const methodName = z.enum(Object.keys(ruleSchemas) as [MethodName, ...MethodName[]])
/** A way to move dates that leaves far fewer to settle than another. */
const betterWay = z.object({
  method: methodName,
  settles: z.int(),
  instead: z.object({ method: methodName, settles: z.int() }),
})
export const zoneRulesReply = z.object({
  timeZone: z.string(),
  years: z.object({ from: z.int(), to: z.int() }),
  offset: z.number(),
  transitions: z.array(z.object({ at: z.number(), offset: z.number() })).readonly(),
})
const sources = z
  .array(id)
  .min(1, 'Choose a course to roll from.')
  .max(8, 'At most eight courses.')
  .transform(list => list as [string, ...string[]])
/** `as-before`: one's usual habit, else the decisions of the last roll of the source, else the department's usual habit, else the recommended ones. */
export const newPlan = z.object({
  sources,
  target: id,
  decisions: z.enum(['recommended', 'as-before']).default('recommended'),
})
export type NewPlan = z.infer<typeof newPlan>
/** A plan for a term, whose shell comes later; or (`in-place`) the source itself, moved into the term. */
export const newAwaitedPlan = z.object({
  sources,
  term: z.string().min(1, 'Choose the term.'),
  mode: z.enum(['roll', 'in-place']).default('roll'),
})
export type NewAwaitedPlan = z.infer<typeof newAwaitedPlan>
export const planReply = z.object({
  id,
  revision: z.int(),
  state: z.enum(['draft', 'run']),
  mode: z.enum(['roll', 'in-place']),
  document: planDocument,
  savedAt: z.string(),
  savedBy: z.string(),
  source: courseWhole,
  /** Further sources, in their order. */ more: z.array(courseWhole),
  /** Courses that are no sources, of which the plan takes single items: those alone are told. */
  found: z.array(courseWhole),
  target: courseWhole,
  /** What was carried into the shell before, as the last run left it, and what somebody deleted there. */
  before: z.object({
    bases: z
      .array(
        z.object({
          source: lineage,
          lineage,
          type: z.enum(['unit', 'item', 'category', 'rules']),
          how: z.enum(baseWays),
          parts: z.record(z.enum(thingParts), z.string().nullable()),
          /** Hash of the text that the run made, where it is not the source's. */
          wrote: z.string().nullish(),
          wroteSettings: z.string().optional(),
          isOther: z.literal(true).optional(),
        }),
      )
      .readonly(),
    deleted: z.array(lineage).readonly(),
  }),
  /** Students whom somebody added by hand to the course that is written, by enrolment. */
  byHand: z.array(id),
  /** What links to what within the sources' texts. */
  links: z.array(z.object({ from: lineage, to: lineage })),
  /**
   * Sources that may not be rolled from any more, as nothing of them is shown: `taken-back` by a person, `ran-out` by itself,
   * `ended` with a role of whoever chose it.
   */
  closed: z.array(
    z.object({
      course: id,
      how: z.enum(['taken-back', 'ran-out', 'ended']),
      by: z.string().nullable(),
      at: z.string().nullable(),
    }),
  ),
  zone: zoneRulesReply,
  /** What its decisions began as; `habit`: the name of the habit. */
  begunWith: z
    .object({
      how: z.enum(['recommended', 'as-before', 'habit']),
      habit: z.string().nullable(),
      /** The way to move dates that it began with, where the usual one would have left far more to settle. */
      better: betterWay.optional(),
    })
    .nullable(),
  may: z.object({ edit: z.boolean(), run: z.boolean() }),
  run: z.object({ id, at: z.string(), by: z.string() }).nullable(),
  /** Whether the codes of the first source and the shell are of one course, by the office's patterns. */
  sameCourse: z.boolean(),
  /** Plans with the same sources for other shells. */
  set: z.array(
    z.object({
      id,
      course: courseLine,
      state: z.enum(['draft', 'run']),
      /** What it decides otherwise than this plan, of that which the shells of a set have in common. */
      differences: z.array(z.object({ path: z.string(), here: z.string(), there: z.string() })),
    }),
  ),
  /** Other sections of the target's title or code in its term, as they are named. */
  siblings: z.array(courseLine),
  /** Sections that could share this shell’s content, with what stands against it; `chosen`: the run joins them. */
  sections: z.array(
    z.object({
      course: courseLine,
      chosen: z.boolean(),
      joined: z.boolean(),
      faults: z.array(z.string()),
      leaves: z.array(leaving),
    }),
  ),
  /** Shells that a plan which waits for one would fit. */
  fits: z.array(courseLine),
  writing: writingNow,
  /** What came of the last run that was asked for, where it wrote nothing. */
  outcome: runOutcome,
  /** A run of this plan that was undone: it can be put back. */
  undone: z.object({ id, at: z.string() }).nullable(),
})
export type PlanReply = z.infer<typeof planReply>
export const planChange = z.object({ document: planDocument, sources: sources.optional() })
export const planSaved = z.object({ revision: z.int(), savedAt: z.string() })
export type PlanSaved = z.infer<typeof planSaved>
/** How a plan stands, for pages that have it open. */
export const planStateReply = z.object({
  revision: z.int(),
  state: z.enum(['draft', 'run']),
  savedAt: z.string(),
  savedBy: z.string(),
  writing: writingNow,
  outcome: runOutcome,
})
export type PlanState = z.infer<typeof planStateReply>
export const planLine = z.object({
  id,
  state: z.enum(['draft', 'run']),
  mode: z.enum(['roll', 'in-place']),
  sources: z.array(courseLine),
  target: courseLine,
  updatedAt: z.string(),
  updatedBy: z.string(),
  run: z.object({ id, at: z.string(), items: z.int() }).nullable(),
  /** A draft that was run, and the run undone. */
  undone: z.boolean(),
  writing: writingNow,
})
export const plansReply = z.object({ plans: z.array(planLine) })
export type PlansReply = z.infer<typeof plansReply>
export const attachShellRequest = z.object({ shell: id })
export const alsoInto = z.object({
  shells: z.array(id).min(1, 'Choose a shell.').max(50, 'At most fifty shells.'),
})
export const sectionsChosen = z.object({ sections: z.array(id).max(50, 'At most fifty sections.') })
export const alsoDone = z.object({ made: z.int(), there: z.int() })

const settleCounts = Object.fromEntries(settleNames.map(name => [name, z.int()])) as Record<
  SettleName,
  z.ZodInt
>
const summary = z.object({
  dates: z.int(),
  straight: z.int(),
  moved: z.int(),
  held: z.int(),
  settle: z.int(),
  none: z.int(),
})
export const effect = z.object({
  added: z.object({
    units: z.int(),
    items: z.int(),
    categories: z.int(),
    byKind: z.partialRecord(z.enum(itemKinds), z.int()),
  }),
  replaced: z.int(),
  updated: z.object({ things: z.int(), parts: z.partialRecord(z.enum(thingParts), z.int()) }),
  removed: z.object({ things: z.int(), places: z.int() }),
  already: z.int(),
  // Runs of before these were counted say nothing of them.
  filled: z.int().default(0),
  keptBoth: z.int().default(0),
  renamed: z.int().default(0),
  moved: z.int().default(0),
  ownAdded: z.object({ made: z.int(), found: z.int() }).default({ made: 0, found: 0 }),
  frames: z.int().default(0),
  given: z.int().default(0),
  around: z.object({ comes: z.int(), replaced: z.int() }).default({ comes: 0, replaced: 0 }),
  texts: z.object({ made: z.int(), joined: z.int() }).default({ made: 0, joined: 0 }),
  deletedThere: z.int().default(0),
  leftBehind: z.int(),
  leftUnasked: z.int(),
  beside: z.object({ things: z.int(), sections: z.array(z.string()) }).optional(),
  kept: z.object({ units: z.int(), items: z.int() }),
  grades: z.object({
    by: z.enum(['weights', 'points']),
    categories: z.int(),
    sum: z.int(),
    changed: z.int(),
    rules: z.boolean(),
  }),
  traces: z.object({ out: z.int(), kept: z.int(), passed: z.int(), unseen: z.int() }),
  periods: z.array(z.object({ name: z.string(), items: z.int() })),
  grace: graceSchema.nullable().default(null),
  dates: summary,
  /** What a person has still to say, part by part. */
  settle: z.object(settleCounts),
})
export type EffectView = z.infer<typeof effect>
/** What Run would do now. The fingerprint stands for exactly this; Run refuses if it no longer holds. */
export const effectReply = z.object({
  effect,
  /** Whether anything is written at all. */
  writes: z.boolean(),
  /** What each section gets that shows the shell's content: its dates, and where they differ from the shell's. */
  sections: z.array(
    z.object({
      course: id,
      dates: summary,
      /** Whether a rule looks at meetings or class times; where none does, all sections get the same dates. */
      byMeetings: z.boolean(),
      /** What goes from it, where it held something itself. */
      leaves: z.array(leaving),
      differences: z.array(
        z.object({ lineage, title: z.string(), field: z.enum(dateFields), shell: wall, section: wall }),
      ),
    }),
  ),
  /** Student data that is cleared in the course that is written, and for how many days it is kept aside. */
  clearing: z.object({
    rows: z.int(),
    people: z.int(),
    kinds: z.partialRecord(z.enum(studentDataNames), z.int()),
    days: z.int(),
  }),
  fingerprint: z.string(),
})
export type EffectReply = z.infer<typeof effectReply>
/** A text that a plan carries: its headings, and passage by passage where it and the shell's differ. */
export const planText = z.object({
  headings: z.array(z.object({ title: z.string(), nth: z.int(), level: z.int() })),
  /** Null where the shell has no text to compare with. */
  compared: z
    .object({
      /** What both texts are; a choice of passages holds for these alone. */
      source: z.string(),
      shell: z.string(),
      passages: z.array(
        z.object({
          isAlike: z.boolean(),
          changed: z.enum(['source', 'shell', 'both']).nullable(),
          /** What one reads, piece by piece. */
          source: z.array(z.string()),
          shell: z.array(z.string()),
        }),
      ),
    })
    .nullable(),
})
export type PlanText = z.infer<typeof planText>
export const runRequest = z.object({ fingerprint: z.string() })
/** `id`: under which the run is found once it is done. */
export const runStarted = z.object({ id })
export type RunStarted = z.infer<typeof runStarted>

export const auditLine = z.object({
  kind: z.enum(studentDataNames),
  before: z.int(),
  after: z.int(),
  cleared: z.int().default(0),
  onNewItems: z.int(),
})

export const runReply = z.object({
  id,
  planId: id,
  source: courseLine,
  target: courseLine,
  by: z.string(),
  startedAt: z.string(),
  finishedAt: z.string(),
  undoneAt: z.string().nullable(),
  effect,
  audit: z.array(auditLine),
  /** What became of traces of students in the texts; null of runs before such were searched for. */
  traces: traceRecord.nullable(),
  snapshot: courseLine.nullable(),
  /** Sections that were joined to the shell. */
  sections: z.array(courseLine),
  course: z.array(
    z.object({ field: z.string(), before: z.string().nullable(), after: z.string().nullable() }),
  ),
  entries: z.array(recordEntry),
  left: z.array(recordLeft),
})
export type RunReply = z.infer<typeof runReply>

const someDates = z.object(itemDates)
/** What a sheet of a plan's dates, changed elsewhere, would change: `SheetComparison` of `core/formats/sheet/plan-dates.ts`. */
export const sheetReply = z.object({
  changes: z.array(
    z.object({
      id: z.string(),
      title: z.string(),
      row: z.int(),
      was: someDates,
      /** The dates that the item would be held at; null: it would be let go. */
      is: someDates.nullable(),
    }),
  ),
  problems: z.array(z.object({ row: z.int(), title: z.string(), message: z.string() })),
  unchanged: z.int(),
  absent: z.int(),
})
export type SheetReply = z.infer<typeof sheetReply>
