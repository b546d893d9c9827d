import { expect, type APIRequestContext, type Locator, type Page } from '@playwright/test'
import { addressFromEnvironment, connect } from '../../server/db/connection'
import { setPassword } from '../../server/people/people'

export const base = (): string => process.env.NORTHTIDE_E2E_URL!
export async function signIn(page: Page, login = 'marchetti', password = 'slack-water'): Promise<void> {
  await page.goto(`${base()}/sign-in`)
  await page.getByLabel('Name').fill(login)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'Shells' })).toBeVisible()
}
/** Signs a request context in through the API. */
export async function signInRequest(
  request: APIRequestContext,
  login: string,
  password: string,
): Promise<void> {
  expect((await request.post(`${base()}/api/v1/session`, { data: { login, password } })).status()).toBe(200)
}

/** Lets things happen at the registrar's stand-in, or makes its list bad. */
export async function atRegistrar(state: { step?: number; fault?: string }): Promise<void> {
  const answer = await fetch(`${process.env.NORTHTIDE_E2E_REGISTRAR}/control`, {
    method: 'POST',
    headers: { 'content-type': 'application/x-www-form-urlencoded' },
    body: new URLSearchParams(Object.entries(state).map(([key, value]) => [key, String(value)])),
    redirect: 'manual',
  })
  expect(answer.status).toBe(303)
}
/** Asks the registrar on its page and waits for what came of it. */
export async function askRegistrar(page: Page, outcome: string): Promise<void> {
  await page.goto(`${base()}/registrar`)
  await page.getByRole('button', { name: 'Ask the registrar now' }).click()
  await expect(page.getByRole('button', { name: 'Ask the registrar now' })).toBeEnabled({ timeout: 30_000 })
  await expect(page.locator('aside li').first()).toContainText(outcome)
}
/** The database of the application under test, for what no page does. */
export async function inDatabase<T>(work: (db: ReturnType<typeof connect>) => Promise<T>): Promise<T> {
  const db = connect({ ...addressFromEnvironment(), database: 'northtide_e2e' })
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
        `INSERT IGNORE INTO enrolments (id, course_id, person_id, role, origin) SELECT UUID(), courses.id, people.id, 'assistant', 'hand' FROM courses, people WHERE courses.source_id = ? AND login = ?`,
        [assists, login],
      )
  })

/** The foot of a stage: its totals. */
export const foot = (page: Page): Locator =>
  page.getByRole('region', { name: 'Where it stands, and what is next' })
/** The line over the stages: the source, the shell, and how saving goes. */
export const pairLine = (page: Page): Locator => page.getByRole('group', { name: 'From and into' })
