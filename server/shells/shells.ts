import type { Knex } from 'knex'
import { dayOf } from '../../core/calendar/day'
import { codeKey } from '../../core/pairing/codes'
import { nameFaults } from '../../core/pairing/names'
import {
  indexSources,
  suggestSources,
  type Candidate,
  type SourceIndex,
  type Suggestion,
} from '../../core/pairing/suggest'
import type { CourseLine } from '../../shared/api/courses'
import type { GuardReply, NewCourse, ShellLine, ShellsReply, WaysReply } from '../../shared/api/shells'
import { accessToCourses, coursesOf } from '../courses/access.queries'
import { inTransaction } from '../db/connection'
import { latestZone } from '../courses/courses.queries'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { plansInto } from '../plans/plans.queries'
import { changesIn, latestFetches } from '../registrar/roster.queries'
import { runsInto } from '../runs/runs.queries'
import * as queries from './shells.queries'
import { homeOrg, insertCourse, listTerms } from '../exchange/uploads.queries'
import { newId } from '../db/rows'
import { Problem } from '../http/problem'
import { codeKnowledge } from '../courses/codes'
import { courseLines } from '../courses/lines'
import { registrarAddress } from '../registrar/registrar'
import { instantText, now, stampOf, wallClock } from '../clock'

const daysAgo = (days: number): string => stampOf(new Date(now().getTime() - days * 86_400_000))
/** A course is archived once its term ended over two years ago; so is a snapshot (common practice). */
const archivedAfter = 730

/** Every course of a person in a short line, for the first page; plans that wait for a shell; and how the registrar stands. */
export async function listShells(db: Knex, person: Person): Promise<ShellsReply> {
  const today = wallClock(now(), await latestZone(db)).slice(0, 10)
  const terms = (await listTerms(db)).reverse()
  const place = new Map(terms.map((term, at) => [term.id, at]))
  const courses = await queries.indexOfCourses(db, person)
  const waiting = await waitingPlans(db, person)
  const lines = await courseLines(
    db,
    person,
    waiting.flatMap(plan => [plan.targetId, ...plan.sourceIds]),
  )
  const fetches = await latestFetches(db, 1)
  const changes =
    courses.length === 0
      ? 0
      : Number(
          (await db('roster_changes')
            .where('at', '>=', daysAgo(7))
            .whereIn('course_id', (await coursesOf(db, person))().select('courses.id'))
            .count({ count: '*' })
            .first())!.count,
        )
  return {
    today,
    terms: terms.map(({ id: _, ...term }) => ({
      ...term,
      daysToClasses: dayOf(term.classesFrom) - dayOf(wallClock(now(), term.timeZone)),
      when:
        term.classesFrom > today
          ? ('upcoming' as const)
          : term.classesTo >= today
            ? ('underway' as const)
            : dayOf(today) - dayOf(term.classesTo) > archivedAfter
              ? ('archived' as const)
              : ('past' as const),
    })),
    courses: courses.map(({ termId, ...row }) => ({ ...row, term: place.get(termId)! })),
    waiting: waiting.map(plan => ({
      planId: plan.id,
      course: lines.get(plan.targetId)!,
      sources: plan.sourceIds.map(id => lines.get(id)!),
      updatedAt: instantText(plan.updatedAt),
    })),
    registrar: {
      configured: registrarAddress() !== null,
      at: fetches[0] ? instantText(fetches[0].finishedAt ?? fetches[0].startedAt) : null,
      state: fetches[0]?.state ?? 'none',
      changes,
    },
  }
}
async function waitingPlans(db: Knex, person: Person) {
  const places = (
    await (await coursesOf(db, person))().where({ origin: 'awaited' }).select('courses.id')
  ).map((row: { id: string }) => row.id)
  return (await plansInto(db, places)).filter(plan => plan.state === 'draft')
}

async function sourceIndex(
  db: Knex,
  person: Person,
  shells: readonly string[],
): Promise<{ candidates: Map<string, Candidate>; index: SourceIndex }> {
  const candidates = await queries.candidatesOf(
    db,
    person,
    shells,
    wallClock(now(), await latestZone(db)).slice(0, 10),
  )
  return { candidates, index: indexSources([...candidates.values()], await codeKnowledge(db)) }
}
const suggested = (lines: Map<string, CourseLine>) => (suggestion: Suggestion) => ({
  course: lines.get(suggestion.source)!,
  sureness: suggestion.sureness,
  chance: suggestion.chance,
  reasons: suggestion.reasons,
})

/** Rows of the first page in full: what could fill each shell, where its plan and last run stand, who is at it, what the registrar changed. */
export async function shellLines(db: Knex, person: Person, ids: readonly string[]): Promise<ShellLine[]> {
  const access = await accessToCourses(db, person, ids)
  const shells = ids.filter(id => access.get(id)?.read && access.get(id)!.role !== 'shared')
  const { candidates, index } = await sourceIndex(db, person, shells)
  const plans = await plansInto(db, shells)
  const runs = await runsInto(db, shells)
  const writing = await queries.writingInto(db, shells)
  const changes = await changesIn(db, shells, daysAgo(7))
  const waiting = await waitingPlans(db, person)
  const found = new Map(
    shells.map(id => [
      id,
      candidates.has(id) ? (suggestSources(candidates.get(id)!, index, 1)[0] ?? null) : null,
    ]),
  )
  const lines = await courseLines(db, person, [
    ...shells,
    ...plans.map(plan => plan.sourceId),
    ...[...found.values()].flatMap(one => one?.source ?? []),
    ...waiting.map(plan => plan.targetId),
  ])
  const { patterns } = await codeKnowledge(db)
  return shells.map(id => {
    const course = lines.get(id)!
    const plan = plans.find(entry => entry.targetId === id && entry.state === 'draft')
    const run = runs.find(entry => entry.targetId === id)
    const held = writing.get(id)
    const suggestion = found.get(id)
    return {
      course,
      daysToClasses: dayOf(course.term.classesFrom) - dayOf(wallClock(now(), course.term.timeZone)),
      suggestion: suggestion ? suggested(lines)(suggestion) : null,
      plan: plan
        ? {
            id: plan.id,
            source: lines.get(plan.sourceId)!,
            updatedAt: instantText(plan.updatedAt),
            by: plan.updatedBy,
          }
        : null,
      lastRun: run
        ? { id: run.id, at: instantText(run.finishedAt), by: run.by, items: run.effect.added.items }
        : null,
      writing: held ? { by: held.by, since: instantText(held.since) } : null,
      fits: waiting
        .filter(
          entry =>
            entry.mode === 'roll' &&
            lines.get(entry.targetId)!.term.code === course.term.code &&
            codeKey(lines.get(entry.targetId)!.code, patterns) === codeKey(course.code, patterns),
        )
        .map(entry => ({
          planId: entry.id,
          title: `${lines.get(entry.targetId)!.code} ${lines.get(entry.targetId)!.title}`,
        })),
      changes: changes
        .filter(change => change.courseId === id)
        .map(change => ({
          id: change.id,
          fetch: change.fetchId,
          at: instantText(change.at),
          kind: change.kind,
          count: change.count,
          detail: change.detail,
        })),
      mayPlan: access.get(id)!.plan,
      mayRun: access.get(id)!.run,
    }
  })
}

/** What can fill a shell: suggestions, what they cost in storage, and other shells that the same source could fill. */
export async function waysInto(db: Knex, person: Person, id: string): Promise<WaysReply> {
  const shell = (await shellLines(db, person, [id]))[0]
  if (!shell)
    throw new Problem(
      404,
      'This shell is not here',
      'It does not exist, or you are not among those who may see it.',
    )
  const { candidates, index } = await sourceIndex(db, person, [id])
  const suggestions = candidates.has(id) ? suggestSources(candidates.get(id)!, index, 3) : []
  const { patterns } = await codeKnowledge(db)
  const others: { id: string; code: string; title: string }[] = await (
    await coursesOf(db, person)
  )()
    .join('terms', 'terms.id', 'courses.term_id')
    .where({ 'terms.code': shell.course.term.code })
    .whereIn('origin', ['registrar', 'hand'])
    .whereNot({ 'courses.id': id })
    .select('courses.id', 'courses.code', 'title')
  const alike = others
    .filter(row => codeKey(row.code, patterns) === codeKey(shell.course.code, patterns))
    .map(row => row.id)
    .slice(0, 20)
  const access = await accessToCourses(db, person, alike)
  const lines = await courseLines(db, person, [...suggestions.map(one => one.source), ...alike])
  return {
    shell,
    suggestions: suggestions.map(suggested(lines)),
    sections: alike.filter(one => access.get(one)?.plan).map(one => lines.get(one)!),
    storage: {
      suggestion: suggestions[0] ? await queries.storageOf(db, [suggestions[0].source]) : null,
      files: Number(
        (
          await db('uploads')
            .where({ person_id: person.id })
            .whereNull('outcome')
            .sum({ size: 'size' })
            .first()
        )?.size ?? 0,
      ),
    },
  }
}
/** Shells that a new course would stand beside, and what is wrong with its name, before it is made. */
export async function guardNewCourse(
  db: Knex,
  person: Person,
  wish: { term: string; code: string; section: string; title: string },
): Promise<GuardReply> {
  const terms = await listTerms(db)
  const today = wallClock(now(), terms[0]?.timeZone ?? 'UTC').slice(0, 10)
  const { patterns } = await codeKnowledge(db)
  const rows: { id: string; code: string; title: string; label: string | null; origin: string }[] = wish.term
    ? await (
        await coursesOf(db, person)
      )()
        .join('terms', 'terms.id', 'courses.term_id')
        .where({ 'terms.code': wish.term })
        .whereIn('origin', ['registrar', 'hand'])
        .select(
          'courses.id',
          'courses.code',
          db.raw('COALESCE(shown_title, title) AS title'),
          'label',
          'origin',
        )
    : []
  const alike = rows
    .filter(
      row =>
        row.origin === 'registrar' &&
        wish.code !== '' &&
        codeKey(row.code, patterns) === codeKey(wish.code, patterns),
    )
    .map(row => row.id)
  const lines = await courseLines(db, person, alike.slice(0, 10))
  return {
    terms: terms
      .filter(term => term.classesTo >= today)
      .reverse()
      .map(({ code, name, classesFrom, classesTo }) => ({ code, name, classesFrom, classesTo })),
    shells: [...lines.values()],
    faults: wish.title === '' ? [] : nameFaults({ id: '', title: wish.title, label: null }, rows),
  }
}
/** Makes a course that no registrar knows: with its person as instructor and nobody on its roster. */
export async function makeCourse(db: Knex, person: Person, wish: NewCourse): Promise<{ id: string }> {
  return inTransaction(db, async trx => {
    const term = (await listTerms(trx)).find(entry => entry.code === wish.term)
    if (!term)
      throw new Problem(400, 'There is no such term', undefined, [
        { field: 'term', message: `${wish.term} is not a term here.` },
      ])
    const { faults } = await guardNewCourse(trx, person, wish)
    const wrong = faults.filter(fault => fault.field === 'title')
    if (wrong.length > 0) throw new Problem(400, 'The course was not made', 'Nothing was changed.', wrong)
    const orgId = await homeOrg(trx, person.id)
    if (!orgId)
      throw new Problem(
        409,
        'There is no department for this course',
        'You teach no course here yet, so it is not known where a new one belongs. Ask the academic office. Nothing was changed.',
      )
    const id = await insertCourse(trx, {
      sourceId: `made:${newId()}`,
      termId: term.id,
      orgId,
      code: wish.code,
      section: wish.section,
      title: wish.title,
      language: null,
      personId: person.id,
    })
    await writeLog(trx, {
      action: 'course.made',
      personId: person.id,
      courseId: id,
      detail: { code: wish.code, title: wish.title },
    })
    return { id }
  })
}
/** Pins or hides a course, or gives it a label of one's own; for this person alone. */
export async function markCourse(
  db: Knex,
  person: Person,
  id: string,
  mark: { pinned?: boolean; hidden?: boolean; label?: string | null },
): Promise<void> {
  if (Object.keys(mark).length > 0) await queries.markCourse(db, person.id, id, mark)
}
