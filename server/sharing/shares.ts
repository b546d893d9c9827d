import { randomInt } from 'node:crypto'
import type { Knex } from 'knex'
import { kindWords } from '../../core/course/model'
import type { NewShare, SharesReply } from '../../shared/api/shares'
import { isoInstant, now, stampOf } from '../clock'
import { guessing } from '../auth/guesses'
import { departmentsOf } from '../courses/access'
import { loadCourse, orgOfCourse } from '../courses/courses.queries'
import { inTransaction, takeTurn } from '../db/transaction'
import { notFound, refuse } from '../errors/refusal'
import { writeLog } from '../log/log.queries'
import { orgName, orgsById } from '../people/orgs.queries'
import type { Person } from '../people/people.queries'
import * as queries from './shares.queries'

// Letters and figures that are not taken for one another when they are read out.
const letters = 'ABCDEFGHJKMNPQRSTVWXYZ23456789'
const newCode = (): string =>
  Array.from({ length: 9 }, (_, at) => (at === 4 ? '-' : letters[randomInt(letters.length)])).join('')
/** A code as it is kept, from what was typed. */
const codeOf = (typed: string): string =>
  typed
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '')
    .replace(/^(.{4})(.+)$/, '$1-$2')

function stateOf(share: queries.Share): SharesReply['shares'][number]['state'] {
  if (share.revokedAt) return 'revoked'
  return share.expiresAt === null || share.expiresAt > stampOf(now()) ? 'holds' : 'expired'
}
/** Departments that a person may share a course with: theirs, and the course's own. */
async function departmentsFor(db: Knex, person: Person, courseId: string): Promise<string[]> {
  const own = await orgOfCourse(db, courseId)
  return [...new Set([...(await departmentsOf(db, person)), ...(own ? [own] : [])])]
}
/** Who may roll from a course: codes and departments, with what each gives. */
export async function readShares(db: Knex, person: Person, courseId: string): Promise<SharesReply> {
  const shares = await queries.sharesOf(db, courseId)
  return {
    departments: await orgsById(db, await departmentsFor(db, person, courseId)),
    shares: shares.map(share => ({
      id: share.id,
      by: share.by,
      code: share.code,
      org: share.org,
      withheld: share.withheld,
      createdAt: isoInstant(share.createdAt),
      expiresAt: share.expiresAt && isoInstant(share.expiresAt),
      state: stateOf(share),
      uses: share.uses,
    })),
  }
}
/** Lets others roll from a course: whoever has the code, or a department. */
export async function shareCourse(
  db: Knex,
  person: Person,
  courseId: string,
  { org, withheld, days }: NewShare,
  makeCode: () => string = newCode,
): Promise<{ id: string; code: string | null }> {
  if (org && !(await departmentsFor(db, person, courseId)).includes(org)) throw refuse('other-department')
  if ((await loadCourse(db, courseId)).origin === 'awaited') throw refuse('place-only')
  const expiresAt = days === null ? null : stampOf(new Date(now().getTime() + days * 86_400_000))
  return inTransaction(db, async trx => {
    await takeTurn(trx, `shares ${courseId}`)
    const there =
      org && (await queries.sharesOf(trx, courseId)).find(share => isSame(share, org, withheld, days))
    if (there) return { id: there.id, code: null }
    const code = org ? null : makeCode()
    const id = await queries.insertShare(trx, {
      courseId,
      personId: person.id,
      code,
      orgId: org,
      withheld,
      expiresAt,
    })
    const told = { withheld: withheld.map(kind => kindWords(kind)[1]), days }
    const where = { personId: person.id, courseId }
    if (org) {
      const department = (await orgName(trx, org)) ?? ''
      await writeLog(trx, { action: 'share.department', ...where, detail: { ...told, department } })
    } else await writeLog(trx, { action: 'share.code', ...where, detail: told })
    return { id, code }
  })
}
/** Whether a department has the course already, with the same limits and as long. */
const isSame = (
  share: queries.Share,
  org: string,
  withheld: readonly string[],
  days: number | null,
): boolean =>
  stateOf(share) === 'holds' &&
  share.org?.id === org &&
  [...share.withheld].sort().join() === [...withheld].sort().join() &&
  days === null &&
  share.expiresAt === null
/** Ends a share. What has been rolled already stays where it is; from now on nobody may roll by it. */
export async function revokeShare(
  db: Knex,
  person: Person,
  courseId: string,
  shareId: string,
): Promise<void> {
  const share = await queries.findShare(db, { id: shareId })
  if (share?.courseId !== courseId) throw notFound('This share')
  await inTransaction(db, async trx => {
    if (!(await queries.endShare(trx, shareId, person.id))) return
    await writeLog(trx, {
      action: 'share.revoked',
      personId: person.id,
      courseId,
      detail: { code: share.code, department: share.org?.name ?? null },
    })
  })
}
const logStop = (db: Knex, person: Person): Promise<void> =>
  writeLog(db, {
    action: 'guesses.stopped',
    personId: person.id,
    detail: { device: 'at share codes', name: null },
  })
/** Opens a colleague's course with the code they gave: from then on the person may roll from it, for as long as the share holds. */
export async function enterCode(
  db: Knex,
  person: Person,
  typed: string,
  address: string,
): Promise<{ courseId: string }> {
  const share = await guessing(
    db,
    { kind: 'share-code', name: person.id, address, onStop: () => logStop(db, person) },
    () => queries.findShare(db, { code: codeOf(typed) }),
    found => found !== null,
  )
  if (!share) throw refuse('unknown-code')
  const { by, expiresAt } = share
  const state = stateOf(share)
  if (state === 'revoked') throw refuse('code-taken-back', { by })
  if (state === 'expired') throw refuse('code-expired', { by, until: (expiresAt ?? '').slice(0, 16) })
  await inTransaction(db, async trx => {
    if (!(await queries.noteUse(trx, share.id, person.id))) return
    await writeLog(trx, {
      action: 'share.used',
      personId: person.id,
      courseId: share.courseId,
    })
  })
  return { courseId: share.courseId }
}
