import { answerOf, editBy, type Trace, type TraceDecisions } from '../student-data/traces/trace'
import { editsByThing, redactedLine, titlePart } from '../student-data/traces/redact'

/** What a thing of a source comes as once its traces are settled. */
export interface RedactedThing {
  /** Its title without traces; null where none stands in it. */
  readonly title: string | null
  /** Stands for what changes in its text, and in its settings or details; null: nothing does. */
  readonly text: string | null
  readonly settings: string | null
  /** What it is called in its package names a student. */
  readonly hidesIdentifier: boolean
}
export type RedactedThings = ReadonlyMap<string, RedactedThing>

const inSettings = new Set(['settings', 'details', 'fileName'])
/** What is taken out of which thing, from the traces that were found and what is decided of them. */
export function redactedThings(traces: readonly Trace[], decisions: TraceDecisions): RedactedThings {
  const edits = editsByThing(traces, decisions)
  const things = new Map<
    string,
    { text: string[]; settings: string[]; title: string | null; hides: boolean }
  >()
  for (const trace of traces) {
    const answer = answerOf(trace, decisions)
    if (editBy(trace, answer) === null) continue
    const thing = things.get(trace.on) ?? { text: [], settings: [], title: null, hides: false }
    things.set(trace.on, thing)
    const isOwnName = trace.place === 'fileName' && trace.file === null
    if (trace.place === 'title') thing.title = redactedLine(trace.title, edits.get(trace.on), titlePart)
    else if (trace.place === 'identifier') thing.hides = true
    else if (inSettings.has(trace.place) && (trace.place !== 'fileName' || isOwnName))
      thing.settings.push(`${trace.id} ${answer}`)
    else thing.text.push(`${trace.id} ${answer}`)
  }
  const mark = (changes: string[]): string | null => (changes.length > 0 ? changes.sort().join() : null)
  return new Map(
    [...things].map(([on, { text, settings, title, hides }]) => [
      on,
      { title, text: mark(text), settings: mark(settings), hidesIdentifier: hides },
    ]),
  )
}

/**
 * Titles as the record tells them: it names nobody. What was decided of a name is so told; a name that stays, and one in something that stayed
 * behind, of which nobody decided anything, is told as “a student”.
 */
export function titlesNamingNobody(
  traces: readonly Trace[],
  decisions: TraceDecisions,
): (title: string) => string {
  const inTitles = traces.filter(({ place, weight }) => place === 'title' && weight !== 'doubtful')
  const hidden = Object.fromEntries(
    inTitles.map(trace => [
      trace.id,
      {
        does: answerOf(trace, decisions) === 'remove' ? ('remove' as const) : ('role' as const),
        because: '',
        by: '',
      },
    ]),
  )
  const [asDecided, told] = [editsByThing(inTitles, decisions), editsByThing(inTitles, hidden)]
  const titles = new Map<string, string>()
  for (const { on, title } of inTitles) {
    const nobody = redactedLine(title, told.get(on), titlePart)
    titles.set(title, nobody).set(redactedLine(title, asDecided.get(on), titlePart), nobody)
  }
  return title => titles.get(title) ?? title
}
