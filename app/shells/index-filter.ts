import { dayText } from '~~/core/dates/words'
import type { IndexLine, ShellsReply } from '~~/shared/api/shells'

import { present } from '~/composables/api'
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
export const termOf = (reply: ShellsReply, at: number): ShellsReply['terms'][number] =>
  present(reply.terms[at])
export function findable(reply: ShellsReply): Findable[] {
  const viewOf = (line: IndexLine): View => {
    if (line.hidden) return 'hidden'
    const when = termOf(reply, line.term).when
    if (line.origin === 'snapshot' || when === 'archived') return 'archived'
    return when === 'past' ? 'past' : 'now'
  }
  const textOf = ({ code, section, title, label, term, people, staff }: IndexLine): string =>
    [
      code,
      code.replace(/\s/g, ''),
      ...(section ? [`${code}-${section}`, `${code}-${section}`.replace(/\s/g, '')] : []),
      section,
      title,
      label ?? '',
      termOf(reply, term).name,
      people,
      staff,
    ]
      .join(' ')
      .toLowerCase()
  return reply.courses
    .filter(line => line.origin !== 'template')
    .map(line => ({ line, view: viewOf(line), text: textOf(line) }))
    .sort(
      (a, b) =>
        a.line.term - b.line.term ||
        inOrder(a.line.code, b.line.code) ||
        inOrder(a.line.section, b.line.section),
    )
}
/** The order of code points: fast, and codes are letters and digits. */
function inOrder(a: string, b: string): number {
  if (a === b) return 0
  return a < b ? -1 : 1
}

function noteOf({ when, classesFrom, classesTo, daysToClasses }: ShellsReply['terms'][number]): string {
  if (when === 'past' || when === 'archived')
    return `classes ended ${dayText(classesTo)} ${classesTo.slice(0, 4)}`
  return `classes ${daysToClasses > 0 ? 'begin' : 'began'} ${daysText(daysToClasses)}, ${dayText(classesFrom)}`
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
  for (const line of found) {
    if (line.pinned) continue
    const list = byTerm.get(line.term)
    if (list) list.push(line)
    else byTerm.set(line.term, [line])
  }
  const order = reply.terms.map((_, at) => at)
  if (view !== 'now') order.reverse()
  for (const at of order) {
    const term = termOf(reply, at)
    group(term.name, noteOf(term), byTerm.get(at) ?? [])
  }
  return { rows, shown, counts }
}
