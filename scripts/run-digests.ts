// npm run digests -- ADDRESS [COUNT] [SEED] : rolls as many random plans as COUNT through a running application with the demo, each undone
// again, and prints a digest of what each effect promised and what each shell then held. Two versions that write the same print the same
// lines: `diff` them. By hand, before and after a change that must change nothing; 200 take some minutes.
import { createHash } from 'node:crypto'
import { setTimeout as pause } from 'node:timers/promises'
import type { CourseReply } from '../shared/api/courses'
import type { PlanReply } from '../shared/api/plans'

const [address = 'http://127.0.0.1:3300', count = '200', seed = '1'] = process.argv.slice(2)
let cookie = ''
interface Answer {
  status: number
  body: Record<string, unknown>
}
async function ask(method: string, path: string, data?: unknown, more: Record<string, string> = {}) {
  const reply = await fetch(`${address}/api/v1${path}`, {
    method,
    headers: { cookie, origin: address, 'content-type': 'application/json', ...more },
    ...(data !== undefined && { body: JSON.stringify(data) }),
  })
  cookie = reply.headers.get('set-cookie')?.split(';')[0] ?? cookie
  return { status: reply.status, body: (await reply.json()) as Answer['body'] }
}

/** Numbers from a seed (mulberry32, a public-domain generator), so that every version of the application is given the same plans. */
let state = Number(seed)
function random(): number {
  state = (state + 0x6d2b79f5) | 0
  let t = Math.imul(state ^ (state >>> 15), 1 | state)
  t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
  return ((t ^ (t >>> 14)) >>> 0) / 4294967296
}
const one = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)] as T
const some = <T>(of: readonly T[], share: number): T[] => of.filter(() => random() < share)

const rules = [
  { method: 'keep-week' },
  { method: 'keep-week', times: { due: 'class-start' }, closures: { due: 'previous' } },
  { method: 'keep-week', weekdays: { 3: 4 }, times: { opens: '08:00' } },
  { method: 'offset', wholeWeeks: true },
  { method: 'offset', days: 130 },
  { method: 'stretch', basis: 'teaching', keepWeekday: true },
  { method: 'stretch', basis: 'calendar' },
  { method: 'meetings' },
  { method: 'always' },
  { method: 'none' },
  { method: 'unchanged' },
]
/** Decisions at random over a plan as it begins. */
function decided({ document, source, target }: PlanReply): unknown {
  const items = source.nodes.filter(({ type }) => type === 'item').map(({ lineage }) => lineage)
  const units = source.nodes.filter(({ type }) => type === 'unit').map(({ lineage }) => lineage)
  const recorded = <T>(keys: readonly string[], of: readonly T[]) =>
    Object.fromEntries(keys.map(key => [key, one(of)]))
  return {
    ...document,
    carry: {
      ...document.carry,
      leave: some(items, one([0, 0, 0.1, 0.5])),
      arrive: one(['as-was', 'visible', 'hidden', 'listed']),
      states: recorded(some(items, 0.05), ['visible', 'hidden']),
      frames: recorded(some(items, 0.05), [true]),
      settings: recorded(some(items, 0.05), [{ attempts: '3' }, { timeLimitMinutes: '45' }]),
    },
    dates: {
      ...document.dates,
      rule: one(rules),
      kindRules: random() < 0.4 ? { quiz: one(rules) } : {},
      unitRules: recorded(some(units, 0.1), rules),
      itemRules: recorded(some(items, 0.05), rules),
    },
    places: {
      ...document.places,
      at: one(['head', 'foot']),
      choices: recorded(some(items, 0.3), ['replace', 'keep', 'both']),
      shell: recorded(
        some(target.nodes, 0.2).map(({ lineage }) => lineage),
        ['stay', 'remove'],
      ),
      titles: recorded(some(items, 0.03), ['Another title']),
      into: units.length > 1 ? recorded(some(items, 0.03), units) : {},
    },
  }
}
/** What a course holds, without keys: these are made anew in every database. */
function heldIn({ nodes, categories, grading, grace, rubrics, groups, furniture }: CourseReply): unknown {
  const titles = new Map<string, string>()
  for (const { lineage, title } of [...nodes, ...categories, ...rubrics, ...groups])
    titles.set(lineage, title)
  const plain = (key: string, value: unknown): unknown =>
    key === 'lineage' ? undefined : typeof value === 'string' ? (titles.get(value) ?? value) : value
  return JSON.parse(
    JSON.stringify({ nodes, categories, grading, grace, rubrics, groups, furniture }, plain),
  ) as unknown
}
const digest = (of: unknown): string =>
  createHash('sha256').update(JSON.stringify(of)).digest('hex').slice(0, 16)

interface Listed {
  id: string
  code: string
  section: string
  origin: string
  term: { id: string; name: string }
  counts?: { items?: number }
}
async function rolled(plan: string): Promise<string> {
  for (;;) {
    const { body } = await ask('GET', `/plans/${plan}/state`)
    if (body.state === 'run') return 'run'
    if (body.outcome) return `not run: ${(body.outcome as { title: string }).title}`
    await pause(60)
  }
}
async function oneRun(at: number, courses: readonly Listed[], sources: readonly Listed[]): Promise<string> {
  const name = ({ code, section, term }: Listed): string => `${code}-${section} ${term.name}`
  const shells = courses.filter(({ origin, term }) => origin === 'registrar' && term.name === 'Spring 2027')
  const [source, shell] = [one(sources), one(shells)]
  const isNew = random() < 0.5
  const title = `${at} ${name(source)} into ${isNew ? 'a new course' : name(shell)}`
  let target = shell.id
  if (isNew) {
    const made = { term: '2027-spring', code: `DIG ${1000 + at}`, section: '', title: `Digest ${at}` }
    target = String((await ask('POST', '/courses', made)).body.id)
  }
  const begun = await ask('POST', '/plans', { sources: [source.id], target })
  const refused = ({ body }: Answer): string =>
    `${title}: refused, ${String(body.title)} ${JSON.stringify(body.errors ?? '')}`
  if (begun.status !== 200) return refused(begun)
  const plan = String(begun.body.id)
  const read = (await ask('GET', `/plans/${plan}`)).body as unknown as PlanReply
  const document = decided(read)
  const saved = await ask('PUT', `/plans/${plan}`, { document }, { 'if-match': `"${read.revision}"` })
  const effect = saved.status === 200 ? await ask('GET', `/plans/${plan}/effect`) : saved
  const asked =
    effect.status === 200
      ? await ask('POST', `/plans/${plan}/run`, { fingerprint: effect.body.fingerprint })
      : effect
  if (asked.status !== 200) {
    await ask('DELETE', `/plans/${plan}`)
    return refused(asked)
  }
  const came = await rolled(plan)
  if (came !== 'run') return `${title}: ${came}`
  const course = (await ask('GET', `/courses/${target}`)).body as unknown as CourseReply
  const { dates, added, filled, replaced, cleared } = effect.body.effect as Record<string, unknown>
  const promised = { dates, added, filled, replaced, cleared }
  const { run } = (await ask('GET', `/plans/${plan}`)).body as unknown as PlanReply
  const line = `${title}: ${digest(promised)} ${digest(heldIn(course))} ${course.nodes.length} held`
  if (run) await undone(run.id, plan)
  return line
}
async function undone(run: string, plan: string): Promise<void> {
  const { body } = await ask('GET', `/runs/${run}/undo`)
  await ask('POST', `/runs/${run}/undo`, { fingerprint: body.fingerprint, keepAside: true })
  await ask('DELETE', `/plans/${plan}`)
}

await ask('POST', '/session', { login: 'ellwood', password: 'chart-datum' })
// The demo's courses; a list of courses has only so many at once.
const courses: Listed[] = []
for (const subject of ['BKG', 'HYD', 'LTH', 'ORN', 'WVG'])
  courses.push(...((await ask('GET', `/courses?q=${subject}`)).body.courses as Listed[]))
courses.sort((a, b) =>
  `${a.term.id} ${a.code} ${a.section}` < `${b.term.id} ${b.code} ${b.section}` ? -1 : 1,
)
const sources: Listed[] = []
for (const course of courses)
  if (((await ask('GET', `/courses/${course.id}`)).body as unknown as CourseReply).nodes.length > 5)
    sources.push(course)
for (let at = 1; at <= Number(count); at++) console.log(await oneRun(at, courses, sources))
