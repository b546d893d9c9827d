import type { Knex } from 'knex'
import { codeKey, codePattern, codePatterns } from '../../core/pairing/codes'
import type { CodeKnowledge } from '../../core/pairing/suggest'
import type { CodeRules, CodesReply } from '../../shared/api/codes'
import { readableCourses } from './access.queries'
import { loadCourses } from './courses.queries'
import { writeLog } from '../log/log.queries'
import { loadRules, saveRules } from './office-rules.queries'
import type { Person } from '../people/people.queries'
import { Problem } from '../http/problem'
import { instantText } from '../clock'

const name = 'codes'
const none: CodeRules = { patterns: [], mapped: [] }
export const isOffice = (person: Person): boolean => person.duties.some(duty => duty.duty === 'office')

/** What the office has laid down of codes, as pairing uses it. */
export async function codeKnowledge(db: Knex): Promise<CodeKnowledge> {
  const rules = (await loadRules<CodeRules>(db, name))?.value ?? none
  return { patterns: codePatterns(rules.patterns), mapped: rules.mapped }
}

const tried = 1000
export async function readCodes(db: Knex, person: Person): Promise<CodesReply> {
  const found = await loadRules<CodeRules>(db, name)
  const courses = [...(await loadCourses(db, (await readableCourses(db, person)).slice(0, tried))).values()]
  const codes = new Map(
    courses.map(course => [
      `${course.code} ${course.term.code}`,
      {
        code: course.code,
        title: course.title,
        term: { name: course.term.name, classesFrom: course.term.classesFrom },
      },
    ]),
  )
  return {
    revision: found?.revision ?? 0,
    rules: found?.value ?? none,
    saved: found && { by: found.by, at: instantText(found.at) },
    may: { edit: isOffice(person) },
    codes: [...codes.values()].slice(0, tried),
  }
}

/** Saves the rules of codes, read at a revision. */
export async function saveCodes(
  db: Knex,
  person: Person,
  revision: number,
  rules: CodeRules,
): Promise<{ revision: number }> {
  const errors = rules.patterns.flatMap((entry, at) => {
    const made = codePattern(entry.text, entry.seasons)
    return 'problem' in made ? [{ field: `patterns.${at}`, message: made.problem }] : []
  })
  const patterns = codePatterns(rules.patterns)
  const seen = new Set<string>()
  rules.mapped.forEach(({ from, to }, at) => {
    const pair = `${codeKey(from, patterns)} > ${codeKey(to, patterns)}`
    if (codeKey(from, patterns) === codeKey(to, patterns))
      errors.push({ field: `mapped.${at}`, message: `${from} and ${to} are one code already.` })
    else if (seen.has(pair))
      errors.push({ field: `mapped.${at}`, message: `${from} to ${to} stands here twice.` })
    seen.add(pair)
  })
  if (errors.length > 0) throw new Problem(400, 'The rules are not saved', 'Nothing was changed.', errors)
  if (!(await saveRules(db, name, revision, rules, person.id)))
    throw new Problem(
      409,
      'Somebody else has changed the rules',
      'Nothing of yours was saved. Load the page again to see them; what you wrote can be copied first.',
    )
  await writeLog(db, {
    action: 'codes.saved',
    personId: person.id,
    detail: { patterns: rules.patterns.length, mapped: rules.mapped.length },
  })
  return { revision: revision + 1 }
}
