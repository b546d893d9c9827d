import { readFileSync } from 'node:fs'
import {
  traceSearch,
  type SearchedPart,
  type SearchedPeople,
  type SearchedThing,
} from '../../core/student-data/traces/find'
import type { TracedPerson } from '../../core/student-data/traces/people'
import { openBody } from '../../core/student-data/traces/readers/open'
import type { FileFacts, ReadPdf } from '../../core/student-data/traces/readers/reader'
import { bodyPart, editsByThing, redactedBody } from '../../core/student-data/traces/redact'
import type { Looked, Trace, TraceAnswer, TraceDecisions } from '../../core/student-data/traces/trace'

/** A case of `tests/cases/traces`. */
export const traceCases = (name: string): unknown =>
  JSON.parse(readFileSync(new URL(`../cases/traces/${name}.json`, import.meta.url), 'utf8'))
export const tracedRoster = (): TracedPerson[] =>
  (traceCases('roster') as Omit<TracedPerson, 'phones'>[]).map(person => ({ ...person, phones: [] }))
export const searchedFor = (
  students: readonly TracedPerson[],
  more: Partial<SearchedPeople> = {},
): SearchedPeople => ({ students, alsoHere: new Set(), staff: [], keyOf: null, ...more })
export const tracedThing: SearchedThing = {
  on: '11111111-1111-5111-8111-111111111111',
  entity: 'item',
  side: 0,
  title: '',
  itemKind: 'page',
}
export interface LookedThrough {
  traces: Trace[]
  passedOver: Looked['passedOver']
  unseen: string[]
  /** The file once these are decided; what is proposed happens to the others. */
  redacted: (decisions: TraceDecisions) => Uint8Array
}
/** Looks through a file as a search does, and takes out of it what is decided. */
export async function lookedThroughFile(
  file: Partial<FileFacts> & Pick<FileFacts, 'bytes'>,
  people: SearchedPeople,
  readPdf: ReadPdf | null = null,
): Promise<LookedThrough> {
  const opened = await openBody({ name: '', mediaType: '', ...file }, readPdf)
  if ('why' in opened) return { traces: [], passedOver: [], unseen: [opened.why], redacted: () => file.bytes }
  const { open, reader } = opened
  const parts: SearchedPart[] = open.parts.map(part => ({
    part: bodyPart(part.name),
    file: part.file,
    segments: part.segments,
    canWrite: part.canWrite && open.write !== null,
  }))
  const search = traceSearch(people)
  search.look(tracedThing, { parts, isTable: reader.isTable })
  const result = search.result()
  return {
    ...result,
    unseen: open.unseen.map(({ name, why }) => `${name}: ${why}`),
    redacted: decisions => {
      const edits = editsByThing(result.traces, decisions).get(tracedThing.on)
      return (edits && redactedBody(open, edits)) ?? file.bytes
    },
  }
}
/** One decision for all of some traces. */
export const decidedAll = (traces: readonly Trace[], does: TraceAnswer): TraceDecisions =>
  Object.fromEntries(
    traces.map(({ id }) => [id, { does, because: does === 'keep' ? 'for a test' : '', by: '' }]),
  )
