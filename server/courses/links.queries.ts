import type { Knex } from 'knex'
import { parseLineageLink } from '../../core/course/lineage'
import { inBatches, jsonOf, selectRows } from '../db/rows'
import type { ItemRow } from '../db/tables'
import type { Shown } from './shown/body'

export interface LinkLine {
  from: string
  to: string
}
const lineageLinks = /northtide:([0-9a-f-]{36})/g
/** Keeps what a body links to within its course, once it was made ready to be read. */
export async function keepLinks(db: Knex, hash: string, shown: Shown): Promise<void> {
  const found = new Set([...JSON.stringify(shown).matchAll(lineageLinks)].flatMap(match => match[1] ?? []))
  const rows = [...found].map(lineage => ({ hash, lineage }))
  for (const batch of inBatches(rows)) await db('body_links').insert(batch).onConflict().ignore()
}
/** The lineage keys that settings name: files handed out with a task, files that a page is made of. */
function linkedInSettings(settings: Record<string, unknown>): string[] {
  const listed = (name: string): string[] => {
    const value = settings[name]
    return Array.isArray(value) ? value.map(String) : []
  }
  return [...listed('needs'), ...listed('attachments').flatMap(link => parseLineageLink(link)?.lineage ?? [])]
}
/** What links to what in some courses: in texts, and by the files that go with them. */
export async function loadLinks(db: Knex, courseIds: readonly string[]): Promise<LinkLine[]> {
  if (courseIds.length === 0) return []
  const ids = [...courseIds]
  const inText = await selectRows<LinkLine>(
    db,
    `SELECT DISTINCT i.lineage AS \`from\`, l.lineage AS \`to\`
     FROM items i JOIN body_links l ON l.hash = i.body_hash WHERE i.course_id IN (:ids)`,
    { ids },
  )
  const rows = await selectRows<Pick<ItemRow, 'lineage' | 'settings'>>(
    db,
    `SELECT lineage, settings FROM items
     WHERE course_id IN (:ids) AND (settings LIKE '%"needs"%' OR settings LIKE '%northtide:%')`,
    { ids },
  )
  const inSettings = rows.flatMap(({ lineage, settings }) =>
    linkedInSettings(jsonOf(settings)).map(to => ({ from: lineage, to })),
  )
  return [...inText, ...inSettings]
}
