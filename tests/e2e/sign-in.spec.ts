import { base, expect, mailbox, signIn, test } from './support'

test('one sees where one is signed in, ends the others, and changes the password', async ({
  page,
  browser,
}) => {
  const elsewhere = await (await browser.newContext()).newPage()
  await signIn(elsewhere)
  await signIn(page)
  await page.getByRole('button', { name: 'I. Marchetti' }).click()
  await page.getByRole('link', { name: 'Your sign-ins and password' }).click()
  await expect(page.getByRole('row', { name: /this one/ })).toHaveCount(1)
  await page.getByRole('button', { name: /End the .*other sign-in/ }).click()
  await expect(page.getByText('You are signed in nowhere else.')).toBeVisible()
  await elsewhere.goto(`${base()}/log`)
  await expect(elsewhere.getByRole('button', { name: 'Sign in' })).toBeVisible()

  const change = page.getByRole('button', { name: 'Change the password' })
  await page.getByLabel('Your password now').fill('slack-water')
  await page.getByLabel('New password').fill('marchetti-2027')
  await change.click()
  await expect(page.getByText('It is little more than a name that others know.')).toBeVisible()
  await page.getByLabel('New password').fill('ebb and flood twice a day')
  await change.click()
  await expect(page.getByText('Your password is changed')).toBeVisible()
  // This window goes on without signing in anew.
  await page.getByRole('link', { name: 'Log' }).click()
  await expect(page.getByRole('cell', { name: 'changed their password' })).toBeVisible()
  await signIn(elsewhere, 'marchetti', 'ebb and flood twice a day')
})

test('somebody whom the registrar lists is sent a link, sets a password by it once, and is in', async ({
  page,
  browser,
}) => {
  await signIn(page, 'ellwood', 'chart-datum')
  await page.getByRole('link', { name: 'People' }).click()
  await page.getByRole('button', { name: 'Send a link to set one: Gervase Aumont' }).click()
  await expect(page.getByText('The link is on its way to Gervase Aumont')).toBeVisible()
  const linkSent = async (): Promise<string> => {
    const letters = await (await fetch(`${mailbox()}/letters.json`)).text()
    return /http:[^"\\ ]*\/welcome#[\w-]+/.exec(letters)?.[0] ?? ''
  }
  await expect.poll(linkSent, { timeout: 30_000 }).not.toBe('')
  const link = await linkSent()
  const guest = await (await browser.newContext()).newPage()
  await guest.goto(link)
  await expect(guest.getByText('Gervase Aumont, you sign in as aumont.')).toBeVisible()
  await guest.getByLabel('New password').fill('too short')
  await guest.getByRole('button', { name: 'Set the password and sign in' }).click()
  await expect(guest.getByText('At least 12 are needed.')).toBeVisible()
  await guest.getByLabel('New password').fill('a harbour at low water')
  await guest.getByRole('button', { name: 'Set the password and sign in' }).click()
  await expect(guest.getByRole('heading', { name: 'Shells' })).toBeVisible()
  const late = await (await browser.newContext()).newPage()
  await late.goto(link)
  await expect(late.getByText('This link has been used, or has run out.')).toBeVisible()
})
