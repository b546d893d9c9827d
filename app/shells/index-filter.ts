import { dayText } from '~~/core/dates/words'
import type { IndexLine, ShellsReply } from '~~/shared/api/shells'

import { daysText } from '~/composables/words'

export const views = ['now', 'past', 'archived', 'hidden'] as const
export type View = (typeof views)[number]
export const viewNames: Record<View, string> = {
  now: 'Under way and coming',
  past: 'Past',
  archived: 'Archived',
  hidden: 'Hidden',
}

/** A course with the text it is found by, made once: filtering thousands then takes no time. */
export interface Findable {
  line: IndexLine
  text: string
  view: View
}
export function findable(reply: ShellsReply): Findable[] {
  const viewOf = (line: IndexLine): View => {
    const when = reply.terms[line.term]!.when
    return line.hidden
      ? 'hidden'
      : line.origin === 'snapshot' || when === 'archived'
        ? 'archived'
        : when === 'past'
          ? 'past'
          : 'now'
  }
  const courses = reply.courses
    .filter(line => line.origin !== 'template')
    .map(line => ({
      line,
      view: viewOf(line),
      text: `${line.code} ${line.code.replace(/\s/g, '')} ${line.section} ${line.title} ${line.label ?? ''} ${reply.terms[line.term]!.name} ${line.people}`.toLowerCase(),
    }))
  const byName = (a: Findable, b: Findable): number =>
    a.line.code < b.line.code ? -1 : a.line.code > b.line.code ? 1 : a.line.section < b.line.section ? -1 : 1
  return courses.sort((a, b) => a.line.term - b.line.term || byName(a, b))
}

export type Row = { head: string; note: string; key: string } | { line: IndexLine; key: string }
/** The rows of a view whose text holds every word: pinned ones first, then term by term, the nearest first (in the past: the latest). */
export function rowsOf(
  all: readonly Findable[],
  reply: ShellsReply,
  view: View,
  words: readonly string[],
): { rows: Row[]; shown: IndexLine[]; counts: Record<View, number> } {
  const counts: Record<View, number> = { now: 0, past: 0, archived: 0, hidden: 0 }
  const found: IndexLine[] = []
  for (const entry of all) {
    if (!words.every(word => entry.text.includes(word))) continue
    counts[entry.view]++
    if (entry.view === view) found.push(entry.line)
  }
  const rows: Row[] = []
  const shown: IndexLine[] = []
  const group = (head: string, note: string, lines: IndexLine[]): void => {
    if (lines.length === 0) return
    rows.push({ head, note, key: `head ${head}` }, ...lines.map(line => ({ line, key: line.id })))
    shown.push(...lines)
  }
  group(
    'Pinned',
    '',
    found.filter(line => line.pinned),
  )
  const byTerm = new Map<number, IndexLine[]>()
  for (const line of found)
    if (!line.pinned) {
      const list = byTerm.get(line.term)
      if (list) list.push(line)
      else byTerm.set(line.term, [line])
    }
  const order = reply.terms.map((_, at) => at)
  if (view !== 'now') order.reverse()
  for (const at of order) {
    const term = reply.terms[at]!
    group(
      term.name,
      term.when === 'past' || term.when === 'archived'
        ? `classes ended ${dayText(term.classesTo)} ${term.classesTo.slice(0, 4)}`
        : `classes ${term.daysToClasses > 0 ? 'begin' : 'began'} ${daysText(term.daysToClasses)}, ${dayText(term.classesFrom)}`,
      byTerm.get(at) ?? [],
    )
  }
  return { rows, shown, counts }
}
