import { z } from 'zod'
import { filledLine, line } from '../../core/text'
import { courseLine, courseOrigins, id, suggestion } from './courses'
import { rosterChange } from './registrar'
import { runOutcome, writingNow } from './writing'

const days = z.int('Give a whole number of days.')
/** When a course counts as past, and when as archived: days after its classes have ended. */
export const pastRule = z
  .object({
    pastAfter: days.min(0, 'At least 0 days.').max(400, 'At most 400 days.'),
    archivedAfter: days.min(1, 'At least 1 day.').max(7300, 'At most 7300 days.'),
  })
  .refine(rule => rule.archivedAfter > rule.pastAfter, {
    path: ['archivedAfter'],
    error: 'A course is past before it is archived: give more days than for past.',
  })
export type PastRule = z.infer<typeof pastRule>
export const pastRuleSaved = z.object({ revision: z.int() })

/**
 * Every course of a person, short, so that the whole list can be filtered where it is shown: id, code, section, title, own label, term (its
 * place among `terms`), people, what the person is to it, and marks.
 */
export const shellsReply = z.object({
  today: z.string(),
  terms: z.array(
    z.object({
      code: z.string(),
      name: z.string(),
      classesFrom: z.string(),
      classesTo: z.string(),
      timeZone: z.string(),
      when: z.enum(['upcoming', 'underway', 'past', 'archived']),
      daysToClasses: z.int(),
    }),
  ),
  courses: z.array(
    z.object({
      id,
      code: z.string(),
      section: z.string(),
      title: z.string(),
      label: z.string().nullable(),
      term: z.int(),
      people: z.string(),
      /** Everybody who instructs or assists, by full name: what the list is searched by. */
      staff: z.string(),
      role: z.string().nullable(),
      origin: z.enum(courseOrigins),
      pinned: z.boolean(),
      hidden: z.boolean(),
      missing: z.boolean(),
    }),
  ),
  /** Plans that wait for a shell. */
  waiting: z.array(
    z.object({ planId: id, course: courseLine, sources: z.array(courseLine), updatedAt: z.string() }),
  ),
  /** When a course counts as past or archived, as the office has laid it down. */
  pastRule: z.object({
    pastAfter: z.int(),
    archivedAfter: z.int(),
    revision: z.int(),
    may: z.object({ edit: z.boolean() }),
  }),
  registrar: z.object({
    configured: z.boolean(),
    at: z.string().nullable(),
    state: z.enum(['none', 'waiting', 'new', 'same', 'failed']),
    changes: z.int(),
  }),
})
export type ShellsReply = z.infer<typeof shellsReply>
export type IndexLine = ShellsReply['courses'][number]

/** What is looked up only for the rows in sight. */
export const shellLine = z.object({
  course: courseLine,
  daysToClasses: z.int(),
  suggestion: suggestion.nullable(),
  plan: z
    .object({ id, source: courseLine, updatedAt: z.string(), by: z.string(), outcome: runOutcome })
    .nullable(),
  lastRun: z.object({ id, at: z.string(), by: z.string(), items: z.int(), dates: z.int() }).nullable(),
  writing: writingNow,
  /** Plans that wait and would fit this shell. */
  fits: z.array(z.object({ planId: id, title: z.string() })),
  changes: z.array(rosterChange.omit({ course: true })),
  mayPlan: z.boolean(),
  mayRun: z.boolean(),
})
export type ShellLine = z.infer<typeof shellLine>
export const shellLinesReply = z.object({ shells: z.array(shellLine) })
export const shellsWanted = z.object({
  ids: z
    .string()
    .max(4000)
    .transform(text => text.split(','))
    .pipe(z.array(id).min(1).max(60)),
})

export const coursePreferences = z.object({
  pinned: z.boolean().optional(),
  hidden: z.boolean().optional(),
  label: line(200)
    .transform(text => text || null)
    .nullable()
    .optional(),
})

const storage = z.object({ bodies: z.int(), own: z.int(), rows: z.int(), rowBytes: z.number() })
/** What can fill a shell, and what each way costs in storage: bytes of bodies that would be kept anew, and of rows. */
export const waysReply = z.object({
  shell: shellLine,
  suggestions: z.array(suggestion),
  storage: z.object({ suggestion: storage.nullable(), files: z.int() }),
  /** Other shells that the same source could fill: sections of the class first. */
  sections: z.array(courseLine),
})
export type WaysReply = z.infer<typeof waysReply>

export const newCourse = z.object({
  term: filledLine(190, 'Choose the term.'),
  code: filledLine(60, 'Give the course code, like HYD 240.'),
  section: line(20).default(''),
  title: filledLine(200, 'Give the title students see.'),
})
export type NewCourse = z.infer<typeof newCourse>
/** Shells with a roster of the registrar's that a new course would stand beside; and the terms there are. */
export const guardReply = z.object({
  terms: z.array(
    z.object({ code: z.string(), name: z.string(), classesFrom: z.string(), classesTo: z.string() }),
  ),
  shells: z.array(courseLine),
  faults: z.array(z.object({ field: z.enum(['title', 'label']), message: z.string() })),
})
export type GuardReply = z.infer<typeof guardReply>
