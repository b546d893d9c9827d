import { randomInt } from 'node:crypto'
import type { Knex } from 'knex'
import type { ItemKind } from '../../core/course/model'
import type { NewShare, NewTemplate, SharesReply, TemplatesReply } from '../../shared/api/shares'
import { coursesOf, departmentsOf } from '../courses/access.queries'
import { inTransaction } from '../db/connection'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import * as queries from './shares.queries'
import { insertCourse } from '../exchange/uploads.queries'
import { newId } from '../db/rows'
import { notFound, Problem } from '../http/problem'
import { courseLines } from '../courses/lines'
import { instantText, now, stampOf } from '../clock'

// Letters and figures that are not taken for one another when they are read out.
const letters = 'ABCDEFGHJKMNPQRSTVWXYZ23456789'
const newCode = (): string =>
  Array.from({ length: 9 }, (_, at) => (at === 4 ? '-' : letters[randomInt(letters.length)])).join('')
const readable = (code: string): string =>
  code
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '')
    .replace(/^(.{4})(.+)$/, '$1-$2')

const holds = (share: queries.ShareRow): boolean =>
  share.revokedAt === null && (share.expiresAt === null || share.expiresAt > stampOf(now()))
/** Who may take from a course: codes and departments, with what each gives. */
export async function readShares(db: Knex, person: Person, courseId: string): Promise<SharesReply> {
  const rows = await queries.sharesOf(db, courseId)
  return {
    departments: await queries.orgNames(db, [
      ...new Set([...(await departmentsOf(db, person)), (await queries.orgOfCourse(db, courseId))!]),
    ]),
    shares: rows.map(row => ({
      id: row.id,
      by: row.by,
      code: row.code,
      org: row.org,
      leaves: row.leaves,
      createdAt: instantText(row.createdAt),
      expiresAt: row.expiresAt && instantText(row.expiresAt),
      state: row.revokedAt ? ('revoked' as const) : holds(row) ? ('holds' as const) : ('expired' as const),
      uses: row.uses,
    })),
  }
}
/** Lets others take from a course: whoever has the code, or a department. */
export async function share(
  db: Knex,
  person: Person,
  courseId: string,
  wish: NewShare,
): Promise<{ id: string; code: string | null }> {
  if (
    wish.org &&
    !(await departmentsOf(db, person)).includes(wish.org) &&
    (await queries.orgOfCourse(db, courseId)) !== wish.org
  )
    throw new Problem(400, 'You do not belong to this department', undefined, [
      { field: 'org', message: 'Choose one of yours.' },
    ])
  const expiresAt = wish.days === null ? null : stampOf(new Date(now().getTime() + wish.days * 86_400_000))
  return inTransaction(db, async trx => {
    const code = wish.org ? null : newCode()
    const id = await queries.insertShare(trx, {
      courseId,
      personId: person.id,
      code,
      orgId: wish.org,
      leaves: wish.leaves as ItemKind[],
      expiresAt,
    })
    await writeLog(trx, {
      action: wish.org ? 'share.department' : 'share.code',
      personId: person.id,
      courseId,
      detail: {
        leaves: wish.leaves,
        days: wish.days,
        ...(wish.org && { department: await queries.orgName(trx, wish.org) }),
      },
    })
    return { id, code }
  })
}
/** Takes a share back. What has been rolled already stays where it is; from now on nobody may take by it. */
export async function revoke(db: Knex, person: Person, courseId: string, shareId: string): Promise<void> {
  const found = await queries.findShare(db, { id: shareId })
  if (found?.courseId !== courseId) throw notFound('This share')
  await queries.revokeShare(db, shareId)
  await writeLog(db, {
    action: 'share.revoked',
    personId: person.id,
    courseId,
    detail: { code: found.code, department: found.org?.name ?? null },
  })
}
/** Opens a colleague's course with the code they gave: from then on the person may take from it, for as long as the share holds. */
export async function enterCode(db: Knex, person: Person, typed: string): Promise<{ courseId: string }> {
  const found = await queries.findShare(db, { code: readable(typed) })
  const wrong = (message: string): Problem =>
    new Problem(400, 'This code opens nothing', 'Nothing was changed.', [{ field: 'code', message }])
  if (!found)
    throw wrong('No course is shared by this code. Look at it letter by letter, or ask for it again.')
  if (found.revokedAt) throw wrong(`${found.by} has taken this code back. Ask for a new one.`)
  if (!holds(found))
    throw wrong(`This code held until ${found.expiresAt!.slice(0, 16)} (UTC). Ask ${found.by} for a new one.`)
  await inTransaction(db, async trx => {
    await queries.useShare(trx, found.id, person.id)
    await writeLog(trx, {
      action: 'share.used',
      personId: person.id,
      courseId: found.courseId,
      detail: { code: found.code },
    })
  })
  return { courseId: found.courseId }
}

/** Templates that a person may roll from: their own and those offered to a department of theirs. The newest first. */
export async function readTemplates(db: Knex, person: Person): Promise<TemplatesReply> {
  const rows = await queries.templatesAmong(db, (await coursesOf(db, person, { shared: true }))())
  const ids = rows.map(row => row.courseId)
  const lines = await courseLines(db, person, ids)
  const shapes = await queries.shapesOf(db, ids)
  const offered = await queries.departmentShares(db, ids)
  return {
    templates: rows.map(row => ({
      course: lines.get(row.courseId)!,
      subject: row.subject,
      arrangement: row.arrangement,
      about: row.about,
      author: row.author,
      own: row.authorId === person.id,
      createdAt: instantText(row.createdAt),
      shape: shapes.get(row.courseId)!,
      offeredTo: offered.get(row.courseId) ?? [],
    })),
  }
}
/** Makes a template from a course: its content, without students, under a name of its own. */
export async function makeTemplate(
  db: Knex,
  person: Person,
  courseId: string,
  wish: NewTemplate,
): Promise<{ id: string }> {
  return inTransaction(db, async trx => {
    const source = await trx('courses').where({ id: courseId }).first('term_id', 'org_id', 'code', 'language')
    const id = await insertCourse(trx, {
      sourceId: `template:${newId()}`,
      termId: source.term_id,
      orgId: source.org_id,
      code: source.code,
      section: '',
      title: wish.title,
      language: source.language,
      personId: person.id,
      origin: 'template',
    })
    const { items } = await queries.copyWhole(trx, courseId, id)
    if (items === 0)
      throw new Problem(
        409,
        'This course is empty',
        'A template is made from a course with content. Nothing was made.',
      )
    await queries.insertTemplate(trx, {
      courseId: id,
      subject: wish.subject,
      arrangement: wish.arrangement,
      about: wish.about,
      personId: person.id,
    })
    await writeLog(trx, {
      action: 'template.made',
      personId: person.id,
      courseId: id,
      detail: { from: courseId, title: wish.title },
    })
    return { id }
  })
}
