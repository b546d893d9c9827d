import { counted } from '../../core/dates/words'

interface Action<D> {
  /** What was done, after the name of who did it. */
  readonly words: string
  /** What the line tells beyond who, what and where. Lines written by an earlier version may lack a detail. */
  readonly more?: (detail: Partial<D>) => (string | null | undefined)[]
}
const action = <D extends object = Record<never, never>>(definition: Action<D>): Action<D> => definition
const count = (n: number | undefined, one: string, many?: string): string | null =>
  n === undefined ? null : counted(n, one, many)
const list = (names: readonly string[] | undefined, before: string): string | null =>
  names?.length ? `${before} ${names.join(', ')}` : null

const named = ({ name }: { name?: string }) => [name && `“${name}”`]
const withPairs = ({ name, pairs }: { name?: string; pairs?: number }) => [
  name && `“${name}”`,
  count(pairs, 'pair'),
]

/**
 * Everything that is written into the log, with what it tells and how that is said. A line keeps what it was told when it was
 * written: names and numbers, never an identifier.
 */
export const logActions = {
  'plan.started': action<{ sources: number }>({
    words: 'began a plan',
    more: ({ sources }) => [sources && sources > 1 ? `from ${counted(sources, 'course')}` : null],
  }),
  'plan.started-for-term': action<{ term: string }>({
    words: 'began a plan for a term',
    more: ({ term }) => [term],
  }),
  'plan.started-in-place': action<{ term: string }>({
    words: 'began to roll in place',
    more: ({ term }) => [term],
  }),
  'batch.made': action<{ name: string; pairs: number }>({
    words: 'made a batch',
    more: withPairs,
  }),
  'batch.run': action<{ name: string; pairs: number }>({
    words: 'ran a batch',
    more: withPairs,
  }),
  'batch.resumed': action<{ name: string; pairs: number }>({
    words: 'resumed a batch',
    more: withPairs,
  }),
  'batch.stopped': action<{ name: string }>({
    words: 'stopped a batch',
    more: named,
  }),
  'batch.done': action<{ name: string; done: number; failed: number }>({
    words: 'finished a batch',
    more: ({ name, done, failed }) => [
      name && `“${name}”`,
      done !== undefined ? `${counted(done, 'shell')} filled` : null,
      failed ? `${counted(failed, 'run')} failed` : null,
    ],
  }),
  'batch.halted': action<{ name: string; done: number; failed: number }>({
    words: 'finished what was begun of a batch',
    more: ({ name, done, failed }) => [
      name && `“${name}”`,
      done !== undefined ? `${counted(done, 'shell')} filled` : null,
      failed ? `${counted(failed, 'run')} failed` : null,
    ],
  }),
  'batch.trial-stopped': action<{ name: string }>({
    words: 'stopped the dry run of a batch',
    more: named,
  }),
  'batch.undo': action<{ name: string; pairs: number }>({
    words: 'began to undo a batch',
    more: ({ name, pairs }) => [name && `“${name}”`, count(pairs, 'run')],
  }),
  'batch.undo-stopped': action<{ name: string }>({
    words: 'stopped undoing a batch',
    more: named,
  }),
  'batch.undone': action<{ name: string; undone: number; left: number }>({
    words: 'finished undoing a batch',
    more: ({ name, undone, left }) => [
      name && `“${name}”`,
      undone !== undefined ? `${counted(undone, 'run')} undone` : null,
      left ? `${counted(left, 'shell')} left as ${left === 1 ? 'it is' : 'they are'}` : null,
    ],
  }),
  'batch.discarded': action<{ name: string }>({
    words: 'discarded a batch',
    more: named,
  }),
  'habit.kept': action<{ name: string; department?: string }>({
    words: 'kept decisions as a habit',
    more: ({ name, department }) => [name && `“${name}”`, department && `of ${department}`],
  }),
  'habit.changed': action<{ name: string; department?: string }>({
    words: 'changed a habit',
    more: ({ name, department }) => [name && `“${name}”`, department && `of ${department}`],
  }),
  'habit.deleted': action<{ name: string; department?: string }>({
    words: 'deleted a habit',
    more: ({ name, department }) => [name && `“${name}”`, department && `of ${department}`],
  }),
  'clearing.done': action<{ rows: number; people: number }>({
    words: 'cleared student data',
    more: ({ rows, people }) => [
      count(rows, 'record'),
      people ? `${counted(people, 'person', 'people')} taken off` : null,
    ],
  }),
  'clearing.restored': action<{ rows: number; people: number }>({
    words: 'put cleared student data back',
    more: ({ rows, people }) => [count(rows, 'record'), people ? counted(people, 'person', 'people') : null],
  }),
  'clearing.destroyed': action<{ rows: number; people: number }>({
    words: 'destroyed what was kept aside',
    more: ({ rows }) => [count(rows, 'record')],
  }),
  'clearing.days': action<{ days: number }>({
    words: 'set how long cleared student data is kept',
    more: ({ days }) => [count(days, 'day')],
  }),
  'course.edited': action<{ words: string }>({
    words: 'changed a course',
    more: ({ words }) => [words],
  }),
  'course.edit-undone': action<{ words: string }>({
    words: 'took a change of a course back',
    more: ({ words }) => [words],
  }),
  'item.fixed': action<{ title: string }>({
    words: 'fixed an item for the institution',
    more: ({ title }) => [title],
  }),
  'item.released': action<{ title: string }>({
    words: 'let an item be changed again',
    more: ({ title }) => [title],
  }),
  'plan.sources': action<{ added: string[]; removed: string[] }>({
    words: 'changed the sources of a plan',
    more: ({ added, removed }) => [
      list(added, 'added'),
      list(removed, 'took out'),
      added?.length || removed?.length ? null : 'put them in another order',
    ],
  }),
  'plan.attached': action({ words: 'attached the shell to a plan' }),
  'plan.decisions-given': action<{ plans: number }>({
    words: 'gave a plan’s decisions to its other shells',
    more: ({ plans }) => [count(plans, 'plan')],
  }),
  'plan.sections': action<{ sections: number }>({
    words: 'chose sections that share the content',
    more: ({ sections }) => [count(sections, 'section')],
  }),
  'section.linked': action<{ section: string; gone: number }>({
    words: 'linked a section to the content',
    more: ({ section, gone }) => [section, gone ? `${counted(gone, 'thing')} of it removed` : null],
  }),
  'section.unlinked': action<{ section: string }>({
    words: 'unlinked a section from the content',
    more: ({ section }) => [section],
  }),
  'plan.discarded': action({ words: 'discarded a plan' }),
  'plan.run': action<{ added: { items: number } }>({
    words: 'ran a plan',
    more: ({ added }) => [added ? `${counted(added.items, 'item')} added` : null],
  }),
  'plan.run-cancelled': action({ words: 'stopped a run before it was written' }),
  'plan.run-failed': action<{ why: string }>({
    words: 'asked for a run that wrote nothing',
    more: ({ why }) => [why],
  }),
  'plan.undone': action<{ edits: number; work: number }>({
    words: 'undid a run',
    more: ({ edits, work }) => [
      edits ? `${counted(edits, 'later change')} went with it` : null,
      work ? `${counted(work, 'record')} of students’ work kept aside` : null,
    ],
  }),
  'plan.redone': action({ words: 'put a run back that was undone' }),
  'plan.run-in-place': action<{ dates: number }>({
    words: 'rolled in place',
    more: ({ dates }) => [dates === undefined ? null : `${counted(dates, 'date')} set`],
  }),
  'roster.imported': action<{ people: number; classes: number; enrolments: number; changes: number }>({
    words: 'brought a roster in',
    more: ({ people, classes, enrolments, changes }) => [
      count(people, 'person', 'people'),
      count(classes, 'class', 'classes'),
      count(enrolments, 'enrolment'),
      changes ? `${counted(changes, 'change')}` : null,
    ],
  }),
  'staff.unlisted': action<{ names: string[] }>({
    words: 'took staff off a course: the registrar does not list them any more',
    more: ({ names }) => [names?.join(', ')],
  }),
  'staff.back': action<{ names: string[] }>({
    words: 'gave staff their course back: the registrar lists them again',
    more: ({ names }) => [names?.join(', ')],
  }),
  'sign-in.closed': action<{ name: string }>({
    words: 'closed a sign-in: the registrar deleted the person',
    more: ({ name }) => [name],
  }),
  'sign-in.started': action<{ device: string }>({ words: 'signed in', more: ({ device }) => [device] }),
  'sign-in.failed': action<{ device: string; name: string | null }>({
    words: 'a sign-in failed',
    more: ({ name, device }) => [name ? `as ${name}` : 'under a name that nobody has', device],
  }),
  'sign-in.ended': action({ words: 'signed out' }),
  'sign-in.ended-elsewhere': action<{ sessions: number }>({
    words: 'ended sign-ins elsewhere',
    more: ({ sessions }) => [count(sessions, 'sign-in')],
  }),
  'guesses.stopped': action<{ device: string; name: string | null }>({
    words: 'too many wrong tries: nothing is looked at for a while',
    more: ({ name, device }) => [name ? `as ${name}` : null, device],
  }),
  'password.changed': action({ words: 'changed their password' }),
  'password.set': action({ words: 'set a password by an invitation' }),
  'person.invited': action<{ name: string; mailed: boolean }>({
    words: 'made a link for somebody to set a password',
    more: ({ name, mailed }) => [name, mailed ? 'sent by mail' : 'handed over'],
  }),
  'person.uninvited': action<{ name: string }>({
    words: 'took back a link to set a password',
    more: ({ name }) => [name],
  }),
  'term.imported': action<{ term: string }>({ words: 'brought a calendar in', more: ({ term }) => [term] }),
  'course.imported': action<{ findings: number }>({
    words: 'brought a course in',
    more: ({ findings }) => [findings ? `${counted(findings, 'finding')}` : null],
  }),
  'course.made': action<{ code: string; title: string }>({
    words: 'made a course',
    more: ({ title }) => [title],
  }),
  'codes.saved': action<{ patterns: number; mapped: number }>({
    words: 'saved the rules for codes',
    more: ({ patterns, mapped }) => [count(patterns, 'pattern'), count(mapped, 'renumbered course')],
  }),
  'past.saved': action<{ pastAfter: number; archivedAfter: number }>({
    words: 'changed when courses are past',
    more: ({ pastAfter, archivedAfter }) => [
      pastAfter === undefined ? null : `past after ${counted(pastAfter, 'day')}`,
      archivedAfter === undefined ? null : `archived after ${counted(archivedAfter, 'day')}`,
    ],
  }),
  'upload.received': action<{ name: string; size: number }>({
    words: 'sent a file',
    more: ({ name }) => [name],
  }),
  'upload.imported': action<{ name: string }>({ words: 'brought a file in', more: ({ name }) => [name] }),
  'upload.discarded': action<{ name: string }>({ words: 'deleted a file', more: ({ name }) => [name] }),
  'share.code': action<{ withheld: string[]; days: number | null }>({
    words: 'made a share code',
    more: ({ withheld, days }) => [
      days ? `valid for ${counted(days, 'day')}` : null,
      list(withheld, 'without'),
    ],
  }),
  'share.department': action<{ withheld: string[]; days: number | null; department: string }>({
    words: 'shared with a department',
    more: ({ department, days, withheld }) => [
      department,
      days ? `for ${counted(days, 'day')}` : null,
      list(withheld, 'without'),
    ],
  }),
  'share.revoked': action<{ code: string | null; department: string | null }>({
    words: 'took a share back',
    more: ({ code, department }) => [code, department],
  }),
  // Not which: a code that still opens a course is for those to whom it was given.
  'share.used': action({ words: 'opened a share code' }),
  'template.version': action<{ title: string; version: number }>({
    words: 'made a new version of what is on a shelf',
    more: ({ title, version }) => [title, version === undefined ? null : `version ${version}`],
  }),
  'template.brought-back': action<{ title: string; version: number }>({
    words: 'brought a version back on a shelf',
    more: ({ title, version }) => [title, version === undefined ? null : `version ${version}`],
  }),
  'template.made': action<{ title: string }>({ words: 'made a template', more: ({ title }) => [title] }),
  'template.changed': action<{ title: string }>({
    words: 'changed a template',
    more: ({ title }) => [title],
  }),
  'template.retired': action<{ title: string }>({
    words: 'retired a template',
    more: ({ title }) => [title],
  }),
  'template.offered-again': action<{ title: string }>({
    words: 'took a template out of retirement',
    more: ({ title }) => [title],
  }),
  'template.deleted': action<{ title: string }>({
    words: 'deleted a template',
    more: ({ title }) => [title],
  }),
  'request.sent': action<{ shell: string }>({ words: 'asked for a shell', more: ({ shell }) => [shell] }),
  'request.close': action<{ shell: string }>({ words: 'closed a request', more: ({ shell }) => [shell] }),
  'request.answer': action<{ shell: string }>({ words: 'answered a request', more: ({ shell }) => [shell] }),
  'request.send-again': action<{ shell: string }>({
    words: 'had a mail sent again',
    more: ({ shell }) => [shell],
  }),
  'duty.given': action<{ name: string; duty: string; department: string }>({
    words: 'gave a duty',
    more: ({ name, duty, department }) => [name, duty && dutyWords(duty), department],
  }),
  'duty.taken': action<{ name: string; duty: string; department: string }>({
    words: 'took a duty',
    more: ({ name, duty, department }) => [name, duty && dutyWords(duty), department],
  }),
  'run.allowed': action<{ person: string }>({
    words: 'let an assistant run',
    more: ({ person }) => [person],
  }),
  'run.disallowed': action<{ person: string }>({
    words: 'let an assistant run no more',
    more: ({ person }) => [person],
  }),
}
const dutyWords = (duty: string): string => (duty === 'office' ? 'academic office' : duty)

export type LogAction = keyof typeof logActions
export type LogDetail<A extends LogAction> = (typeof logActions)[A] extends Action<infer D> ? D : never
const known = new Map<string, Action<Record<string, unknown>>>(
  Object.entries(logActions as unknown as Record<string, Action<Record<string, unknown>>>),
)
/** What a line says was done. */
export const logWords = (name: string): string => known.get(name)?.words ?? name
/** What a line tells beyond who, what and where: short texts. */
export const logMore = (name: string, detail: Record<string, unknown>): string =>
  (known.get(name)?.more?.(detail) ?? []).filter(Boolean).join(' · ')
/** Actions of which the words hold a text: `roster` finds those that brought a roster in. */
export const actionsWith = (text: string): string[] =>
  [...known].filter(([, { words }]) => words.toLowerCase().includes(text.toLowerCase())).map(([name]) => name)
