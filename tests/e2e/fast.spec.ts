import { request } from '@playwright/test'
import { base, expect, signIn, signInRequest, test } from './support'

test('a seven-week summer by the fast road: it moves by the better way, says which, and is run', async ({
  page,
}) => {
  // In summer the course has a number of its own: the office says so.
  const office = await request.newContext()
  await signInRequest(office, 'ellwood', 'chart-datum')
  const mapped = [{ from: 'HYD 240', to: 'HYD 235' }]
  const rules = { data: { patterns: [], mapped }, headers: { 'if-match': '"0"' } }
  expect((await office.put(`${base()}/api/v1/codes`, rules)).status()).toBe(200)
  await office.dispose()
  await signIn(page)
  await page
    .getByRole('article', { name: /HYD 235-01/ })
    .getByRole('button', { name: 'Go straight to the summary' })
    .click()
  const better = page.getByText(/Dates move by “Stretched to the length of the term”, which leaves/)
  await expect(better).toBeVisible()
  const [, left, usual] = /leaves (\d+) dates? to settle\. .* would leave (\d+)/.exec(
    (await better.textContent())!,
  )!
  expect(Number(left)).toBeLessThan(5)
  expect(Number(usual)).toBeGreaterThan(30)
  // The number is the one in the table, and the other way and the stages are one press away.
  await expect(page.getByRole('row', { name: /Dates written/ })).toContainText(`${left} to settle`)
  await expect(page.getByRole('button', { name: 'Move dates by “Same week and weekday”' })).toBeVisible()
  await expect(page.getByRole('link', { name: 'Go through it step by step' })).toHaveAttribute(
    'href',
    /\/pair$/,
  )
  await page.getByText('I have seen what changes in HYD 235-01').click()
  await page.getByRole('button', { name: 'Run into HYD 235-01' }).click()
  await expect(page.getByRole('heading', { name: 'HYD 235-01 is filled.' })).toBeVisible()
  await expect(page.getByRole('row', { name: /Dates written/ })).toContainText(`${left} to settle`)
})

test('both sections together: what goes from the other is listed, both are filled, and one is unlinked', async ({
  page,
}) => {
  await signIn(page)
  await page
    .getByRole('article', { name: /HYD 240-01/ })
    .first()
    .getByRole('button', { name: 'Go straight to the summary' })
    .click()
  await page.getByRole('button', { name: 'Fill both sections together' }).click()
  await expect(
    page.getByRole('heading', { name: 'What running does to HYD 240-01 and HYD 240-02' }),
  ).toBeVisible()
  await expect(page.getByText(/Adds 98 items in 7 units\. Removes 6 things from HYD 240-02\./)).toBeVisible()
  const sections = page.getByRole('heading', { name: 'Sections that show this content' }).locator('..')
  await expect(sections.getByRole('listitem')).toHaveCount(6)
  await expect(page.getByText(/6 overwritten or removed/)).toBeVisible()
  await page.getByText('I have seen what changes in').click()
  await page.getByRole('button', { name: 'Run into HYD 240-01 and HYD 240-02' }).click()
  await expect(page.getByRole('heading', { name: 'HYD 240-01 and HYD 240-02 are filled.' })).toBeVisible()
  await page.getByRole('link', { name: 'Go to the shell' }).first().click()
  await page.getByRole('button', { name: 'Unlink HYD 240-02 …' }).click()
  await expect(page.getByText('an edit in HYD 240-01 no longer reaches it')).toBeVisible()
  await page.getByRole('button', { name: 'Unlink HYD 240-02', exact: true }).click()
  // What it has now came from the same source: it can be linked again, and the list says what goes.
  await page.getByRole('button', { name: 'Show this content in HYD 240-02 too …' }).click()
  await expect(page.getByText(/7 units and 98 items go from HYD 240-02/)).toBeVisible()
  await page.getByRole('button', { name: 'Leave it as it is' }).click()
  await page.goto(`${base()}/`)
  await expect(page.getByRole('article', { name: /HYD 240-02/ }).first()).not.toContainText(
    'Shares its content',
  )
})
