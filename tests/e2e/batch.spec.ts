import type { Page } from '@playwright/test'
import { present } from '../../core/present'
import { base, expect, inDatabase, makeCourse, signIn, signInRequest, test } from './support'

// The academic office fills shells together; and decisions that are remembered.

const codes = ['BAT 301', 'BAT 302', 'BAT 303', 'BAT 304']
/** Makes a batch of some shells from the demo's course, and waits until every pair was tried. */
async function tried(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'Batches' }).click()
  await page.getByText('Those of a table').click()
  const table = ['source,shell', ...codes.map(code => `HYD 240-01,${code}`)].join('\n')
  await page
    .getByLabel('Choose a file')
    .setInputFiles({ name: 'pairs.csv', mimeType: 'text/csv', buffer: Buffer.from(table) })
  await page.getByLabel('Name of the batch').fill('Hydrography again')
  await page.getByRole('button', { name: 'Try every pair' }).click()
  await expect(page.getByText('Dry run done')).toBeVisible({ timeout: 30_000 })
}
const row = (page: Page, code: string) => page.getByRole('row', { name: new RegExp(`^${code} `) })

test('a batch with one failing pair is stopped and resumed; the failing one is checked and run again', async ({
  page,
}) => {
  test.setTimeout(120_000)
  await signInRequest(page.request, 'marchetti', 'slack-water')
  const shells: string[] = []
  for (const code of codes) shells.push(await makeCourse(page.request, code, `Tides ${code}`))
  await signIn(page, 'ellwood', 'chart-datum')
  await tried(page)
  // Each lacks the category of one graded item: the office has seen that.
  await row(page, 'BAT 301').getByRole('button', { name: 'Let all like it run' }).click()
  await expect(page.getByText('Adds 392 items in 28 units. Replaces and removes nothing.')).toBeVisible()
  await inDatabase(async db => {
    // A colleague changes the plan of the second shell after the office has looked; the third is long being written.
    await db.raw(
      "UPDATE plans SET document = JSON_SET(document, '$.carry.arrive', 'hidden') WHERE target_course_id = ?",
      [present(shells[1])],
    )
    const held = await db.transaction()
    await held.raw("INSERT INTO carried_bases (course_id, bases) VALUES (?, '')", [present(shells[2])])
    try {
      await page.getByRole('button', { name: 'Run 4 pairs' }).click()
      await expect(page.getByText('1 of 4 shells filled, 1 run failed. Now BAT 303.')).toBeVisible({
        timeout: 20_000,
      })
      await page.goto(base())
      await page.goBack()
      await page.getByRole('button', { name: 'Stop this batch' }).click()
      await expect(page.getByRole('heading', { name: 'Finishing what was begun' })).toBeVisible()
    } finally {
      await held.rollback()
    }
  })
  await expect(page.getByRole('button', { name: 'Go on with 1 pair' })).toBeVisible({ timeout: 20_000 })
  await expect(row(page, 'BAT 303')).toContainText('filled')
  await expect(row(page, 'BAT 304')).toContainText('ready')
  await page.getByRole('button', { name: 'Go on with 1 pair' }).click()
  await expect(page.getByRole('heading', { name: '3 shells filled' })).toBeVisible({ timeout: 20_000 })
  await expect(row(page, 'BAT 302')).toContainText('Something changed since you looked')
  await row(page, 'BAT 302').getByRole('button', { name: 'Check again' }).click()
  await row(page, 'BAT 302').getByRole('button', { name: 'Let it run' }).click({ timeout: 20_000 })
  await page.getByRole('button', { name: 'Run 1 pair' }).click({ timeout: 20_000 })
  await expect(page.getByRole('heading', { name: '4 shells filled' })).toBeVisible({ timeout: 20_000 })
  const link = page.getByRole('link', { name: 'Download the record: CSV' })
  const record = await page.request.get(`${base()}${await link.getAttribute('href')}`)
  expect(await record.text()).toContain('BAT 302,filled')
  // Undone together: the shell that somebody has changed since stays as it is.
  const first = present(shells[0])
  const lineage = await inDatabase(async db =>
    present((await db('items').where({ course_id: first }).pluck('lineage'))[0]),
  )
  const renamed = await page.request.post(`${base()}/api/v1/courses/${first}/edits`, {
    data: { does: 'rename', titles: { [lineage]: 'Named anew' } },
  })
  expect(renamed.status()).toBe(200)
  await page.getByRole('button', { name: 'Undo this batch …' }).click()
  await expect(page.getByText('where students have handed in, stays as it is')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Undo this batch …' }).click()
  // The consent has the focus, and what follows takes it over: by the keyboard one goes on from there.
  await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: 'Undo 4 runs' })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: '3 runs undone' })).toBeVisible({ timeout: 20_000 })
  expect(await page.evaluate(() => document.activeElement?.tagName)).toBe('H2')
  await expect(row(page, 'BAT 301')).toContainText('1 thing was changed there since')
  await expect(row(page, 'BAT 304')).toContainText('undone')
  await page.getByRole('button', { name: 'Try these 3 pairs again' }).click()
  await row(page, 'BAT 304').getByRole('button', { name: 'Let all like it run' }).click({ timeout: 20_000 })
  await expect(page.getByRole('button', { name: 'Run 3 pairs' })).toBeVisible({ timeout: 20_000 })
  await page.goto(`${base()}/log`)
  await expect(page.getByText('finished undoing a batch')).toHaveCount(1)
  await expect(page.getByText('finished a batch')).toHaveCount(2)
  await expect(page.getByText('finished what was begun of a batch')).toHaveCount(1)
})

test('what a run decided is remembered: the next plan begins with it, and another takes it on', async ({
  page,
}) => {
  await signIn(page)
  await page
    .getByRole('article', { name: /^HYD 240-01/ })
    .first()
    .getByRole('button', { name: 'Go straight to the summary' })
    .click()
  await page.getByText('I have seen what changes in HYD 240-01').click()
  await page.getByRole('button', { name: 'Run into HYD 240-01' }).click()
  await page.getByRole('button', { name: 'Remember these decisions' }).click()
  await page.getByLabel('Name of the habit').fill('Labs as ever')
  await page.getByRole('button', { name: 'Keep the habit' }).click()
  await page.getByRole('link', { name: 'See your habits' }).click()
  await expect(page.getByRole('article', { name: 'Labs as ever' })).toContainText('Your plans begin with it')
  await page.goto(base())
  await page
    .getByRole('article', { name: /^HYD 240-02/ })
    .first()
    .getByRole('button', { name: 'Go straight to the summary' })
    .click()
  await expect(page.getByText('This plan began with the habit “Labs as ever”.')).toBeVisible()
  await page.getByRole('link', { name: /^Pair/ }).click()
  await page.getByRole('button', { name: 'What it decides' }).click()
  await expect(page.getByText('The whole course: Same week and weekday.')).toBeVisible()
  await page.getByRole('button', { name: 'Lay “Labs as ever” over this plan' }).click()
  await expect(page.getByText('“Labs as ever” is laid over this plan.')).toBeVisible()
})
