import { traceSearch, type SearchedPart } from '../../core/student-data/traces/find'
import { traceKinds, type TracedPerson } from '../../core/student-data/traces/people'
import type { KeyOf } from '../../core/student-data/traces/scan'
import { readPdf } from '../../server/search/pdf'
import { tracePlacesOf, type Put } from './trace-places'
import { lookedThroughFile, searchedFor, tracedThing } from './traces'

/** A trace that was planted: where, in which form, in which words, and which of them are somebody's. */
export interface Plant {
  readonly where: string
  readonly place: string
  readonly form: string
  readonly text: string
  readonly trace: string
}
/** How a planted trace is told: as somebody in full, as one name alone, only as a file that was not looked into, or not at all. */
export type ToldAs = 'in full' | 'alone' | 'not looked into' | 'unsaid'

/** A keyed hash for tests, of digits that are no secret. */
export const plainKey: KeyOf = digits => `key of ${digits}`
const isPut = (put: Put | readonly SearchedPart[]): put is Put => 'bytes' in put
/** Looks for a planted trace, in a search of its own. */
export async function toldAs(
  { where, place, text, trace }: Plant,
  students: readonly TracedPerson[],
): Promise<ToldAs> {
  const put = tracePlacesOf[where]?.[place]
  if (!put) throw new Error(`there is no ${place} in ${where}`)
  const made = await put(text)
  const people = searchedFor(students, { keyOf: plainKey })
  const { traces, unseen } = isPut(made)
    ? await lookedThroughFile(made, people, readPdf)
    : { traces: inParts(made, people), unseen: [] }
  const bare = (words: string): string => words.replace(/[^\p{L}\p{N}]/gu, '').toLowerCase()
  const found = traces.filter(
    each => bare(trace).includes(bare(each.text)) || bare(each.text).includes(bare(trace)),
  )
  if (found.some(({ kind }) => traceKinds[kind].isStrong)) return 'in full'
  if (found.length > 0) return 'alone'
  return unseen.length > 0 ? 'not looked into' : 'unsaid'
}
function inParts(parts: readonly SearchedPart[], people: ReturnType<typeof searchedFor>) {
  const search = traceSearch(people)
  search.look(tracedThing, { parts, isTable: false })
  return search.result().traces
}
/** How many of some plants are told how, by where they stand. */
export type Counts = ReadonlyMap<string, Readonly<Record<ToldAs, number>>>
export async function countsOf(
  plants: readonly Plant[],
  students: readonly TracedPerson[],
): Promise<{ counts: Counts; missed: Plant[] }> {
  const counts = new Map<string, Record<ToldAs, number>>()
  const missed: Plant[] = []
  for (const plant of plants) {
    const as = await toldAs(plant, students)
    const row = counts.get(plant.where) ?? { 'in full': 0, alone: 0, 'not looked into': 0, unsaid: 0 }
    counts.set(plant.where, { ...row, [as]: row[as] + 1 })
    if (as === 'unsaid' || as === 'not looked into') missed.push(plant)
  }
  return { counts, missed }
}
