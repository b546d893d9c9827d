import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import type { CourseLine } from '../../shared/api/courses'
import type { RunRecord } from '../../shared/api/run-record'
import type { Person } from '../people/people.queries'
import { readRun } from './runs'

const courseOf = ({ code, section, title, term }: CourseLine): RunRecord['into'] => ({
  code,
  section,
  title,
  term: term.name,
})
/** The record of a run as a document of its own, which needs nothing of the application to be read. */
export async function recordDocument(db: Knex, person: Person, id: string): Promise<RunRecord> {
  const run = await readRun(db, person, id)
  return {
    format: 'northtide-run',
    version: 1,
    id: run.id,
    source: courseOf(run.source),
    into: courseOf(run.target),
    by: run.by,
    startedAt: run.startedAt,
    finishedAt: run.finishedAt,
    undoneAt: run.undoneAt,
    inPlace: run.snapshot !== null,
    sections: run.sections.map(courseOf),
    effect: run.effect,
    shell: run.course,
    entries: run.entries,
    left: run.left,
    audit: run.audit,
    searched: run.traces,
  }
}
/** `record HYD 240-01 Spring 2027`, as a file is named. */
export const recordName = ({ into }: RunRecord): string =>
  `record ${codeText(into)} ${into.term}`.replace(/[^\p{L}\p{N} .-]+/gu, ' ')
