import {
  expect,
  request,
  test as plain,
  type APIRequestContext,
  type Locator,
  type Page,
} from '@playwright/test'
import { addressFromEnvironment, connect } from '../../server/db/connection'
import { setPassword } from '../../server/people/people'
import { startApp, type RunningApp } from '../support/app'
import { keepAside, putBack } from '../support/database'
import { oddPackage } from '../support/samples'

export { expect }
let app: RunningApp
const demoAside = (): string => `${app.database}_demo`
/** A test that begins with the demo as it was loaded, whatever the one before it did. Each worker has an application and a database of its own. */
export const test = plain.extend<{ freshDemo: undefined }, { ownApp: RunningApp }>({
  ownApp: [
    // Playwright wants the fixtures it gives to be named, though none is used.
    async ({}, use, { parallelIndex }) => {
      // In ./test two parts of the journeys may run at once.
      app = await startApp(`northtide_e2e_${process.env.NORTHTIDE_E2E_PART ?? ''}_${parallelIndex}`)
      await inDatabase(async db => {
        // The application asks the registrar as soon as it starts; what comes of it is part of where tests begin.
        await expect(async () => {
          const states = await db('fetches').pluck('state')
          expect(states.length).toBeGreaterThan(0)
          expect(states).not.toContain('waiting')
        }).toPass({ timeout: 60_000 })
        await keepAside(db, app.database, demoAside())
      })
      await use(app)
      await app.stop()
    },
    { auto: true, scope: 'worker', timeout: 180_000 },
  ],
  freshDemo: [
    async ({ ownApp }, use) => {
      await atRegistrar({ step: 0, fault: 'none' })
      await inDatabase(db => putBack(db, ownApp.database, demoAside()))
      await use(undefined)
    },
    { auto: true },
  ],
})

export const base = (): string => app.url
/** Where the mail stand-in of this worker shows its letters. */
export const mailbox = (): string => app.mail
/** Signs in by the form. */
export async function signInByForm(page: Page, login: string, password: string): Promise<void> {
  await page.goto(`${base()}/sign-in`)
  await page.getByLabel('Name').fill(login)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'Shells' })).toBeVisible()
}
/** Signs in as somebody, without the form, and shows the first page. */
export async function signIn(page: Page, login = 'marchetti', password = 'slack-water'): Promise<void> {
  await signInRequest(page.request, login, password)
  await page.goto(base())
  await expect(page.getByRole('heading', { name: 'Shells' })).toBeVisible()
}
/** Signs a request context in through the API. */
export async function signInRequest(
  request: APIRequestContext,
  login: string,
  password: string,
): Promise<void> {
  const answer = await request.post(`${base()}/api/v1/session`, { data: { login, password } })
  expect(answer.status()).toBe(200)
}

/** Lets things happen at the registrar's stand-in, or makes its list bad. */
export async function atRegistrar(state: { step?: number; fault?: string }): Promise<void> {
  const answer = await fetch(`${app.registrar}/control`, {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams(Object.entries(state).map(([key, value]) => [key, String(value)])),
    redirect: 'manual',
  })
  expect(answer.status).toBe(303)
}
/** Has the registrar's list up to a step brought in, whoever is on the page. */
export async function registrarBrings(step: number): Promise<void> {
  await atRegistrar({ step })
  const context = await request.newContext()
  await signInRequest(context, 'ellwood', 'chart-datum')
  await context.post(`${base()}/api/v1/registrar`, { data: {} })
  await expect(async () => {
    const reply = await context.get(`${base()}/api/v1/registrar`)
    expect(((await reply.json()) as { fetches: { state: string }[] }).fetches[0]?.state).toBe('new')
  }).toPass({ timeout: 30_000 })
  await context.dispose()
}
interface Listed {
  id: string
  code: string
  section: string
  term: { name: string }
}
/** A course that whoever is signed in may see, by its code and term. */
export async function courseId(context: APIRequestContext, name: string, term: string): Promise<string> {
  const reply = await context.get(`${base()}/api/v1/courses`)
  const { courses } = (await reply.json()) as { courses: Listed[] }
  const found = courses.find(
    course => `${course.code}-${course.section}` === name && course.term.name === term,
  )
  if (!found) throw new Error(`${name} of ${term} is not among ${courses.length} courses`)
  return found.id
}
/** Begins a plan from one course into another. */
export async function begin(context: APIRequestContext, source: string, target: string): Promise<string> {
  const reply = await context.post(`${base()}/api/v1/plans`, { data: { sources: [source], target } })
  return ((await reply.json()) as { id: string }).id
}
/** Rolls one course into another, with the recommended decisions. */
export async function roll(context: APIRequestContext, source: string, target: string): Promise<void> {
  await runOf(context, await begin(context, source, target))
}
/** Runs a plan as it stands, and waits until that is done. */
export async function runOf(context: APIRequestContext, plan: string): Promise<void> {
  const effect = await context.get(`${base()}/api/v1/plans/${plan}/effect`)
  const { fingerprint } = (await effect.json()) as { fingerprint: string }
  const run = await context.post(`${base()}/api/v1/plans/${plan}/run`, { data: { fingerprint } })
  expect(run.status()).toBe(200)
  await isRun(context, plan)
}
/** Waits until a run that was asked for is done. */
export async function isRun(context: APIRequestContext, plan: string): Promise<void> {
  await expect(async () => {
    const reply = await context.get(`${base()}/api/v1/plans/${plan}/state`)
    expect(((await reply.json()) as { state: string }).state).toBe('run')
  }).toPass({ timeout: 30_000, intervals: [100] })
}
/** Makes a course by hand in Spring 2027. */
export async function makeCourse(context: APIRequestContext, code: string, title: string): Promise<string> {
  const data = { term: '2027-spring', code, section: '', title }
  const reply = await context.post(`${base()}/api/v1/courses`, { data })
  expect(reply.status()).toBe(200)
  return ((await reply.json()) as { id: string }).id
}
/** Keeps a package file as the course HYD 118 Harbour Days. */
export async function keepHarbourDays(context: APIRequestContext): Promise<string> {
  const sent = await context.post(`${base()}/api/v1/uploads?name=harbour.imscc`, {
    headers: { 'content-type': 'application/octet-stream' },
    data: oddPackage(),
  })
  const address = `${base()}/api/v1/uploads/${((await sent.json()) as { id: string }).id}`
  const upload = async () =>
    (await (await context.get(address)).json()) as {
      state: string
      term: string | null
      outcome: { courseId: string } | null
      terms: { code: string }[]
    }
  await expect(async () => expect((await upload()).state).toBe('read')).toPass({ timeout: 20_000 })
  const { term, terms } = await upload()
  const data = {
    as: 'course',
    term: term ?? terms[0]?.code,
    code: 'HYD 118',
    section: '',
    title: 'Harbour Days',
  }
  expect((await context.post(`${address}/import`, { data })).ok()).toBe(true)
  await expect(async () => expect((await upload()).state).toBe('imported')).toPass({ timeout: 20_000 })
  return (await upload()).outcome?.courseId ?? ''
}

/** Asks the registrar on its page and waits for what came of it. */
export async function askRegistrar(page: Page, outcome: string): Promise<void> {
  await page.goto(`${base()}/registrar`)
  await page.getByRole('button', { name: 'Check the registrar now' }).click()
  await expect(page.getByRole('button', { name: 'Check the registrar now' })).toBeEnabled({ timeout: 30_000 })
  await expect(
    page.getByRole('list', { name: 'Checked lately' }).getByRole('listitem').first(),
  ).toContainText(outcome)
}
/** The database of the application under test, for what no page does. */
export async function inDatabase<T>(work: (db: ReturnType<typeof connect>) => Promise<T>): Promise<T> {
  const db = connect({ ...addressFromEnvironment(), database: app.database })
  try {
    return await work(db)
  } finally {
    await db.destroy()
  }
}
/** Gives somebody whom the registrar's list has named a password; with `assists`, they assist in a course (by its source key) too; with `name`, that is what they sign in with. */
export const letIn = (login: string, password: string, assists?: string, name?: string): Promise<void> =>
  inDatabase(async db => {
    if (name) await db('people').where({ source_id: login }).update({ login: name })
    await setPassword(db, name ?? login, password)
    if (assists)
      await db.raw(
        `INSERT IGNORE INTO enrolments (id, course_id, person_id, role, origin) SELECT UUID(), courses.id, people.id, 'assistant', 'registrar' FROM courses, people WHERE courses.source_id = ? AND login = ?`,
        [assists, login],
      )
  })

/** Chooses in one of the application's selects. */
export async function choose(page: Page, label: string, option: string | RegExp): Promise<void> {
  const found = page.getByRole('option', { name: option }).filter({ visible: true })
  // One whose options come only now closes as they come; it is opened again.
  await expect(async () => {
    if (!(await found.isVisible()))
      await page.getByRole('combobox', { name: label, exact: true }).press('Enter')
    await found.click({ timeout: 3000 })
  }).toPass()
}
/** The foot of a stage: its totals. */
export const foot = (page: Page): Locator =>
  page.getByRole('region', { name: 'Where it stands, and what is next' })
/** The line over the stages: the source, the shell, and how saving goes. */
export const pairLine = (page: Page): Locator => page.getByRole('region', { name: 'From and into' })
