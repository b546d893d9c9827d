import type { Knex } from 'knex'
import { dayOf } from '../../core/calendar/day'
import { codeKey } from '../../core/pairing/codes'
import { arriving } from '../../core/plan/effect-text'
import { nameFaults } from '../../core/pairing/names'
import {
  indexSources,
  suggestSources,
  type Candidate,
  type SourceIndex,
  type Suggestion,
} from '../../core/pairing/suggest'
import type { RunOutcome } from '../../shared/api/writing'
import type { CourseLine } from '../../shared/api/courses'
import type { GuardReply, NewCourse, ShellLine, ShellsReply, WaysReply } from '../../shared/api/shells'
import { findTerm, latestZone, listTerms, type TermLine } from '../calendars/terms.queries'
import { isoInstant, now, stampOf, wallClock } from '../clock'
import { accessToCourses, coursesOf } from '../courses/access'
import { codeKnowledge } from '../courses/codes'
import {
  emptyOwnCourse,
  awaitedAmong,
  coursesInTerm,
  insertCourse,
  type AlikeRow,
} from '../courses/courses.queries'
import { courseLines, lineIn } from '../courses/lines'
import { savePreferences, type CoursePreferences } from '../courses/preferences.queries'
import { storageOf } from '../courses/storage.queries'
import { inTransaction, takeTurn } from '../db/transaction'
import { newId } from '../db/rows'
import { notFound, refuse } from '../errors/refusal'
import { bytesAside } from '../exchange/uploads.queries'
import { writeLog } from '../log/log.queries'
import { homeOrg } from '../people/orgs.queries'
import type { Person } from '../people/people.queries'
import { plansInto, type Plan } from '../plans/plans.queries'
import { registrarAddress } from '../registrar/address'
import { changesIn, latestFetches, type KeptChange } from '../registrar/fetches.queries'
import { runsInto, type Run } from '../run-facts/runs.queries'
import { outcomesOf } from '../run-facts/outcomes'
import { writingInto, writingTold, type Writing } from '../run-facts/writing.queries'
import { readPastRule, whenOf } from './past'
import * as queries from './shells.queries'

const daysAgo = (days: number): string => stampOf(new Date(now().getTime() - days * 86_400_000))
const newsDays = 7

/** The civil day in the institution's zone. */
export async function todayHere(db: Knex): Promise<string> {
  return wallClock(now(), (await latestZone(db)) ?? 'UTC').slice(0, 10)
}
const daysToClasses = (term: Pick<TermLine, 'classesFrom' | 'timeZone'>): number =>
  dayOf(term.classesFrom) - dayOf(wallClock(now(), term.timeZone))

/** Every course of a person in a short line, for the first page; plans that wait for a shell; and how the registrar stands. */
export async function listShells(db: Knex, person: Person): Promise<ShellsReply> {
  const today = await todayHere(db)
  const rule = await readPastRule(db, person)
  const own = await coursesOf(db, person)
  const courses = await queries.indexOfCourses(db, own(), person.id)
  const terms = (
    await listTerms(
      db,
      courses.map(({ termId }) => termId),
    )
  ).reverse()
  const place = new Map(terms.map((term, at) => [term.id, at]))
  const waiting = await waitingPlans(db, person)
  const waited = waiting.flatMap(plan => [plan.targetId, ...plan.sourceIds])
  const lineOf = lineIn(await courseLines(db, person, waited))
  const [fetch] = await latestFetches(db, 1)
  return {
    today,
    terms: terms.map(({ id: _, ...term }) => ({
      ...term,
      daysToClasses: daysToClasses(term),
      when: whenOf(term, today, rule),
    })),
    courses: courses.map(({ termId, ...row }) => ({ ...row, term: place.get(termId) ?? 0 })),
    waiting: waiting.map(plan => ({
      planId: plan.id,
      course: lineOf(plan.targetId),
      sources: plan.sourceIds.map(lineOf),
      updatedAt: isoInstant(plan.updatedAt),
    })),
    pastRule: rule,
    registrar: {
      configured: registrarAddress() !== null,
      at: fetch ? isoInstant(fetch.finishedAt ?? fetch.startedAt) : null,
      state: fetch?.state ?? 'none',
      changes: await queries.countChanges(db, own(), daysAgo(newsDays)),
    },
  }
}
async function waitingPlans(db: Knex, person: Person): Promise<Plan[]> {
  const places = await awaitedAmong((await coursesOf(db, person))())
  return (await plansInto(db, places)).filter(plan => plan.state === 'draft')
}

async function sourceIndex(
  db: Knex,
  person: Person,
  shells: readonly string[],
): Promise<{ candidates: Map<string, Candidate>; index: SourceIndex }> {
  const among = await coursesOf(db, person, { shared: true })
  const candidates = await queries.candidatesAmong(db, among(), shells, await todayHere(db))
  return { candidates, index: indexSources([...candidates.values()], await codeKnowledge(db)) }
}
const suggested =
  (lines: ReadonlyMap<string, CourseLine>) =>
  ({ source, sureness, chance, reasons }: Suggestion) => ({
    course: lineIn(lines)(source),
    sureness,
    chance,
    reasons,
  })

/** What is known of shells beside the shells themselves, looked up for all of them at once. */
interface Around {
  lines: ReadonlyMap<string, CourseLine>
  suggestions: ReadonlyMap<string, Suggestion | undefined>
  plans: readonly Plan[]
  runs: readonly Run[]
  writing: ReadonlyMap<string, Writing>
  /** What came of the last run of a plan, where it wrote nothing. */
  outcomes: ReadonlyMap<string, RunOutcome>
  changes: readonly KeptChange[]
  /** Plans that wait for a shell, with the key of the code they wait for. */
  waiting: readonly { plan: Plan; course: CourseLine; key: string }[]
  keyOf: (code: string) => string
  personId: string
}
async function lookAround(db: Knex, person: Person, shells: readonly string[]): Promise<Around> {
  const { candidates, index } = await sourceIndex(db, person, shells)
  const suggestions = new Map(
    shells.map(id => {
      const candidate = candidates.get(id)
      return [id, candidate && suggestSources(candidate, index, 1)[0]] as const
    }),
  )
  const plans = await plansInto(db, shells)
  const waiting = await waitingPlans(db, person)
  const lines = await courseLines(db, person, [
    ...shells,
    ...plans.map(plan => plan.sourceId),
    ...[...suggestions.values()].flatMap(one => one?.source ?? []),
    ...waiting.map(plan => plan.targetId),
  ])
  const { patterns } = await codeKnowledge(db)
  const keyOf = (code: string): string => codeKey(code, patterns)
  return {
    lines,
    suggestions,
    plans,
    runs: await runsInto(db, shells),
    writing: await writingInto(db, shells),
    outcomes: await outcomesOf(
      db,
      plans.map(plan => plan.id),
    ),
    changes: await changesIn(db, shells, daysAgo(newsDays)),
    waiting: waiting.map(plan => {
      const course = lineIn(lines)(plan.targetId)
      return { plan, course, key: keyOf(course.code) }
    }),
    keyOf,
    personId: person.id,
  }
}
/** The draft that is shown: one's own before a colleague's, else the one that was saved last. */
function draftInto(shell: string, { plans, personId }: Around): Plan | undefined {
  const drafts = plans.filter(plan => plan.targetId === shell && plan.state === 'draft')
  return drafts.find(plan => plan.sourceBy === personId) ?? drafts[0]
}
function shellLine(id: string, around: Around): Omit<ShellLine, 'mayPlan' | 'mayRun'> {
  const lineOf = lineIn(around.lines)
  const course = lineOf(id)
  const plan = draftInto(id, around)
  const run = around.runs.find(entry => entry.targetId === id)
  const held = around.writing.get(id)
  const suggestion = around.suggestions.get(id)
  const key = around.keyOf(course.code)
  const fits = around.waiting.filter(
    one => one.plan.mode === 'roll' && one.course.term.code === course.term.code && one.key === key,
  )
  return {
    course,
    daysToClasses: daysToClasses(course.term),
    suggestion: suggestion ? suggested(around.lines)(suggestion) : null,
    plan: plan
      ? {
          id: plan.id,
          source: lineOf(plan.sourceId),
          updatedAt: isoInstant(plan.updatedAt),
          by: plan.updatedBy,
          outcome: around.outcomes.get(plan.id) ?? null,
        }
      : null,
    lastRun: run
      ? {
          id: run.id,
          at: isoInstant(run.finishedAt),
          by: run.by,
          items: arriving(run.effect),
          dates: run.effect.dates.dates,
        }
      : null,
    writing: writingTold(held),
    fits: fits.map(one => ({ planId: one.plan.id, title: `${one.course.code} ${one.course.title}` })),
    changes: around.changes
      .filter(change => change.courseId === id)
      .map(({ fetchId, courseId: _, ...change }) => ({
        ...change,
        fetch: fetchId,
        at: isoInstant(change.at),
      })),
  }
}
/** Rows of the first page in full: what could fill each shell, where its plan and last run stand, who is at it, what the registrar changed. */
export async function shellLines(db: Knex, person: Person, ids: readonly string[]): Promise<ShellLine[]> {
  const access = await accessToCourses(db, person, ids)
  const shells = ids.filter(id => access.get(id)?.read && access.get(id)?.role !== 'shared')
  const around = await lookAround(db, person, shells)
  return shells.map(id => ({
    ...shellLine(id, around),
    mayPlan: access.get(id)?.plan ?? false,
    mayRun: access.get(id)?.run ?? false,
  }))
}

const sectionsAtMost = 20
/** What can fill a shell: suggestions, what they cost in storage, and further shells that the same source could fill. */
export async function waysInto(db: Knex, person: Person, id: string): Promise<WaysReply> {
  const [shell] = await shellLines(db, person, [id])
  if (!shell) throw notFound('This shell')
  const { candidates, index } = await sourceIndex(db, person, [id])
  const candidate = candidates.get(id)
  const suggestions = candidate ? suggestSources(candidate, index, 3) : []
  const { patterns } = await codeKnowledge(db)
  const key = codeKey(shell.course.code, patterns)
  const others = await coursesInTerm(db, (await coursesOf(db, person))(), shell.course.term.code)
  const alike = others
    .filter(row => row.id !== id && codeKey(row.code, patterns) === key)
    .map(row => row.id)
    .slice(0, sectionsAtMost)
  const access = await accessToCourses(db, person, alike)
  const lines = await courseLines(db, person, [...suggestions.map(one => one.source), ...alike])
  const [first] = suggestions
  return {
    shell,
    suggestions: suggestions.map(suggested(lines)),
    sections: alike.filter(one => access.get(one)?.plan).map(lineIn(lines)),
    storage: {
      suggestion: first ? await storageOf(db, [first.source]) : null,
      files: await bytesAside(db, person.id),
    },
  }
}

/** What a person would name a new course. */
type Wish = Pick<NewCourse, 'term' | 'code' | 'section' | 'title'>
/** Shells that a new course would stand beside, and what is wrong with its name, before it is made. */
export async function guardNewCourse(db: Knex, person: Person, wish: Wish): Promise<GuardReply> {
  const today = await todayHere(db)
  const terms = (await listTerms(db)).filter(term => term.classesTo >= today).reverse()
  const termName = terms.find(term => term.code === wish.term)?.name
  const { patterns } = await codeKnowledge(db)
  const key = codeKey(wish.code, patterns)
  const rows: AlikeRow[] = wish.term
    ? await coursesInTerm(db, (await coursesOf(db, person))(), wish.term)
    : []
  const alike = rows.filter(
    row => row.origin === 'registrar' && wish.code !== '' && codeKey(row.code, patterns) === key,
  )
  const lines = await courseLines(
    db,
    person,
    alike.slice(0, 10).map(row => row.id),
  )
  return {
    terms: terms.map(({ code, name, classesFrom, classesTo }) => ({ code, name, classesFrom, classesTo })),
    shells: [...lines.values()],
    faults:
      wish.title === '' ? [] : nameFaults({ id: '', title: wish.title, label: null, term: termName }, rows),
  }
}
/** Makes a course that no registrar knows: with its person as instructor and nobody on its roster. */
export async function makeCourse(db: Knex, person: Person, wish: NewCourse): Promise<{ id: string }> {
  return inTransaction(db, async trx => {
    await takeTurn(trx, `makes ${person.id}`)
    const term = await findTerm(trx, wish.term)
    if (!term) throw refuse('unknown-term', { term: wish.term })
    const { faults } = await guardNewCourse(trx, person, wish)
    const errors = faults.filter(fault => fault.field === 'title')
    if (errors.length > 0) throw refuse('course-names', { errors })
    const orgId = await homeOrg(trx, person.id)
    if (!orgId) throw refuse('no-department')
    const { code, section, title } = wish
    // Pressed twice, it is the same course: theirs, of just these names, with nothing in it yet.
    const there = await emptyOwnCourse(trx, person.id, { termId: term.id, code, section, title })
    if (there) return { id: there }
    const id = await insertCourse(trx, {
      sourceId: `made:${newId()}`,
      termId: term.id,
      orgId,
      code,
      section,
      title,
      language: null,
      personId: person.id,
    })
    await writeLog(trx, {
      action: 'course.made',
      personId: person.id,
      courseId: id,
      detail: { code, title },
    })
    return { id }
  })
}
/** Pins or hides a course, or gives it a label of one's own; for this person alone. */
export async function preferCourse(
  db: Knex,
  person: Person,
  id: string,
  preferences: Partial<CoursePreferences>,
): Promise<void> {
  if (Object.keys(preferences).length > 0) await savePreferences(db, person.id, id, preferences)
}
