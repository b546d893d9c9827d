import type { Knex } from 'knex'
import { itemKinds } from '../../../core/course/model'
import { itemKindDefinitions } from '../../../core/course/kinds'
import { log } from '../../http/logger'
import { loadBody } from '../bodies.queries'
import { makeShown, type Shown, type ShownForm } from './body'
import { makeInThread } from './thread'
import * as queries from './shown.queries'

const kib = 1024
/** A page that is longer is not shown; it can be downloaded. */
export const shownAtMost = 4 * kib * kib
/** What is longer is not made while others wait: some tens of milliseconds. */
const inPlaceAtMost = 64 * kib

/** A body by its hash, or a text of its own. */
export interface Source {
  hash: string
  size: number
  load: () => Promise<Uint8Array | null>
}
export const bodySource = (db: Knex, hash: string, size: number): Source => ({
  hash,
  size,
  load: () => loadBody(db, hash),
})
/** What may be shown of a body: as it was kept when it was read in, else made now, and kept. Null where it is too long, or cannot be made. */
export async function shownBody(db: Knex, source: Source, form: ShownForm): Promise<Shown | null> {
  const { hash, size } = source
  if (size > shownAtMost) return null
  const kept = await queries.keptShown(db, hash, form)
  if (kept) return kept
  const bytes = await source.load()
  if (!bytes) return null
  const made =
    size <= inPlaceAtMost ? makeShown(bytes, form) : await makeInThread(hash, bytes, form).catch(notMade)
  if (made) await queries.keepShown(db, hash, made)
  return made
}
function notMade(error: unknown): null {
  log.error({ err: error }, 'a page could not be made ready to be shown')
  return null
}

/** Media types of pages and of questions, with what is made of each. */
const forms = { 'text/html': 'page', 'application/xml': 'questions' } as const
const holdQuestions = itemKinds.filter(kind => itemKindDefinitions[kind].shows === 'questions')
/** What is made of an item's body to be shown; null: it is a file. */
export function formOf({
  kind,
  mediaType,
}: {
  kind: (typeof itemKinds)[number]
  mediaType: string | null
}): ShownForm | null {
  if (mediaType === 'text/html') return 'page'
  return mediaType === 'application/xml' && holdQuestions.includes(kind) ? 'questions' : null
}
/** Makes everything of a course ready to be shown, once, while it is brought in: in the thread that reads files, where nobody waits. */
export async function makeShownOfCourse(db: Knex, courseId: string): Promise<void> {
  for (const [mediaType, form] of Object.entries(forms))
    for (const { hash, size } of await queries.notYetShown(db, courseId, mediaType, form)) {
      if (size > shownAtMost) continue
      const bytes = await loadBody(db, hash)
      if (bytes) await queries.keepShown(db, hash, makeShown(bytes, form))
    }
}
