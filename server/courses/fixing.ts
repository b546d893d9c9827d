import type { Knex } from 'knex'
import { inTransaction } from '../db/transaction'
import { notFound } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { loadItem, markFixed } from './content.queries'
import { lockCourse } from './courses.queries'

/** Marks an item as the institution's, so that no rollover changes it; or takes the mark off. Of a section it is the content's that is marked. */
export async function fixItem(
  db: Knex,
  person: Person,
  courseId: string,
  lineage: string,
  fixed: boolean,
): Promise<{ fixed: boolean }> {
  await inTransaction(db, async trx => {
    await lockCourse(trx, courseId)
    const item = await loadItem(trx, courseId, lineage)
    if (!item) throw notFound('This item')
    await markFixed(trx, courseId, lineage, fixed)
    await writeLog(trx, {
      action: fixed ? 'item.fixed' : 'item.released',
      personId: person.id,
      courseId,
      detail: { title: item.title },
    })
  })
  return { fixed }
}
