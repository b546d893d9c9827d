import type { Knex } from 'knex'
import { dayOf } from '../../core/calendar/day'
import { pastRule, type PastRule, type ShellsReply } from '../../shared/api/shells'
import { loadRules, saveRules } from '../courses/office-rules.queries'
import { refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { isOffice, type Person } from '../people/people.queries'

const name = 'past'
/** As long as the office has laid nothing down: past once classes have ended, archived two years later (common practice). */
const usual: PastRule = { pastAfter: 0, archivedAfter: 730 }

/** When a course counts as past or archived, as the office has laid it down. */
export async function readPastRule(db: Knex, person: Person): Promise<ShellsReply['pastRule']> {
  const found = await loadRules(db, name)
  return {
    ...(found ? pastRule.parse(found.value) : usual),
    revision: found?.revision ?? 0,
    may: { edit: isOffice(person) },
  }
}
/** Lays down when a course counts as past or archived. The rule must have been read at the revision. */
export async function savePastRule(
  db: Knex,
  person: Person,
  revision: number,
  rule: PastRule,
): Promise<{ revision: number }> {
  if (!(await saveRules(db, name, revision, rule, person.id))) throw refuse('rules-changed')
  await writeLog(db, { action: 'past.saved', personId: person.id, detail: rule })
  return { revision: revision + 1 }
}

interface Days {
  classesFrom: string
  classesTo: string
}
/** How a term stands on a day. */
export function whenOf(
  { classesFrom, classesTo }: Days,
  today: string,
  { pastAfter, archivedAfter }: PastRule,
): ShellsReply['terms'][number]['when'] {
  if (classesFrom > today) return 'upcoming'
  const since = dayOf(today) - dayOf(classesTo)
  if (since > archivedAfter) return 'archived'
  return since > pastAfter ? 'past' : 'underway'
}
