import type { May } from '../auth/may'
import { notFound } from '../errors/refusal'
import { findUpload } from './uploads.queries'

/** The one who sent a file. */
export const ownsTheUpload: May<{ id: string }> = {
  name: 'sent the file',
  allow: async ({ db, person, params }) =>
    (await findUpload(db, params.id))?.personId === person.id || notFound('This file'),
}
