import type { Knex } from 'knex'
import { validYears } from '../../core/calendar/zone'
import { knownSettings } from '../../core/course/settings'
import type { WallTime } from '../../core/calendar/day'
import { zoneRules } from '../calendars/zones'
import { loadCalendar } from '../calendars/terms.queries'
import { inSnapshot } from '../db/transaction'
import type { CourseLedger } from '../../shared/api/ledger'
import { loadBases } from './carried.queries'
import { loadOutline, loadSettings } from './content.queries'
import { contentOf, sectionsOf } from './sections.queries'
import { itemsWorkedOn } from './student-data.queries'

/** What the ledger of a course needs beside its outline: how a run left it, its settings, what was removed, and what students worked on. */
export const readCourseLedger = (db: Knex, courseId: string): Promise<CourseLedger> =>
  inSnapshot(db, async trx => {
    const contentId = await contentOf(trx, courseId)
    const settings = await loadSettings(trx, courseId)
    const nodes = await loadOutline(trx, courseId, new Set(), true)
    const worked = new Set<string>()
    for (const id of [contentId, ...(await sectionsOf(trx, contentId))])
      for (const lineage of await itemsWorkedOn(trx, id)) worked.add(lineage)
    return {
      // A section's own dates are not kept as a run wrote them.
      asRun: contentId === courseId ? await datesAsRun(trx, courseId) : {},
      settings: Object.fromEntries([...settings].map(([lineage, each]) => [lineage, knownSettings(each)])),
      removed: nodes.flatMap(({ lineage, title, type, kind, state }) =>
        state === 'deleted' ? [{ lineage, title, type, kind }] : [],
      ),
      worked: [...worked],
      zone: zoneRules((await loadCalendar(trx, courseId)).timeZone, validYears),
    }
  })
/** The dates of what a run brought, as it wrote them. */
async function datesAsRun(db: Knex, courseId: string): Promise<CourseLedger['asRun']> {
  const bases = await loadBases(db, courseId)
  return Object.fromEntries(
    bases.flatMap(({ how, file, lineage, parts }) => {
      if (how !== 'carried' || file || parts.dates === null) return []
      const [opens, due, closes] = parts.dates.split(' ').map(at => (at ? (at as WallTime) : null))
      return [[lineage, { opens: opens ?? null, due: due ?? null, closes: closes ?? null }]]
    }),
  )
}
