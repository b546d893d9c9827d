import type { Knex } from 'knex'
import { now, stampOf } from '../clock'
import { json, jsonOf } from '../db/rows'
import { keepLinks } from './links.queries'
import type { Readable, ReadableForm } from './readable-body'
import { readableVersion } from './readable-html'

/** What was made of a body to be shown, where that was by the version of now. */
export async function keptReadable(db: Knex, hash: string, form: ReadableForm): Promise<Readable | null> {
  const row = await db('readable_bodies').where({ hash, form, version: readableVersion }).first('value')
  return row ? jsonOf(row.value) : null
}
export async function keepReadable(db: Knex, hash: string, value: Readable): Promise<void> {
  await db('readable_bodies')
    .insert({
      hash,
      form: value.form,
      version: readableVersion,
      value: json(value),
      made_at: stampOf(now()),
    })
    .onConflict(['hash', 'form'])
    .merge(['version', 'value', 'made_at'])
  await keepLinks(db, hash, value)
}
/** Bodies of a course's items of some media types that nothing was made of yet by the version of now. */
export const withoutReadable = (
  db: Knex,
  courseId: string,
  mediaType: string,
  form: ReadableForm,
): Promise<{ hash: string; size: number }[]> =>
  db('items')
    .join('bodies', 'bodies.hash', 'items.body_hash')
    .where({ course_id: courseId, media_type: mediaType })
    .whereNotExists(
      db('readable_bodies')
        .where({ form, version: readableVersion })
        .where('readable_bodies.hash', db.ref('bodies.hash')),
    )
    .distinct('bodies.hash', 'bodies.size')
