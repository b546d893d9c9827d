import type { Knex } from 'knex'
import { now, stampOf } from '../../clock'
import { json, jsonOf } from '../../db/rows'
import { keepLinks } from '../links.queries'
import type { Shown, ShownForm } from './body'
import { shownVersion } from './html'

/** What was made of a body to be shown, where that was by the version of now. */
export async function keptShown(db: Knex, hash: string, form: ShownForm): Promise<Shown | null> {
  const row = await db('readable_bodies').where({ hash, form, version: shownVersion }).first('value')
  return row ? jsonOf(row.value) : null
}
export async function keepShown(db: Knex, hash: string, value: Shown): Promise<void> {
  await db('readable_bodies')
    .insert({
      hash,
      form: value.form,
      version: shownVersion,
      value: json(value),
      made_at: stampOf(now()),
    })
    .onConflict(['hash', 'form'])
    .merge(['version', 'value', 'made_at'])
  await keepLinks(db, hash, value)
}
/** Bodies of a course's items of some media types that nothing was made of yet by the version of now. */
export const notYetShown = (
  db: Knex,
  courseId: string,
  mediaType: string,
  form: ShownForm,
): Promise<{ hash: string; size: number }[]> =>
  db('items')
    .join('bodies', 'bodies.hash', 'items.body_hash')
    .where({ course_id: courseId, media_type: mediaType })
    .whereNotExists(
      db('readable_bodies')
        .where({ form, version: shownVersion })
        .where('readable_bodies.hash', db.ref('bodies.hash')),
    )
    .distinct('bodies.hash', 'bodies.size')
