import { answerOf, insteadOf, type Trace, type TraceDecisions } from '../student-data/traces/trace'

/** What a thing of a source comes as once its traces are settled. */
export interface CleanedThing {
  /** Its title without traces; null where none stands in it. */
  readonly title: string | null
  /** Stands for what changes in its text, and in its settings or details; null: nothing does. */
  readonly text: string | null
  readonly settings: string | null
}
export type CleanedThings = ReadonlyMap<string, CleanedThing>

/** A line with a trace taken out of it, or a role in its place, wherever the words stand. */
function withoutTrace(line: string, text: string, answer: 'remove' | 'role'): string {
  const parts = line.split(text)
  let made = parts[0] ?? ''
  for (const part of parts.slice(1)) made += insteadOf(answer, made) + part
  return made.replace(/ {2,}/g, ' ').trim()
}
/** What is taken out of which thing, from the traces that were found and what is decided of them. */
export function cleanedThings(traces: readonly Trace[], decisions: TraceDecisions): CleanedThings {
  const things = new Map<string, { title: string | null; text: string[]; settings: string[] }>()
  for (const trace of traces) {
    const answer = answerOf(trace, decisions)
    if (answer === null || answer === 'keep') continue
    const thing = things.get(trace.on) ?? { title: null, text: [], settings: [] }
    things.set(trace.on, thing)
    if (trace.place === 'title') thing.title = withoutTrace(thing.title ?? trace.title, trace.text, answer)
    else if (trace.place === 'settings' || trace.place === 'details')
      thing.settings.push(`${trace.id} ${answer}`)
    else thing.text.push(`${trace.id} ${answer}`)
  }
  const mark = (changes: string[]): string | null => (changes.length > 0 ? changes.sort().join() : null)
  return new Map(
    [...things].map(([on, { title, text, settings }]) => [
      on,
      { title, text: mark(text), settings: mark(settings) },
    ]),
  )
}
