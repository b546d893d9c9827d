import type { Knex } from 'knex'
import { codeKey, codePattern, codePatterns } from '../../core/pairing/codes'
import type { CodeKnowledge } from '../../core/pairing/suggest'
import { codeRules, type CodeRules, type CodesReply } from '../../shared/api/codes'
import { listTerms } from '../calendars/terms.queries'
import { isoInstant } from '../clock'
import { refuse } from '../errors/refusal'
import type { FieldProblem } from '../errors/refusals'
import { writeLog } from '../log/log.queries'
import { isOffice, type Person } from '../people/people.queries'
import { readableCourses } from './access'
import { loadCourses } from './courses.queries'
import { loadRules, saveRules } from './office-rules.queries'

const name = 'codes'
/** What the office has laid down of codes, with who did and when; no rules where it has not. */
async function loadCodeRules(db: Knex) {
  const found = await loadRules(db, name)
  const rules: CodeRules = found ? codeRules.parse(found.value) : { patterns: [], mapped: [] }
  return { found, rules }
}
/** What the office has laid down of codes, as pairing uses it. */
export async function codeKnowledge(db: Knex): Promise<CodeKnowledge> {
  const { rules } = await loadCodeRules(db)
  return { patterns: codePatterns(rules.patterns), mapped: rules.mapped }
}

const triedAtMost = 1000
export async function readCodes(db: Knex, person: Person): Promise<CodesReply> {
  const { found, rules } = await loadCodeRules(db)
  const readable = (await readableCourses(db, person)).slice(0, triedAtMost)
  const courses = [...(await loadCourses(db, readable)).values()]
  const codes = new Map(
    courses.map(({ code, title, term }) => [
      `${code} ${term.code}`,
      { code, title, term: { name: term.name, classesFrom: term.classesFrom } },
    ]),
  )
  return {
    revision: found?.revision ?? 0,
    rules,
    saved: found && { by: found.by, at: isoInstant(found.at) },
    may: { edit: isOffice(person) },
    terms: (await listTerms(db)).map(({ name, classesFrom }) => ({ name, classesFrom })),
    codes: [...codes.values()].slice(0, triedAtMost),
  }
}

/** What is wrong with rules of codes, field by field. */
function faultsOf(rules: CodeRules): FieldProblem[] {
  const errors = rules.patterns.flatMap((entry, at) => {
    const made = codePattern(entry.text, entry.seasons)
    return 'problem' in made ? [{ field: `patterns.${at}`, message: made.problem }] : []
  })
  const patterns = codePatterns(rules.patterns)
  const seen = new Set<string>()
  rules.mapped.forEach(({ from, to }, at) => {
    const [old, next] = [codeKey(from, patterns), codeKey(to, patterns)]
    const pair = `${old} > ${next}`
    const field = `mapped.${at}`
    if (old === next) errors.push({ field, message: `${from} and ${to} are one code already.` })
    else if (seen.has(pair)) errors.push({ field, message: `${from} to ${to} stands here twice.` })
    seen.add(pair)
  })
  return errors
}
/** Saves the rules of codes, read at a revision. */
export async function saveCodes(
  db: Knex,
  person: Person,
  revision: number,
  rules: CodeRules,
): Promise<{ revision: number }> {
  const errors = faultsOf(rules)
  if (errors.length > 0) throw refuse('code-rules', { errors })
  if (!(await saveRules(db, name, revision, rules, person.id))) throw refuse('rules-changed')
  await writeLog(db, {
    action: 'codes.saved',
    personId: person.id,
    detail: { patterns: rules.patterns.length, mapped: rules.mapped.length },
  })
  return { revision: revision + 1 }
}
