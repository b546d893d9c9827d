import type { Knex } from 'knex'
import { accessToCourse, accessToCourses } from '../courses/access'
import { factsOfCourses, loadFacts } from '../courses/courses.queries'
import { contentOf } from '../courses/sections.queries'
import { notFound, refuse } from '../errors/refusal'
import type { Person } from '../people/people.queries'
import { retiredAmong } from '../sharing/templates.queries'

/** Looks whether a person may roll from some courses, each of which must stand there once. @throws Refusal */
export async function checkSources(db: Knex, person: Person, sources: readonly string[]): Promise<void> {
  const access = await accessToCourses(db, person, sources)
  if (sources.some(source => !access.get(source)?.rollFrom)) throw notFound('The course to roll from')
  checkOnce(sources)
  for (const { origin } of (await factsOfCourses(db, sources)).values())
    if (origin === 'awaited') throw refuse('place-only')
}
/** Looks whether none of some courses is a retired template. @throws Refusal */
export async function checkOffered(db: Knex, sources: readonly string[]): Promise<void> {
  if ((await retiredAmong(db, sources)).length > 0) throw refuse('template-retired')
}
export function checkOnce(sources: readonly string[]): void {
  if (new Set(sources).size < sources.length) throw refuse('source-twice')
}
/** Looks whether a person may plan for a shell, and whether anything may be written into it. @throws Refusal */
export async function checkShell(db: Knex, person: Person, target: string): Promise<void> {
  const into = await accessToCourse(db, person, target)
  if (!into.read || into.role === 'shared') throw notFound('The shell to roll into')
  const shell = await loadFacts(db, target)
  if (shell.origin === 'awaited') throw notFound('The shell to roll into')
  if (['snapshot', 'version', 'file'].includes(shell.origin)) throw refuse('into-snapshot')
  if ((await contentOf(db, target)) !== target) throw refuse('into-joined-section')
  if (!into.plan) throw refuse('may-not-plan')
}
/** Looks whether a person may plan some sources into a shell. @throws Refusal */
export async function checkPair(
  db: Knex,
  person: Person,
  sources: readonly string[],
  target: string,
): Promise<void> {
  if (sources.includes(target)) throw refuse('into-itself')
  await checkSources(db, person, sources)
  await checkShell(db, person, target)
}
export const sameSources = (one: readonly string[], other: readonly string[]): boolean =>
  one.join() === other.join()
