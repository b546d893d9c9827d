import type { Knex } from 'knex'
import type { ItemKind } from '../../core/course/model'
import { now, stampOf } from '../clock'
import { json, jsonOf, newId, written } from '../db/rows'
import type { ShareRow } from '../db/tables'
import { shortName, type NamedRow } from '../people/names'

export interface Share {
  id: string
  courseId: string
  by: string
  code: string | null
  org: { id: string; name: string } | null
  withheld: ItemKind[]
  createdAt: string
  expiresAt: string | null
  revokedAt: string | null
  uses: number
}
type ShareColumns = ShareRow & NamedRow & { org_name: string | null; uses: number }
const shareRows = (db: Knex) =>
  db('shares')
    .join('people', 'people.id', 'shares.person_id')
    .leftJoin('orgs', 'orgs.id', 'shares.org_id')
    .select<ShareColumns[]>(
      'shares.*',
      'given_name',
      'family_name',
      { org_name: 'orgs.name' },
      db.raw('(SELECT COUNT(*) FROM share_uses WHERE share_id = shares.id) AS uses'),
    )
const shareFrom = (row: ShareColumns): Share => ({
  id: row.id,
  courseId: row.course_id,
  by: shortName(row),
  code: row.code,
  org: row.org_id === null ? null : { id: row.org_id, name: row.org_name ?? '' },
  withheld: jsonOf(row.withheld),
  createdAt: row.created_at,
  expiresAt: row.expires_at,
  revokedAt: row.revoked_at,
  uses: row.uses,
})

export interface NewShareRow {
  courseId: string
  personId: string
  code: string | null
  orgId: string | null
  withheld: ItemKind[]
  expiresAt: string | null
}
export async function insertShare(db: Knex, share: NewShareRow): Promise<string> {
  const id = newId()
  await db('shares').insert({
    id,
    course_id: share.courseId,
    person_id: share.personId,
    code: share.code,
    org_id: share.orgId,
    withheld: json(share.withheld),
    created_at: stampOf(now()),
    expires_at: share.expiresAt,
  })
  return id
}
export async function sharesOf(db: Knex, courseId: string): Promise<Share[]> {
  const rows = await shareRows(db).where({ course_id: courseId }).orderBy('shares.id', 'desc')
  return rows.map(shareFrom)
}
export async function findShare(db: Knex, by: { id: string } | { code: string }): Promise<Share | null> {
  const [row] = await shareRows(db).where(
    'id' in by ? 'shares.id' : 'shares.code',
    'id' in by ? by.id : by.code,
  )
  return row ? shareFrom(row) : null
}
/** Takes a share back. False where it was taken back before. */
export async function endShare(db: Knex, id: string, personId: string): Promise<boolean> {
  const ended = await db('shares')
    .where({ id })
    .whereNull('revoked_at')
    .update({ revoked_at: stampOf(now()), revoked_by: personId })
  return ended > 0
}
/** Notes that a person has given a code. False where they had before. */
export async function noteUse(db: Knex, shareId: string, personId: string): Promise<boolean> {
  const noted = await written(
    db,
    `INSERT IGNORE INTO share_uses (share_id, person_id, at) VALUES (:shareId, :personId, :at)`,
    { shareId, personId, at: stampOf(now()) },
  )
  return noted > 0
}
/** The last share of each course that has ended: by whom it was taken back, or that it ran out. */
export async function endedShares(
  db: Knex,
  courseIds: readonly string[],
): Promise<Map<string, { by: string | null; at: string; how: 'taken-back' | 'ran-out' }>> {
  const rows = await db('shares')
    .leftJoin('people', 'people.id', 'shares.revoked_by')
    .whereIn('course_id', courseIds)
    .where(ended => ended.whereNotNull('revoked_at').orWhere('expires_at', '<=', stampOf(now())))
    .orderByRaw('COALESCE(revoked_at, expires_at)')
    .select<(ShareRow & Partial<NamedRow>)[]>('shares.*', 'given_name', 'family_name')
  return new Map(
    rows.map(row => {
      const { given_name, family_name } = row
      const by = given_name && family_name ? shortName({ given_name, family_name }) : null
      const how = row.revoked_at ? ('taken-back' as const) : ('ran-out' as const)
      return [row.course_id, { by, at: row.revoked_at ?? row.expires_at ?? '', how }]
    }),
  )
}
/** Names of the departments that may roll from each of some courses. */
export async function departmentsSharing(
  db: Knex,
  courseIds: readonly string[],
): Promise<{ course_id: string; name: string }[]> {
  return db('shares')
    .join('orgs', 'orgs.id', 'shares.org_id')
    .whereIn('course_id', courseIds)
    .whereNull('revoked_at')
    .where(holds => holds.whereNull('expires_at').orWhere('expires_at', '>', stampOf(now())))
    .select('course_id', 'name')
}
