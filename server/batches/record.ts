import type { Knex } from 'knex'
import { codeText } from '../../core/course/code-text'
import { writeCsv } from '../../core/formats/sheet/csv'
import type { PairLine, PairState } from '../../shared/api/batches'
import { isoInstant } from '../clock'
import type { Person } from '../people/people.queries'
import { pairLines } from './batches'
import * as queries from './batches.queries'

const columns = [
  'line',
  'source',
  'source term',
  'shell',
  'state',
  'what stands against it',
  'items added',
  'replaced',
  'removed',
  'dates written',
  'dates to settle',
  'else to settle',
  'ended',
  'run',
] as const
const stateWords: Readonly<Record<PairState, string>> = {
  waiting: 'not tried yet',
  ready: 'ready, not run',
  look: 'needs a look',
  exception: 'exception',
  out: 'left out',
  done: 'filled',
  failed: 'failed, nothing written',
  undone: 'undone, the shell is as it was',
}
const nameOf = (course: PairLine['source'], text: string): string => (course ? codeText(course) : text)

/** The record of a batch: a line for each pair, with what was written or why nothing was (CSV). Its columns `source`, `source term` and `shell` can be read again as a table of pairs. */
export async function batchRecord(db: Knex, person: Person, id: string): Promise<string> {
  const pairs = await queries.pairsOf(db, id)
  const lines = await pairLines(db, person, id, pairs)
  const ended = await queries.endsOf(db, id)
  const rows = lines.map(line => {
    const { effect } = line
    const at = ended.get(line.id)
    return [
      line.number,
      nameOf(line.source, line.texts.source),
      line.source?.term.name,
      nameOf(line.shell, line.texts.shell),
      stateWords[line.state],
      line.problem && `${line.problem.title}. ${line.problem.detail}`,
      effect?.items,
      effect?.replaced,
      effect?.cleared,
      effect?.dates,
      effect?.settle,
      effect?.alsoSettle,
      at && isoInstant(at),
      line.run,
    ].map(cell => String(cell ?? ''))
  })
  return writeCsv(columns, rows)
}
