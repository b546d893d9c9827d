import type { Knex } from 'knex'
import type { CarriedBase } from '../../core/carry/base'
import { codeText } from '../../core/course/code-text'
import { checkWindows } from '../../core/pairing/windows'
import { present } from '../../core/present'
import { counted } from '../../core/dates/words'
import { redactedThings } from '../../core/plan/redacted'
import { basesOf, type CompiledPlan } from '../../core/plan/compile'
import type { Effect, Placement } from '../../core/plan/effect'
import { arriving, effectText } from '../../core/plan/effect-text'
import type { CompileInput } from '../../core/plan/ledger'
import { settleTexts } from '../../core/plan/to-settle'
import { packedEntries, recordEntries } from '../../core/plan/record'
import { shellFactsOf } from '../../core/plan/document'
import { studentDataNames } from '../../core/student-data/student-data'
import type { ClearedCounts } from '../../core/student-data/clearing'
import type { RunReply } from '../../shared/api/plans'
import type { RunStep } from '../../shared/api/writing'
import { loadCalendar } from '../calendars/terms.queries'
import { isoInstant, now, stampOf } from '../clock'
import { hashOf, storeBodies } from '../courses/bodies.queries'
import { addBases } from '../courses/carried.queries'
import { dropContent, loadStanding, settingsHashes } from '../courses/content.queries'
import { factsOfCourses, isFileAmong, lockCourse, type CourseFacts } from '../courses/courses.queries'
import { courseLines, lineIn } from '../courses/lines'
import { shownBody } from '../courses/shown/shown'
import * as sections from '../courses/sections.queries'
import { countStudentData } from '../courses/student-data.queries'
import { inTransaction } from '../db/transaction'
import { newId, packed } from '../db/rows'
import type { AuditLine } from '../db/tables'
import { notFound, refuse } from '../errors/refusal'
import { addJob } from '../jobs/jobs.queries'
import { writeLog } from '../log/log.queries'
import type { Person } from '../people/people.queries'
import { sectionFactsOf } from '../../core/plan/sections'
import { checkMayRun } from '../plans/access'
import {
  compiledFor,
  compileInput,
  effectBeside,
  fingerprintOf,
  sectionPlans,
  type SectionPlan,
} from '../plans/compile'
import {
  dropHeld,
  everySection,
  lockPlan,
  markAsRun,
  moveDrafts,
  repairPlan,
  sectionsOfPlan,
  sidesOfPlan,
  writtenCourse,
  type Plan,
  type Sections,
} from '../plans/plans.queries'
import { joinable, type Joinable } from '../sections/joinable'
import { composeTexts } from './texts'
import { rowsOfLastTerm } from '../student-data/audit.queries'
import { auditTexts } from '../student-data/audit-texts'
import { redactAround, redactIdentifiers } from '../student-data/around.queries'
import { redactorFor } from '../student-data/redactor'
import { clearableIn, clearAtRun, clearingMark } from '../student-data/clearing'
import { tracesBasis } from '../student-data/traces'
import { findTraces, forgetTraces } from '../plans/traces.queries'
import * as queries from '../run-facts/runs.queries'
import * as write from './write.queries'
import { makeSnapshot, moveIntoTerm } from './snapshots.queries'
import { saidOfCourse, keepState } from './states.queries'

/** Who follows a run: told how far it is, and, before anything is committed, that it is done. Either may stop it by throwing. */
export interface RunWatch {
  readonly at: (step: RunStep, done: number, total: number) => Promise<void>
  readonly finish: (trx: Knex.Transaction, done: RunTold) => Promise<void>
}
/** What is said of a run that is done: a line, and further ones. */
export interface RunTold {
  readonly title: string
  readonly lines: readonly string[]
}
const nobody: RunWatch = { at: () => Promise.resolve(), finish: () => Promise.resolve() }
/**
 * Runs a plan: everything is computed again here, written in one transaction, counted and audited before it is committed.
 * `fingerprint` is what the person consented to; if plan, source or shell have changed since, nothing is written.
 */
export async function runPlan(
  db: Knex,
  person: Person,
  planId: string,
  fingerprint: string,
  { runId = newId(), watch = nobody }: { runId?: string; watch?: RunWatch } = {},
): Promise<string> {
  await inTransaction(db, trx => runLocked(trx, { runId, person, planId, fingerprint, watch }))
  return runId
}

/** What a run works with, all of it looked at within its transaction. */
interface Running {
  plan: Plan
  input: CompileInput
  compiled: CompiledPlan
  runId: string
  person: Person
  watch: RunWatch
}

/** Who asked for which run of what, having consented to what. */
interface Asked {
  runId: string
  person: Person
  planId: string
  fingerprint: string
  watch: RunWatch
}
async function runLocked(
  trx: Knex.Transaction,
  { runId, person, planId, fingerprint, watch }: Asked,
): Promise<void> {
  await watch.at('reads', 0, 0)
  const plan = await lockPlan(trx, planId)
  if (!plan) throw notFound('This plan')
  if (plan.state === 'run') throw refuse('run-already')
  const beside = await sectionsOfPlan(trx, plan)
  for (const section of everySection(beside)) await lockCourse(trx, section)
  await checkMayRun(trx, person, plan, beside)
  const known = await findTraces(trx, planId)
  const input = await compileInput(trx, plan, known)
  const compiled = compiledFor(input)
  const sectioned = await sectionPlans(trx, plan, input, beside)
  const clearable = await clearableIn(trx, plan)
  const seen = { sections: sectioned, clearing: clearingMark(clearable) }
  if (fingerprintOf(plan, input, compiled, seen) !== fingerprint) throw refuse('changed-since-consent')
  if (compiled.placements.length === 0) throw refuse('nothing-to-add')
  const { basis, people } = await tracesBasis(trx, plan, input)
  if (known?.basis !== basis) throw refuse('changed-since-consent')
  const { traces: openTraces, unseen: openFiles } = compiled.effect.settle
  if (openTraces > 0) throw refuse('traces-to-settle', { count: openTraces })
  if (openFiles > 0) throw refuse('unseen-to-settle', { count: openFiles })
  const courses = await factsOfCourses(trx, [...sidesOfPlan(plan), plan.targetId])
  await checkShellReady(trx, plan, present(courses.get(plan.targetId)))

  const effect = effectBeside(compiled.effect, sectioned)
  const things = compiled.placements.length
  await watch.at('writes', 0, things)
  const running: Running = { runId, person, plan, input, compiled, watch }
  const courseId = writtenCourse(plan)
  const before = await countStudentData(trx, courseId)
  const sources = sidesOfPlan(plan)
  const isInPlace = plan.mode === 'in-place'
  const standing = await rowsOfLastTerm(trx, courseId, sources, isInPlace)
  await queries.insertRun(trx, {
    id: runId,
    planId,
    sourceId: plan.sourceId,
    targetId: courseId,
    personId: person.id,
    document: plan.document,
    effect,
    entries: packed(
      packedEntries({
        entries: recordEntries(
          input,
          compiled,
          sources.map(id => codeText(present(courses.get(id)))),
        ),
        left: compiled.left,
      }),
    ),
    beforeId: isInPlace ? null : await keepState(trx, courseId, everySection(beside)),
    at: stampOf(now()),
  })
  let cleared: ClearedCounts | null
  const facts: Record<string, queries.FactChanges> = {}
  if (isInPlace) cleared = await writeInPlace(trx, running)
  else {
    cleared = await clearAtRun(trx, running, clearable)
    await writeIntoShell(trx, running)
    Object.assign(facts, await joinSections(trx, running, sectioned, beside))
  }
  await watch.at('checks', things, things)
  await addJob(trx, { kind: 'index', subject: courseId, personId: null, payload: {} })
  facts[courseId] = await queries.setShellFacts(trx, courseId, shellFactsOf(plan.document))
  // As the course stands now: what was written is counted and searched in it.
  const stands = await loadStanding(trx, courseId)
  const dated = write.datesWritten(stands, compiled.placements)
  checkWritten(runId, 'dates', dated, compiled.effect.dates.dates)
  const tables = await auditTables(trx, { runId, courseId, sources, isInPlace }, standing)
  const traces = { ...(await auditTexts(trx, running, { stands, known, people })), tables }
  await queries.finishRun(
    trx,
    runId,
    { audit: await audit(trx, running, before, cleared), traces, facts },
    stampOf(now()),
  )
  await forgetTraces(trx, planId)
  await markAsRun(trx, planId)
  const { added, dates } = compiled.effect
  const came = { ...added, items: arriving(compiled.effect) }
  const where = { personId: person.id, courseId, planId, runId }
  if (isInPlace)
    await writeLog(trx, { action: 'plan.run-in-place', ...where, detail: { dates: dates.dates } })
  else await writeLog(trx, { action: 'plan.run', ...where, detail: { added: came } })
  await watch.finish(trx, runTold(codeText(present(courses.get(courseId))), plan.mode, effect))
}
/** What a mail says of a run that is done. */
function runTold(name: string, mode: Plan['mode'], effect: Effect): RunTold {
  const { dates, settle } = effect
  const wrote =
    mode === 'in-place'
      ? `${counted(dates.dates, 'date')} written. A snapshot holds the course as it was.`
      : `${effectText(effect, { tense: 'did' })} ${counted(dates.dates, 'date')} written. The audit found nothing of last term’s students.`
  const open = settleTexts(settle)
  return {
    title: `${name} is ${mode === 'in-place' ? 'rolled in place' : 'filled'}`,
    lines: open.length > 0 ? [wrote, `Still to settle: ${open.join(', ')}.`] : [wrote],
  }
}

/** What may have changed since the plan was made, and bars the run. */
async function checkShellReady(trx: Knex, plan: Plan, target: CourseFacts): Promise<void> {
  if (plan.mode === 'roll' && target.origin === 'awaited') throw refuse('no-shell-yet')
  const course = writtenCourse(plan)
  const isJoined = (await sections.contentOf(trx, course)) !== course
  if (isJoined) throw refuse(plan.mode === 'roll' ? 'into-joined-section' : 'in-place-shared-content')
  if (plan.mode === 'in-place' && (await sections.sectionsOf(trx, course)).length > 0)
    throw refuse('in-place-shared-content')
  const ofSections = Object.values(plan.document.sections).map(section => section.windows)
  const calendar = await loadCalendar(trx, plan.targetId)
  for (const windows of [plan.document.windows, ...ofSections]) {
    const findings = windows ? checkWindows(windows, calendar) : []
    const impossible = findings.find(({ grave }) => grave === 'must')
    if (impossible) throw refuse('impossible-windows', { fault: impossible.sentence })
  }
}

const itemsAmong = (placements: readonly Placement[]): Placement[] =>
  placements.filter(entry => entry.entity === 'item')
const lineagesOf = (placements: readonly Placement[]): string[] => placements.map(entry => entry.lineage)

/** Counts student data again: none of any kind may have come, and none may be about the new items. @throws where some is. */
async function audit(
  trx: Knex,
  { runId, plan, compiled }: Running,
  before: Awaited<ReturnType<typeof countStudentData>>,
  cleared: ClearedCounts | null,
): Promise<AuditLine[]> {
  const courseId = writtenCourse(plan)
  const after = await countStudentData(trx, courseId)
  const brought = itemsAmong(compiled.placements).filter(
    ({ action }) => action === 'added' || action === 'filled',
  )
  const fresh = plan.mode === 'in-place' ? [] : lineagesOf(brought)
  // Where nobody has done anything at all, nobody has on the new items.
  const isEmpty = studentDataNames.every(kind => after[kind] === 0)
  const onNew = isEmpty ? after : await countStudentData(trx, courseId, fresh)
  const lines = studentDataNames.map(kind => ({
    kind,
    before: before[kind],
    after: after[kind],
    cleared: cleared?.[kind] ?? 0,
    onNewItems: onNew[kind],
  }))
  const found = lines.find(line => line.after !== line.before - line.cleared || line.onNewItems !== 0)
  if (found) throw new Error(`run ${runId}: the audit found student data (${found.kind})`)
  return lines
}

/** Asks every table that can hold something about a person again. @throws where one has more of last term's students than before. */
async function auditTables(
  trx: Knex,
  {
    runId,
    courseId,
    sources,
    isInPlace,
  }: { runId: string; courseId: string; sources: string[]; isInPlace: boolean },
  before: Awaited<ReturnType<typeof rowsOfLastTerm>>,
): Promise<{ asked: number; rows: number }> {
  const after = await rowsOfLastTerm(trx, courseId, sources, isInPlace)
  for (const [table, rows] of after)
    if (rows > (before.get(table) ?? 0))
      throw new Error(`run ${runId}: the audit found student data (${table})`)
  return { asked: after.size, rows: [...after.values()].reduce((sum, rows) => sum + rows, 0) }
}

/** The rows written must be those planned. @throws where they are not: nothing is committed then. */
function checkWritten(runId: string, what: string, written: number, planned: number): void {
  if (written !== planned) throw new Error(`run ${runId}: ${written} ${what} written, ${planned} planned`)
}

/** Stores the texts that a run makes, ready to be read. Answers their hashes, by the lineage of the source's thing. */
async function storeTexts(
  trx: Knex,
  { plan, input, compiled }: Running,
): Promise<ReadonlyMap<string, string>> {
  const texts = await composeTexts(trx, plan, input, compiled.rows)
  await storeBodies(
    trx,
    [...texts.values()].map(({ bytes }) => bytes),
  )
  for (const { bytes, form } of texts.values()) {
    if (form === null) continue
    const whole = Buffer.from(bytes)
    const source = { hash: hashOf(whole), size: whole.length, load: () => Promise.resolve(whole) }
    await shownBody(trx, source, form)
  }
  return new Map([...texts].map(([lineage, { bytes }]) => [lineage, hashOf(bytes)]))
}
/** Courses that the rows of content come from: a section shows those of another. */
async function contentsOfSides(trx: Knex, plan: Plan): Promise<string[]> {
  const sides = sidesOfPlan(plan)
  const contents = await sections.contentsOf(trx, sides)
  return sides.map(side => contents.get(side) ?? side)
}
async function writeIntoShell(trx: Knex, running: Running): Promise<void> {
  const { plan, input, compiled, watch } = running
  const texts = await storeTexts(trx, running)
  const redactor = await redactorFor(trx, plan, input)
  const placements = await redactor.rows(compiled.placements)
  const writing = {
    placements,
    sourceIds: await contentsOfSides(trx, plan),
    made: texts,
    found: plan.document.added.found,
  }
  await write.writeContent(trx, plan.targetId, writing, wrote => watch.at('writes', wrote, placements.length))
  await redactIdentifiers(trx, plan.targetId, namedInPackage(running))
  const settings = await settingsWritten(trx, plan.targetId, placements)
  const bases = basesOf(input, compiled.rows, { texts, settings })
  const isOfFile = await isFileAmong(trx, plan.sourceIds)
  const { from } = input.brought.merged
  const known = bases.map((base): CarriedBase => {
    const of = plan.sourceIds[from.get(base.source) ?? -1]
    return { ...base, ...(of && { of }), ...(isOfFile && { file: true }) }
  })
  await addBases(trx, plan.targetId, known)
}
/** The keys in the course that is written of what its package called by a student. */
function namedInPackage({ input, compiled, plan }: Running): string[] {
  const redacted = redactedThings(input.traces, plan.document.traces.answers)
  return compiled.placements.flatMap(({ source, lineage, action }) =>
    // What stood there before keeps what it is called.
    redacted.get(source)?.hidesIdentifier && action === 'added' ? [lineage] : [],
  )
}
/** Hashes of the settings of what was given some, as they stand in the shell now. */
async function settingsWritten(
  trx: Knex,
  targetId: string,
  placements: readonly Placement[],
): Promise<Map<string, string>> {
  const given = placements.filter(({ settings }) => settings !== null)
  if (given.length === 0) return new Map()
  const hashes = await settingsHashes(trx, targetId, lineagesOf(given))
  return new Map(
    given.flatMap(({ source, lineage }) => {
      const hash = hashes.get(lineage)
      return hash === undefined ? [] : [[source, hash] as const]
    }),
  )
}

/** Sections that show the shell's content, chosen now or joined before: each gets dates for what is new, from its own meetings. */
async function joinSections(
  trx: Knex,
  { runId, plan, compiled }: Running,
  sectioned: readonly SectionPlan[],
  { joined: before, chosen }: Sections,
): Promise<Record<string, queries.FactChanges>> {
  const facts: Record<string, queries.FactChanges> = {}
  const fresh = chosen.filter(id => !before.includes(id))
  const asked =
    fresh.length > 0
      ? await joinable(trx, plan.targetId, fresh, { sources: plan.sourceIds })
      : new Map<string, Joinable>()
  for (const { faults } of asked.values())
    if (faults.length > 0) throw refuse('cannot-join-any-more', { faults })
  const dated = compiled.placements.filter(entry => entry.dates !== null)
  const inShell = (entity: Placement['entity']) =>
    new Map(dated.filter(each => each.entity === entity).map(({ source, lineage }) => [source, lineage]))
  const there = { units: inShell('unit'), items: inShell('item') }
  for (const { id, ledger } of sectioned) {
    const landed = (keys: ReadonlyMap<string, string>) =>
      ledger.items.flatMap(item => {
        const lineage = keys.get(item.id)
        return lineage === undefined ? [] : [{ ...item, id: lineage }]
      })
    const dates = { units: landed(there.units), items: landed(there.items) }
    await sections.writeSectionDates(trx, id, plan.targetId, dates)
    facts[id] = await queries.setShellFacts(trx, id, sectionFactsOf(plan.document, id))
  }
  for (const section of fresh) {
    if ((asked.get(section)?.leaves.length ?? 0) > 0) {
      await dropContent(trx, section)
      await addJob(trx, { kind: 'index', subject: section, personId: null, payload: {} })
    }
    await sections.copyShellDates(trx, section, plan.targetId)
    await sections.joinSection(trx, section, plan.targetId, runId)
  }
  return facts
}

/** The course itself goes on in the new term, and a snapshot of it, with its students, takes its place in the old one. */
async function writeInPlace(trx: Knex, running: Running): Promise<ClearedCounts | null> {
  const { runId, person, plan, input, compiled } = running
  // What is taken out of its texts is looked up before the course itself changes.
  const texts = await storeTexts(trx, running)
  const redactor = await redactorFor(trx, plan, input)
  const redacted = redactedThings(input.traces, plan.document.traces.answers)
  const placements = (await redactor.rows(compiled.placements))
    .filter(({ entity }) => entity === 'item' || entity === 'unit')
    .map(entry => inPlaceEntry(entry, redacted.has(entry.source)))
  const course = await saidOfCourse(trx, plan.sourceId)
  const snapshot = await makeSnapshot(trx, plan.sourceId)
  await moveIntoTerm(trx, plan.sourceId, plan.targetId)
  await write.writeInto(trx, plan.sourceId, { placements, sourceIds: [snapshot], made: texts })
  await write.writeGrace(trx, plan.sourceId, compiled.placements)
  await redactAround(trx, plan.sourceId, redacted, redactor.around())
  await redactIdentifiers(
    trx,
    plan.sourceId,
    [...redacted].flatMap(([lineage, { hidesIdentifier }]) => (hidesIdentifier ? [lineage] : [])),
  )
  const before = await keepState(trx, plan.sourceId, [], { copy: snapshot, course })
  await queries.keepSnapshot(trx, runId, snapshot, before)
  await repairPlan(trx, plan.id, { sourceId: snapshot, targetId: plan.sourceId, personId: person.id })
  await moveDrafts(trx, plan.sourceId, snapshot)
  await dropHeld(trx, plan.targetId)
  // Last: the snapshot has all of it by now.
  return clearAtRun(trx, { plan, runId, person })
}

/** Of a course that stays where it is only the dates change, and what is taken out of it about students. */
const inPlaceEntry = (entry: Placement, isRedacted: boolean): Placement => ({
  ...entry,
  action: 'replaced',
  ...(!isRedacted && { title: null, textFrom: 'source' }),
})

/** A run as a record: what it did, in the source's order, and what its audit found. */
export async function readRun(db: Knex, person: Person, id: string): Promise<RunReply> {
  const run = await queries.findRun(db, id)
  if (!run) throw notFound('This run')
  const joined = await sections.sectionsOfRun(db, id)
  const snapshot = run.snapshotId
  const courses = [run.sourceId, run.targetId, ...joined, ...(snapshot ? [snapshot] : [])]
  const lineOf = lineIn(await courseLines(db, person, courses))
  const { entries, left, facts } = await queries.runDetails(db, id)
  return {
    id,
    planId: run.planId,
    source: lineOf(run.sourceId),
    target: lineOf(run.targetId),
    by: run.by,
    startedAt: isoInstant(run.startedAt),
    finishedAt: isoInstant(run.finishedAt),
    undoneAt: run.undoneAt && isoInstant(run.undoneAt),
    effect: run.effect,
    audit: run.audit,
    traces: run.traces,
    entries: [...entries],
    left: [...left],
    snapshot: snapshot === null ? null : lineOf(snapshot),
    course: Object.entries(facts[run.targetId] ?? {}).map(([field, change]) => ({ field, ...change })),
    sections: joined.map(lineOf),
  }
}
