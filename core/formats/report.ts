import type { CartridgeKind } from '../course/kind'
import { itemKindDefinitions } from '../course/kinds'
import type { CourseNode } from '../course/model'
import type { CartridgeRead } from './cartridge/read'
import type { Finding } from './findings'

export type OutlineKind = 'unit' | CartridgeKind
export interface OutlineEntry {
  title: string
  kind: OutlineKind
  children?: OutlineEntry[]
}
/** An event of a calendar; `lastDay` is the last day of it. */
export interface CalendarEvent {
  title: string
  firstDay: string
  lastDay: string
}
export const fileFormats = [
  'common-cartridge',
  'oneroster',
  'icalendar',
  'term-calendar',
  'course-json',
] as const
export type FileFormat = (typeof fileFormats)[number]

/** What was found in a file. Nothing of it is stored. */
export interface FileReport {
  file: string
  format: FileFormat | null
  outcome: 'read' | 'refused'
  findings: Finding[]
  outline: OutlineEntry[]
  /** Parts by kind; rows by table; events. */
  counts: Record<string, number>
  events: CalendarEvent[]
}

/** The outline of a cartridge: its tree, and after it what nothing in the package shows, needs or leads to. */
export function outlineOf({ content, aside }: Pick<CartridgeRead, 'content' | 'aside'>): {
  outline: OutlineEntry[]
  counts: Record<string, number>
} {
  const counts: Record<string, number> = {}
  const shown = (nodes: readonly CourseNode[]): OutlineEntry[] =>
    nodes.map(node => {
      const kind = node.type === 'unit' ? 'unit' : (itemKindDefinitions[node.kind].inCartridge ?? 'file')
      counts[kind] = (counts[kind] ?? 0) + 1
      return { title: node.title, kind, ...(node.children.length > 0 && { children: shown(node.children) }) }
    })
  return { outline: shown(content.nodes.filter(node => !aside.has(node.lineage))), counts }
}
