import { counted } from '../../core/dates/words'
import { sizeText } from '../../core/formats/limits'

/** A field that is wrong, and what to do. */
export interface FieldProblem {
  field: string
  message: string
}
interface Definition<D> {
  readonly status: number
  /** Seconds after which asking again may help. */
  readonly retryAfter?: (details: D) => number
  readonly title: string | ((details: D) => string)
  readonly detail?: string | ((details: D) => string)
  readonly errors?: (details: D) => FieldProblem[]
}
const refusal = <D = undefined>(definition: Definition<D>): Definition<D> => definition
/** A refusal about one field. */
const wrongField = <D = undefined>(
  title: string,
  field: string,
  message: string | ((details: D) => string),
  detail?: string,
): Definition<D> => ({
  status: 400,
  title,
  detail,
  errors: details => [{ field, message: typeof message === 'string' ? message : message(details) }],
})
const unchanged = 'Nothing was changed.'
/** `1 second`, `3 minutes`. */
const waitText = (seconds: number): string =>
  seconds <= 90 ? counted(seconds, 'second') : counted(Math.ceil(seconds / 60), 'minute')

/**
 * Every way in which the application refuses what it was asked: the status, what happened, what is safe and what to do. Code
 * names a refusal by its code; the sentences stand here alone.
 */
export const refusals = {
  // Asking for anything.
  'not-found': refusal<{ what: string }>({
    status: 404,
    title: ({ what }) => `${what} is not here`,
    detail: 'It does not exist, or you are not among those who may see it.',
  }),
  'no-such-address': refusal<{ address: string }>({
    status: 404,
    title: 'There is no such address',
    detail: ({ address }) => address,
  }),
  'no-such-method': refusal<{ method: string; allowed: readonly string[] }>({
    status: 405,
    title: 'This address takes no such request',
    detail: ({ method, allowed }) => `It takes ${allowed.join(', ')}, not ${method}. Nothing was changed.`,
  }),
  'not-signed-in': refusal({
    status: 401,
    title: 'You are not signed in',
    detail: 'Sign in, then try again. What you have saved is kept.',
  }),
  'too-many-guesses': refusal<{ seconds: number }>({
    status: 429,
    title: 'Too many wrong tries',
    detail: ({ seconds }) =>
      `Wait ${waitText(seconds)}, then try again. Until then nothing is looked at, right or wrong.`,
    retryAfter: ({ seconds }) => seconds,
  }),
  'sign-in-busy': refusal({
    status: 429,
    title: 'Many people are signing in at this moment',
    detail: 'Your password was not looked at. Press again in some seconds.',
    retryAfter: () => 3,
  }),
  'password-refused': wrongField<{ fault: string }>(
    'This password cannot be used',
    'password',
    ({ fault }) => fault,
    'Nothing was changed.',
  ),
  'current-password-wrong': wrongField(
    'That is not your password of now',
    'current',
    'Give the password that you signed in with.',
    'Nothing was changed.',
  ),
  'invitation-ended': refusal({
    status: 410,
    title: 'This link has been used, or has run out',
    detail: 'Ask the academic office for a new one. If you have set a password already, sign in with it.',
  }),
  'not-active': refusal<{ name: string }>({
    status: 409,
    title: ({ name }) => `${name} may not sign in`,
    detail: 'The registrar does not list this person as active. Nothing was changed.',
  }),
  'wrong-password': refusal({
    status: 401,
    title: 'That name and password do not belong together',
    detail: 'Check both; capital letters count in the password.',
  }),
  forbidden: refusal<{ title: string }>({
    status: 403,
    title: ({ title }) => title,
    detail: unchanged,
  }),
  'office-only': refusal({ status: 403, title: 'This is for the academic office', detail: unchanged }),
  'bad-request': refusal<{ what: string; errors: FieldProblem[] }>({
    status: 400,
    title: ({ what }) =>
      what === 'address' ? 'This address is mistyped or cut short' : `The ${what} is not as it should be`,
    errors: ({ errors }) => errors,
  }),
  'not-json': refusal({ status: 400, title: 'The request is not JSON' }),
  'request-too-large': refusal<{ limit: number }>({
    status: 413,
    title: 'The request is too large',
    detail: ({ limit }) => `At most ${sizeText(limit)} are accepted.`,
  }),
  'other-site': refusal({ status: 403, title: 'This request comes from another site', detail: unchanged }),
  'no-revision': refusal<{ what: string }>({
    status: 428,
    title: 'Which revision does this change?',
    detail: ({ what }) => `Send If-Match with the revision of ${what} that you read, such as "3".`,
  }),
  'unknown-term': wrongField<{ term: string }>(
    'There is no such term',
    'term',
    ({ term }) => `${term} is not a term here.`,
  ),
  'no-department': refusal({
    status: 409,
    title: 'There is no department for this course',
    detail:
      'You teach no course here yet, so it is not known where a new one belongs. Ask the academic office. Nothing was changed.',
  }),

  // The database, and what can be asked for too often.
  'database-away': refusal({
    status: 503,
    title: 'Northtide’s database does not answer',
    detail: 'Nothing was changed, and what you saved before is kept. Ask again in a minute.',
  }),
  busy: refusal({
    status: 503,
    title: 'Too much is going on at once here',
    detail: 'Nothing was changed. Wait some seconds, then ask again.',
  }),
  'schema-not-current': refusal({
    status: 503,
    title: 'The database is not up to date with this application',
    detail: 'Run the migrations (npm run migrate); the README says how.',
  }),
  'outcome-unknown': refusal({
    status: 503,
    title: 'The connection to the database was lost while this was saved',
    detail: 'It was saved whole or not at all. Load the page again to see which.',
  }),

  // Plans: which course, into which shell.
  'source-twice': wrongField(
    'A course stands twice among the sources',
    'sources',
    'Each course comes once; take the second away.',
  ),
  'template-retired': refusal({
    status: 409,
    title: 'This template has been retired',
    detail: 'It is not offered any more. Choose another source, or ask whoever made it to offer it again.',
  }),
  'place-only': refusal({
    status: 409,
    title: 'This place only waits for its shell',
    detail: 'It can be neither shared nor used as a source. Nothing was changed.',
  }),
  'template-named-so': wrongField<{ title: string }>(
    'You have a template of this name',
    'title',
    ({ title }) => `“${title}” is on your shelf already. Give this one another name.`,
  ),
  'into-itself': wrongField(
    'A course cannot be rolled into itself here',
    'sources',
    'Choose another course to roll from.',
    'To use the same course again, roll it in place.',
  ),
  'into-snapshot': refusal({
    status: 409,
    title: 'A snapshot is kept as it was',
    detail: 'Nothing is written into it. Roll from it into a shell instead.',
  }),
  'into-joined-section': refusal({
    status: 409,
    title: 'This section shows the content of another',
    detail: 'Plan for the shell whose content it is; the dates of this section are written with it.',
  }),
  'may-not-plan': refusal({
    status: 403,
    title: 'You may see this shell, not plan for it',
    detail: 'Its instructors, its assistants and the academic office may.',
  }),
  'duty-beyond-reach': refusal({
    status: 403,
    title: 'This duty reaches further than yours',
    detail: 'Nothing was changed. The academic office of the institution gives and takes it.',
  }),
  'may-not-run-into': refusal<{ courses: string }>({
    status: 403,
    title: ({ courses }) => `You may not run into ${courses}`,
    detail: 'Nothing was written. One of its instructors must run this plan, or allow you to.',
  }),
  'source-taken-back': refusal<{ courses: string }>({
    status: 403,
    title: ({ courses }) => `${courses} may not be rolled from any more`,
    detail: 'Nothing was written, and the plan is kept. Take the course out of the plan, or choose another.',
  }),
  'plan-faults': refusal<{ faults: readonly FieldProblem[] }>({
    status: 400,
    title: 'A date of this plan cannot be meant',
    detail: ({ faults }) => `${faults[0]?.message ?? ''} The plan stays as it was last saved.`,
    errors: ({ faults }) => [...faults],
  }),
  'plan-already-run': refusal({
    status: 409,
    title: 'This plan has been run',
    detail: 'Its decisions are kept as they were. Begin a new plan to roll again.',
  }),
  'nothing-to-discard': refusal({
    status: 409,
    title: 'This plan has been run',
    detail: 'What was run is kept.',
  }),
  'plan-changed': refusal<{ by: string } | null>({
    status: 412,
    title: 'This plan was changed elsewhere',
    detail: theirs =>
      theirs ? `${theirs.by} saved it. Your change is not saved yet.` : 'It is not there any more.',
  }),
  'in-place-source': refusal({
    status: 409,
    title: 'A course rolled in place is its own source',
    detail: unchanged,
  }),
  'in-place-one-course': wrongField(
    'Only one course can be rolled in place',
    'sources',
    'Choose the course that is used again.',
  ),
  'in-place-shared-content': refusal({
    status: 409,
    title: 'This course shares its content with other sections',
    detail: 'It cannot be rolled in place alone. Roll into new shells instead.',
  }),
  'in-place-instructors-only': refusal({
    status: 403,
    title: 'Only its instructors may roll a course in place',
    detail: unchanged,
  }),
  'in-place-later-term': wrongField<{ code: string; term: string }>(
    'This term is not a later one',
    'term',
    ({ code, term }) => `${code} is in ${term} now; choose a term after it.`,
  ),
  'in-place-adds': refusal({
    status: 409,
    title: 'A course that is rolled in place keeps what it holds',
    detail: 'Nothing is added by its plan. Run it, then open the course and add what you want there.',
  }),
  'in-place-no-shells': refusal({
    status: 409,
    title: 'A course rolled in place has no further shells',
    detail: unchanged,
  }),
  'waits-for-no-shell': refusal({
    status: 409,
    title: 'This plan waits for no shell',
    detail: unchanged,
  }),
  'shell-in-other-term': wrongField<{ planned: string; shell: string }>(
    'This shell is in another term',
    'shell',
    ({ planned, shell }) => `The plan is for ${planned}, the shell in ${shell}.`,
  ),
  'for-one-shell': refusal({ status: 409, title: 'This plan is for one shell', detail: unchanged }),
  'joins-no-sections': refusal({ status: 409, title: 'This plan joins no sections', detail: unchanged }),
  'cannot-join': refusal<{ faults: string[] }>({
    status: 409,
    title: 'A section cannot share this content',
    detail: ({ faults }) => `Of one of them ${faults.join(', ')}. Nothing was changed.`,
  }),

  'section-changed': refusal({
    status: 409,
    title: 'The section was changed meanwhile',
    detail:
      'What would go from it is no longer what you have seen. Nothing was changed. Look at the list again.',
  }),

  // Runs.
  'somebody-is-writing': refusal<{ by: string; since: string }>({
    status: 409,
    title: 'Somebody runs into this shell',
    detail: ({ by, since }) =>
      `${by} asked for it at ${since} (UTC). Nothing of yours was written; look again when it is done.`,
  }),
  'undo-not-kept': refusal({
    status: 409,
    title: 'This run cannot be undone any more',
    detail: 'How the course stood before it is not kept any longer. Nothing was changed.',
  }),
  'undo-later-run': refusal({
    status: 409,
    title: 'Something was run into this course since',
    detail: 'Undo the later run first. Nothing was changed.',
  }),
  'undo-linked': refusal({
    status: 409,
    title: 'This section shows the content of another by now',
    detail: 'Unlink it first, on its own page. Nothing was changed.',
  }),
  'undo-section-used': refusal({
    status: 409,
    title: 'A section that shared this content was filled or changed since',
    detail: 'Putting the run back would hide what stands there now. Nothing was changed.',
  }),
  'undo-under-way': refusal({
    status: 409,
    title: 'Somebody runs into this course now',
    detail: 'Wait until that run is done, then look again. Nothing was changed.',
  }),
  'undo-mixed-work': refusal<{ students: string[] }>({
    status: 409,
    title: 'Students of last term did more since',
    detail: ({ students }) =>
      `Their old work and the new cannot be told apart: ${students.join(', ')}. Nothing was changed. Ask the academic office to take the new work off first.`,
  }),
  'undo-students-work': refusal<{ items: number; students: string[] }>({
    status: 409,
    title: 'Students have handed in since',
    detail: ({ items, students }) =>
      `${counted(items, 'item')} that would go ${items === 1 ? 'has' : 'have'} work of ${students.join(', ')}. Nothing was changed. Say that their work is kept aside, or leave the run as it is.`,
  }),
  'plan-being-run': refusal<{ by: string }>({
    status: 409,
    title: 'This plan is being run',
    detail: ({ by }) =>
      `${by} asked for it. Your change was not saved. Stop the run, or wait until it is done: then the plan is kept as it was run.`,
  }),
  'run-already': refusal({
    status: 409,
    title: 'This plan has been run already',
    detail: 'Open the shell to see what came of it.',
  }),
  'changed-since-consent': refusal({
    status: 409,
    title: 'Something changed since you looked',
    detail:
      'The plan, the old course or the shell is not as it was when these numbers were made. Nothing was written. Look at the numbers again, then run.',
  }),
  'clearing-ended': refusal<{ state: 'restored' | 'destroyed' }>({
    status: 409,
    title: ({ state }) => (state === 'restored' ? 'This was put back already' : 'This is not kept any more'),
    detail: ({ state }) =>
      state === 'restored'
        ? 'Nothing was written twice.'
        : 'The time for which the office has such data kept is over, and it was destroyed. The log says when.',
  }),
  'traces-not-searched': refusal({
    status: 503,
    title: 'The search for traces of students did not end',
    detail: 'Nothing was written. Open Clear: it searches anew, and says what it found.',
  }),
  'traces-to-settle': refusal<{ count: number }>({
    status: 409,
    title: ({ count }) =>
      count === 1 ? 'A trace of a student is not settled' : `${count} traces of students are not settled`,
    detail:
      'Nothing was written. Open Clear and say of each whether it goes, becomes “a student”, or stays for a reason.',
  }),
  'unseen-to-settle': refusal<{ count: number }>({
    status: 409,
    title: ({ count }) =>
      count === 1 ? 'A file could not be looked into' : `${count} files could not be looked into`,
    detail: 'Nothing was written. Say on Run or in Clear whether they come all the same, or stay behind.',
  }),
  'trace-not-reached': refusal<{ title: string }>({
    status: 409,
    title: ({ title }) => `“${title}” cannot be opened any more`,
    detail:
      'Nothing was written. A student’s name was to be taken out of it. Open Clear: it searches anew. You can leave the file behind.',
  }),
  'audit-changed-elsewhere': refusal<{ title: string }>({
    status: 500,
    title: 'The audit found a change that nobody was shown',
    detail: ({ title }) =>
      `Nothing was kept of the run: the shell is as it was. “${title}” would have changed elsewhere than in the words shown in Clear. Tell the help desk.`,
  }),
  'audit-found-trace': refusal<{ title: string; count: number }>({
    status: 500,
    title: 'The audit found a student’s name in what was written',
    detail: ({ title }) =>
      `Nothing was kept of the run: the shell is as it was. The name stands in “${title}”. Open Clear, and tell the help desk if it says that all is settled.`,
  }),
  'may-not-edit': refusal({
    status: 403,
    title: 'You may read this course, not change it',
    detail: 'Its instructors may, and whoever they have allowed to run into it. Ask one of them.',
  }),
  'may-not-improve': refusal({
    status: 403,
    title: 'You may take this from the shelf, not change it there',
    detail: 'Who put it there can open it to colleagues. Nothing was changed.',
  }),
  'edit-place-gone': refusal({
    status: 409,
    title: 'That place is gone',
    detail:
      'The unit, or what it should stand after, is not there any more. Reload the page, then choose again. Nothing was changed.',
  }),
  'edit-category-gone': refusal({
    status: 409,
    title: 'That grade category is gone',
    detail: 'Reload the page, then choose another. Nothing was changed.',
  }),
  'edit-into-itself': refusal({
    status: 409,
    title: 'A unit cannot stand within itself',
    detail: 'Choose another unit. Nothing was changed.',
  }),
  'edit-fixed': refusal<{ title: string }>({
    status: 409,
    title: ({ title }) => `The institution fixed “${title}”`,
    detail: 'Only the academic office can let it be changed. Nothing was changed.',
  }),
  'edit-overtaken': refusal({
    status: 409,
    title: 'This change can no longer be taken back',
    detail: 'Something else was changed after it. Take the later changes back first, or change it by hand.',
  }),
  'edit-of-content': refusal({
    status: 409,
    title: 'This section shows the content of another',
    detail: 'Its dates can be changed here. Everything else is changed in the course whose content it is.',
  }),
  'edit-refused': refusal<{ title: string; message: string; field: string }>({
    status: 400,
    title: ({ title }) => `“${title}” was not changed`,
    detail: ({ message }) => message,
    errors: ({ message, field }) => [{ field, message }],
  }),
  'edit-has-work': refusal<{ title: string; records: number }>({
    status: 409,
    title: ({ title }) => `Students have worked on “${title}”`,
    detail: ({ records }) =>
      `It holds ${records} ${records === 1 ? 'record' : 'records'} of theirs, so it is not removed. Hide it instead. Nothing was changed.`,
  }),
  'more-is-there': refusal({
    status: 409,
    title: 'This unit is in the shell by now',
    detail: 'Reload the page to see what is still to come. Nothing was changed.',
  }),
  'edit-worked-on': refusal({
    status: 409,
    title: 'Students have worked on it',
    detail: 'What was added holds work of students by now, so it stays. Hide it instead.',
  }),
  'heading-gone': refusal<{ title: string; heading: string }>({
    status: 409,
    title: ({ title }) => `A heading is gone from “${title}”`,
    detail: ({ heading }) =>
      `The old course has no heading “${heading}” there. In Carry choose another, or take the whole text. Nothing was changed.`,
  }),
  'questions-changed': refusal<{ title: string }>({
    status: 409,
    title: ({ title }) => `The questions of “${title}” have changed`,
    detail:
      'Some of them were chosen before that. In Carry choose them again, or take all of them. Nothing was changed.',
  }),
  'not-yours-to-take': refusal<{ key: string }>({
    status: 403,
    title: 'This item is not yours to take',
    detail:
      'The plan takes an item from a course that you may not roll from, or that is not there any more. Find it again in Carry, and take it from there.',
    errors: ({ key }) => [{ field: `document.added.found.${key}`, message: 'may not be taken.' }],
  }),
  'text-too-long': refusal<{ title: string }>({
    status: 409,
    title: ({ title }) => `“${title}” is too long to be taken in part`,
    detail: 'In Carry take the whole text, or keep the shell’s. Nothing was changed.',
  }),
  'nothing-to-add': refusal({
    status: 409,
    title: 'There is nothing to add',
    detail: 'Everything in this plan is in the shell already, or was left behind.',
  }),
  'no-shell-yet': refusal({
    status: 409,
    title: 'There is no shell yet',
    detail: 'This plan waits for one. Attach the shell when it has come, then run.',
  }),
  'impossible-windows': refusal<{ fault: string }>({
    status: 409,
    title: 'The windows cannot be meant so',
    detail: ({ fault }) => `${fault} Set it right in Pair; nothing was written.`,
  }),
  'cannot-join-any-more': refusal<{ faults: string[] }>({
    status: 409,
    title: 'A section cannot share this content any more',
    detail: ({ faults }) =>
      `Of one of them ${faults.join(', ')}. Nothing was written; choose the sections anew in Pair.`,
  }),

  // The first page: new courses and missing shells.
  'course-names': refusal<{ errors: FieldProblem[] }>({
    status: 400,
    title: 'The course was not made',
    detail: unchanged,
    errors: ({ errors }) => errors,
  }),
  'shell-is-there': refusal({
    status: 409,
    title: 'This shell is there',
    detail: 'Nobody needs to be asked. Look for it among your shells.',
  }),
  'asked-already': refusal<{ desk: string }>({
    status: 409,
    title: 'You have asked for this shell already',
    detail: ({ desk }) => `Your request to the ${desk} is open. Close it first to ask again.`,
  }),
  'empty-answer': wrongField('The answer is empty', 'answer', 'Write what the person should know.'),

  // Sharing.
  'other-department': wrongField('You do not belong to this department', 'org', 'Choose one of yours.'),
  'unknown-code': wrongField(
    'This code opens nothing',
    'code',
    'No course is shared by this code. Look at it letter by letter, or ask for it again.',
    unchanged,
  ),
  'code-taken-back': wrongField<{ by: string }>(
    'This code opens nothing',
    'code',
    ({ by }) => `${by} has taken this code back. Ask for a new one.`,
    unchanged,
  ),
  'code-expired': wrongField<{ by: string; until: string }>(
    'This code opens nothing',
    'code',
    ({ by, until }) => `This code was valid until ${until} (UTC). Ask ${by} for a new one.`,
    unchanged,
  ),
  'empty-template': refusal({
    status: 409,
    title: 'This course is empty',
    detail: 'A template is made from a course with content. Nothing was made.',
  }),

  // Codes, people.
  'code-rules': refusal<{ errors: FieldProblem[] }>({
    status: 400,
    title: 'The rules are not saved',
    detail: unchanged,
    errors: ({ errors }) => errors,
  }),
  'rules-changed': refusal({
    status: 409,
    title: 'Somebody else has changed the rules',
    detail: 'Nothing of yours was saved. Copy what you wrote, then load their rules and go on from them.',
  }),
  // Batches.
  'no-table-of-pairs': refusal<{ missing: readonly string[] }>({
    status: 400,
    title: 'The table has no pairs',
    detail: 'Its first line names the columns. Nothing was made.',
    errors: ({ missing }) =>
      missing.map(column => ({ field: 'table', message: `The column “${column}” is missing.` })),
  }),
  'no-pairs': wrongField(
    'The table is empty',
    'table',
    'Below its first line no line names a shell or a source.',
  ),
  'table-not-read': wrongField<{ why: string }>('The table cannot be read', 'table', ({ why }) => `${why}.`),
  'no-shells-in-term': refusal<{ term: string; filled: number }>({
    status: 409,
    title: ({ term }) => `No shell of ${term} waits to be filled`,
    detail: ({ filled }) =>
      filled > 0
        ? `All ${counted(filled, 'shell')} that your duty reaches were filled before. Nothing was made.`
        : 'Your duty reaches no shell of this term. Nothing was made.',
  }),
  'batch-is-tried': refusal({
    status: 409,
    title: 'The dry run goes on',
    detail: 'Wait until every pair has been tried: then the page says what would be written.',
  }),
  'batch-runs': refusal({
    status: 409,
    title: 'This batch is being run',
    detail: 'Stop it, or wait for its end. Nothing was changed.',
  }),
  'batch-is-undone': refusal({
    status: 409,
    title: 'Runs of this batch are being undone',
    detail: 'Stop that, or wait for its end. Nothing was changed.',
  }),
  'nothing-to-try': refusal({
    status: 409,
    title: 'No such pair is left to try',
    detail: 'Load the page again: it says how each pair stands now.',
  }),
  'nothing-to-undo': refusal({
    status: 409,
    title: 'No run of this batch is left to undo',
    detail: 'Each shell is as it was before, or its own record says why it stays as it is.',
  }),
  'nothing-ready': refusal({
    status: 409,
    title: 'No pair is ready',
    detail: 'Look at the exceptions: each says what stands against it.',
  }),
  'batch-does-not-run': refusal({
    status: 409,
    title: 'There is nothing to stop',
    detail: 'What you wanted to stop has ended. Load the page again.',
  }),
  'pair-is-run': refusal({
    status: 409,
    title: 'This pair is being run, or was',
    detail: 'Nothing was changed. Load the page again.',
  }),
  'pair-needs-no-look': refusal({
    status: 409,
    title: 'This pair cannot be let through',
    detail: 'Read what stands against it, then check it again.',
  }),
  'pair-names-none': refusal({
    status: 409,
    title: 'This line names no pair',
    detail: 'Correct the table, and make a batch of what is left.',
  }),
  'batch-was-run': refusal({
    status: 409,
    title: 'This batch was run',
    detail: 'It stays as the record of what was done. Its runs can be undone.',
  }),
  // Habits.
  'not-your-department': wrongField(
    'This department’s habits are not yours to keep',
    'department',
    'Choose one that your duty as coordinator or office reaches, or keep the habit for yourself.',
  ),
  'habit-name-taken': wrongField<{ name: string }>(
    'There is a habit of this name',
    'name',
    ({ name }) => `“${name}” is taken. Choose another name, or delete the old habit first.`,
  ),
  'unknown-department': wrongField('There is no such department', 'org', 'Choose one of the list.'),
  'last-of-the-office': refusal({
    status: 409,
    title: 'Somebody must be the academic office',
    detail: 'This is the last one who is. Give the duty to another person first; nothing was changed.',
  }),
  'does-not-assist': wrongField(
    'This person does not assist here',
    'person',
    'Choose an assistant of this course.',
  ),

  // Files.
  'file-too-large': refusal<{ limit: number }>({
    status: 413,
    title: 'The file is too large',
    detail: ({ limit }) => `At most ${sizeText(limit)} are accepted. Nothing was kept.`,
    errors: ({ limit }) => [{ field: 'file', message: `has more than ${limit} bytes` }],
  }),
  'sheet-unreadable': refusal<{ reason: string; wayOn: string }>({
    status: 422,
    title: 'This sheet cannot be read',
    detail: ({ reason, wayOn }) => `The file ${reason}. Nothing was changed. ${wayOn}`,
    errors: ({ reason }) => [{ field: 'file', message: reason }],
  }),
  'file-unnamed': wrongField('The file has no name', 'name', 'Give the name of the file.'),
  'file-empty': wrongField('The file is empty', 'file', 'holds no bytes', 'Nothing was kept.'),
  'file-broken-off': refusal({
    status: 400,
    title: 'The file did not arrive whole',
    detail: 'Nothing was kept. Send it again.',
  }),
  'too-much-aside': refusal({
    status: 409,
    title: 'Too much of yours lies here',
    detail:
      'Throw away a file on this page that you do not need, then send this one again. Nothing was kept.',
  }),
  'file-brought-in': refusal({
    status: 409,
    title: 'This file has been brought in already',
    detail: unchanged,
  }),
  'file-not-ready': refusal({
    status: 409,
    title: 'This file cannot be brought in as it stands',
    detail: unchanged,
  }),
  'file-for-office': refusal({
    status: 403,
    title: 'This is for the academic office',
    detail: 'Nothing was changed. Ask the academic office to bring the file in.',
  }),
  'days-do-not-fit': refusal<{ errors: FieldProblem[] }>({
    status: 400,
    title: 'These days do not fit the term',
    detail: unchanged,
    errors: ({ errors }) => errors,
  }),
  'unknown-class': refusal<{ classKey: string }>({
    status: 409,
    title: ({ classKey }) => `The class ${classKey} is not in the roster`,
    detail: 'Read the registrar’s bundle first. Nothing was changed.',
  }),
  'course-empty': refusal<{ name: string }>({
    status: 409,
    title: ({ name }) => `${name} holds no items yet`,
    detail: 'Bring its package in first, or together with this file. Nothing was changed.',
  }),
  'class-holds-content': refusal<{ title: string; classKey: string }>({
    status: 409,
    title: ({ title, classKey }) => `${title} (${classKey}) holds content already`,
    detail: unchanged,
  }),
  'job-lost': refusal({
    status: 409,
    title: 'This work was cancelled, or another server does it',
    detail: 'Nothing was written.',
  }),

  // The registrar.
  'no-registrar': refusal({
    status: 409,
    title: 'No registrar is set up here',
    detail: 'Whoever runs Northtide names the registrar’s address (README, “Running it for real”).',
  }),
  'registrar-token': refusal<{ status: number }>({
    status: 502,
    title: 'The registrar refused the access token',
    detail: ({ status }) => `It answered ${status}. Whoever runs Northtide renews the token.`,
  }),
  'registrar-answer': refusal<{ status: number }>({
    status: 502,
    title: ({ status }) => `The registrar answered ${status}`,
  }),
  'registrar-too-large': refusal<{ limit: number }>({
    status: 502,
    title: ({ limit }) => `The registrar sent more than ${sizeText(limit)}`,
  }),
  'registrar-broke-off': refusal<{ size: number; stated: number | null }>({
    status: 502,
    title: ({ size, stated }) =>
      stated === null
        ? `The registrar’s list broke off after ${size} bytes`
        : `The registrar’s list broke off: ${size} of ${stated} bytes came`,
  }),
  'registrar-slow': refusal<{ seconds: number }>({
    status: 504,
    title: ({ seconds }) => `The registrar did not answer within ${seconds} seconds`,
  }),
  'registrar-unreachable': refusal({ status: 502, title: 'The registrar cannot be reached' }),
}
export type RefusalCode = keyof typeof refusals
export type RefusalDetails<C extends RefusalCode> =
  (typeof refusals)[C] extends Definition<infer D> ? D : never
