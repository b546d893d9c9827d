import type { Knex } from 'knex'
import { loadBody } from '../courses/bodies.queries'
import { inBatches, selectRows, written } from '../db/rows'
import type { TextOf } from './plain-text'

// Stands for a title with a body: what several courses hold alike is searched once.
const searchedId = `SHA2(CONCAT(i.title, '\\n', IFNULL(i.body_hash, '')), 256)`
/** Larger bodies are not read: they are recordings and pictures. */
const readAtMost = 32 * 1024 * 1024

/**
 * Keeps what is searched of a course: where its titles and texts stand now, and the text of what nobody held before. Set by set, but for texts
 * that must be read. `textOf`: how.
 */
export async function keepSearchable(db: Knex, courseId: string, textOf: TextOf): Promise<void> {
  const names = { courseId }
  await written(db, 'DELETE FROM searched_items WHERE course_id = :courseId', names)
  await written(
    db,
    `INSERT INTO searched_items (course_id, lineage, searched_id)
     SELECT i.course_id, i.lineage, ${searchedId} FROM items i
     WHERE i.course_id = :courseId AND i.state <> 'deleted' AND i.holds IS NULL`,
    names,
  )
  await written(
    db,
    `INSERT IGNORE INTO searched (id, body_hash, title, text)
     SELECT at.searched_id, i.body_hash, MIN(i.title), IFNULL(MIN(other.text), '')
     FROM searched_items at
     JOIN items i ON i.course_id = at.course_id AND i.lineage = at.lineage
     LEFT JOIN searched s ON s.id = at.searched_id
     LEFT JOIN searched other ON other.body_hash = i.body_hash
     WHERE at.course_id = :courseId AND s.id IS NULL AND (i.body_hash IS NULL OR other.id IS NOT NULL)
     GROUP BY at.searched_id, i.body_hash`,
    names,
  )
  await readNewTexts(db, courseId, textOf)
}
/** Keeps what is searched of every course of which nothing is kept yet: those of before courses were searched. */
export async function keepAllSearchable(db: Knex, textOf: TextOf): Promise<number> {
  const courses = await db('items')
    .whereNotExists(db('searched_items').where('searched_items.course_id', db.ref('items.course_id')))
    .distinct<{ course_id: string }[]>('course_id')
  for (const { course_id: course } of courses) await keepSearchable(db, course, textOf)
  return courses.length
}
interface Unread {
  id: string
  body_hash: string
  media_type: string | null
  title: string
  size: number
}
async function readNewTexts(db: Knex, courseId: string, textOf: TextOf): Promise<void> {
  const unread = await selectRows<Unread>(
    db,
    `SELECT at.searched_id AS id, i.body_hash, MIN(i.media_type) AS media_type, MIN(i.title) AS title, b.size
     FROM searched_items at
     JOIN items i ON i.course_id = at.course_id AND i.lineage = at.lineage
     JOIN bodies b ON b.hash = i.body_hash
     LEFT JOIN searched s ON s.id = at.searched_id
     WHERE at.course_id = :courseId AND s.id IS NULL
     GROUP BY at.searched_id, i.body_hash, b.size`,
    { courseId },
  )
  const texts = new Map<string, string>()
  for (const { body_hash: hash, media_type: type, title, size } of unread) {
    if (texts.has(hash)) continue
    const bytes = size > readAtMost ? null : await loadBody(db, hash)
    texts.set(hash, (bytes && (await textOf(bytes, type ?? '', title))) ?? '')
  }
  const rows = unread.map(({ id, body_hash, title }) => ({
    id,
    body_hash,
    title,
    text: texts.get(body_hash) ?? '',
  }))
  for (const batch of inBatches(rows)) await db('searched').insert(batch).onConflict('id').ignore()
}
