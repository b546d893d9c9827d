import { z } from 'zod'
import { effect, runReply } from './plans'

const course = z.object({
  code: z.string(),
  section: z.string(),
  title: z.string(),
  term: z.string().describe('Name of its term.'),
})
/** The record of a run as a document to keep: what was added, replaced, cleared, left, dated, flagged and searched, by whom and when. */
export const runRecord = z.object({
  format: z.literal('northtide-run'),
  version: z.literal(1),
  id: z.uuid(),
  source: course,
  into: course,
  by: z.string().describe('Who asked for the run.'),
  startedAt: z.string().describe('An instant, ISO 8601, in UTC.'),
  finishedAt: z.string(),
  undoneAt: z.string().nullable(),
  inPlace: z.boolean(),
  sections: z.array(course).describe('Sections that were joined to the shell.'),
  effect: effect.describe('The whole of it in numbers.'),
  shell: runReply.shape.course.describe('What was changed of the shell itself: names and windows.'),
  entries: runReply.shape.entries.describe(
    'Every thing that was written, in the order of the shell. Dates are wall times in the zone of its term.',
  ),
  left: runReply.shape.left.describe('What stayed behind, and why.'),
  audit: runReply.shape.audit.describe('Student data by kind: before, cleared, after, and on new items.'),
  searched: runReply.shape.traces.describe(
    'What was searched for traces of students; null of runs before that.',
  ),
})
export type RunRecord = z.infer<typeof runRecord>
