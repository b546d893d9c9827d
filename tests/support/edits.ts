import type { Knex } from 'knex'
import { hashOf, loadBody, storeBodies } from '../../server/courses/bodies.queries'

/** Edits the text of a course's item as somebody would who writes there: a new body takes the place of the old one. */
export async function editText(
  db: Knex,
  course: string,
  title: string,
  change: (html: string) => string,
): Promise<void> {
  const item = await db('items').where({ course_id: course, title }).first('lineage', 'body_hash')
  const was = item?.body_hash ? await loadBody(db, item.body_hash) : null
  if (!item || !was) throw new Error(`${title} has no text`)
  const html = change(was.toString('utf8'))
  if (html === was.toString('utf8')) throw new Error(`the edit changes nothing in ${title}`)
  const bytes = Buffer.from(html)
  await storeBodies(db, [bytes])
  await db('items')
    .where({ course_id: course, lineage: item.lineage })
    .update({ body_hash: hashOf(bytes) })
}
