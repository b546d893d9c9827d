import type { Row } from '../../core/formats/oneroster/tables'
import { phoneKeysOf } from '../student-data/phones'

/** What is kept of a person in a bundle, beside how they sign in. */
export const personRow = (row: Row<'users'>) => ({
  source_id: row.sourcedId,
  given_name: row.givenName,
  family_name: row.familyName,
  email: row.email || null,
  middle_name: row.middleName || null,
  nickname: row['metadata.nickname'] || null,
  number: row.identifier || null,
  user_name: row.username || null,
  phone_keys: phoneKeysOf([row.phone, row.sms]),
})
