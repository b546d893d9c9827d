import { expect, type APIRequestContext, type Page } from '@playwright/test'

export const base = (): string => process.env.NORTHTIDE_E2E_URL!
export async function signIn(page: Page, login = 'marchetti', password = 'slack-water'): Promise<void> {
  await page.goto(`${base()}/sign-in`)
  await page.getByLabel('Name').fill(login)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('heading', { name: 'Shells' })).toBeVisible()
}
/** Signs a request context in through the API. */
export async function signInRequest(request: APIRequestContext, login: string, password: string): Promise<void> {
  expect((await request.post(`${base()}/api/v1/session`, { data: { login, password } })).status()).toBe(200)
}
