import type { Page } from '@playwright/test'
import { base, begin, courseId, expect, foot, inDatabase, signIn, test } from './support'

const lights = 'LTH 220-01'
async function clearLights(page: Page): Promise<string> {
  await signIn(page, 'corrigall', 'fog-signal')
  const old = await courseId(page.request, lights, 'Autumn 2026')
  const plan = await begin(page.request, old, await courseId(page.request, lights, 'Spring 2027'))
  await page.goto(`${base()}/plans/${plan}/clear`)
  await expect(page.getByRole('listbox', { name: 'Traces of students' })).toBeVisible()
  return plan
}
const selected = (page: Page) => page.locator('[role="option"][aria-selected="true"]')
async function run(page: Page, button: string | RegExp): Promise<void> {
  await page.getByText(/^I have seen what changes/).click()
  await page.getByRole('button', { name: button }).click()
  await expect(foot(page).getByRole('link', { name: /Go to the shell/ })).toBeVisible()
}

test('traces are settled by keyboard, taken out by the run, and told in the record; the old course keeps its own', async ({
  page,
}) => {
  await clearLights(page)
  await expect(page.getByRole('heading', { name: /146 records about students stay behind/ })).toContainText(
    '38 traces of students are in what you carry',
  )
  await expect(foot(page)).toContainText('8 to settle')
  // One name alone in a court case stays, for a reason that is asked for.
  await page.keyboard.press('n')
  await expect(selected(page)).toContainText('Holt and others')
  await page.keyboard.press('y')
  await page.getByLabel('Why it stays').fill('a court case')
  await page.keyboard.press('Enter')
  await expect(foot(page)).toContainText('7 to settle')
  await expect(selected(page)).toContainText('As Corwin showed')
  await page.keyboard.press('a')
  await expect(selected(page)).toContainText('14 names and 14 student numbers')
  await page.keyboard.press('r')
  await expect(foot(page)).toContainText('5 to settle')
  await page.keyboard.press('Control+z')
  await expect(foot(page)).toContainText('6 to settle')
  await page.keyboard.press('Control+Shift+Z')
  // The PDF cannot be written, and `r` says so: it stays behind, and its traces with it.
  await page
    .getByRole('option', { name: /Fog signal leaflet/ })
    .first()
    .click()
  await page.keyboard.press('r')
  await expect(selected(page)).toContainText('Northtide can read this file, not change it.')
  await page.getByRole('button', { name: 'Leave the file behind' }).click()
  await expect(foot(page)).toContainText('3 to settle')

  await page.keyboard.press('7')
  await page.getByRole('link', { name: /^Run/ }).click()
  // A student who is back, and a nickname: one is a name alone, the other wants a look of its own.
  const open = page.getByRole('status').filter({ hasText: '2 possible traces of students are not settled' })
  await expect(open).toContainText('1 of them is a name alone: “Zozo”. The other 1 needs a look in Clear.')
  await expect(page.getByRole('button', { name: /^Run into/ })).toBeDisabled()
  await page.getByRole('button', { name: 'Say “a student” in that place' }).click()
  await expect(page.getByText('1 possible trace of students is not settled')).toBeVisible()
  await page.getByRole('link', { name: 'Settle it in Clear' }).click()
  await expect(page.getByRole('listbox', { name: 'Traces of students' })).toBeVisible()
  await page.keyboard.press('n')
  await expect(selected(page)).toContainText('Tegen Carne')
  await page.keyboard.press('a')
  await expect(page.getByText('not settled')).toBeHidden()
  // A recording that nobody can look into comes because somebody says so, on the page of Run as in Clear.
  await page.getByRole('link', { name: /^Run/ }).click()
  await expect(page.getByRole('heading', { name: '1 file could not be looked into' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^Files not looked into 1/ })).toContainText('1 to settle')
  await expect(page.getByRole('button', { name: /^Run into/ })).toBeDisabled()
  await page.getByRole('button', { name: 'Carry it unseen' }).click()
  await expect(page.getByRole('row', { name: /^Files not looked into 1/ })).toContainText(
    '1 comes because somebody said so',
  )
  await run(page, `Run into ${lights}`)
  await page
    .getByRole('link', { name: /record/i })
    .first()
    .click()
  await expect(page.getByRole('main')).toContainText('nothing was left')
  await expect(page.getByRole('row', { name: /Light dues and the law/ }).first()).toContainText(
    'a court case',
  )
  await expect(page.getByRole('row', { name: /fog-horn\.m4a/ }).first()).toContainText(
    'Northtide cannot read this kind of file.',
  )
  const [there, old] = [
    await courseId(page.request, lights, 'Spring 2027'),
    await courseId(page.request, lights, 'Autumn 2026'),
  ]
  for (const [id, words] of [
    [there, 'The key to the hut is with a student'],
    [old, 'The key to the hut is with Zoë Tarrant-Müller'],
  ] as const) {
    await page.goto(`${base()}/courses/${id}?view=read`)
    await page.getByRole('link', { name: 'How to reach us' }).first().click()
    await expect(page.getByText(words)).toBeVisible()
  }
})

test('a course is rolled in place: kinds are cleared or stay, and what went is put back from the course’s page', async ({
  page,
}) => {
  await signIn(page)
  const old = await courseId(page.request, 'HYD 240-01', 'Autumn 2026')
  await page.goto(`${base()}/no-shell?way=place&from=${old}`)
  await page.getByRole('button', { name: /in place$/ }).click()
  await page.getByRole('link', { name: 'Clear', exact: false }).first().click()
  await expect(page.getByRole('heading', { name: /records about students go from the course/ })).toBeVisible()
  const grades = page.getByRole('row', { name: /^grades/i })
  await expect(grades).toContainText('The categories and items they were given for stay')
  await page.getByLabel('Clear awards').locator('xpath=ancestor-or-self::label').click()
  await expect(page.getByRole('row', { name: /^awards/i })).toContainText('of students stay')
  await expect(page.getByText('Leave them to the academic office’s sweep')).toBeVisible()
  await page.getByRole('link', { name: /^Run/ }).click()
  await expect(page.getByText(/records about students cleared\. Kept aside for 90 days/)).toBeVisible()
  await run(page, /in place$/)
  await page.goto(`${base()}/courses/${old}?view=read`)
  const cleared = page.getByRole('listitem').filter({ hasText: 'Kept aside until' })
  await cleared.getByRole('button', { name: 'Put it back' }).click()
  await cleared.getByRole('button', { name: /^Put .* back$/ }).click()
  await expect(page.getByRole('listitem').filter({ hasText: 'Put back' })).toBeVisible()
})

test('leftovers in a shell are asked about, person by person; the office sweeps, and says how long it is kept', async ({
  page,
}) => {
  await signIn(page)
  const shell = await courseId(page.request, 'HYD 240-02', 'Spring 2027')
  await inDatabase(async db => {
    const person = await db('people').where({ source_id: 'st-2026-002' }).first('id')
    const enrolment = '01999999-1111-7111-8111-111111111111'
    const row = {
      course_id: shell,
      person_id: person?.id ?? '',
      role: 'student' as const,
      origin: 'hand' as const,
    }
    await db('enrolments').insert({ ...row, id: enrolment, is_primary: false, may_run: false })
    await db('awards').insert({
      id: '01999999-2222-7222-8222-222222222222',
      enrolment_id: enrolment,
      item_lineage: null,
      award: 'Steady hand',
      given_at: '2026-12-01 10:00:00',
    })
  })
  const old = await courseId(page.request, 'HYD 240-01', 'Autumn 2026')
  const plan = await begin(page.request, old, shell)
  await page.goto(`${base()}/plans/${plan}/clear`)
  await expect(page.getByText('Left over in HYD 240-02')).toBeVisible()
  await expect(page.getByRole('row', { name: /^awards 1 Clear/i })).toContainText('1 record of students goes')
  await page.getByText('Take Brisa Ashgrove-Pell off').click()
  await page.getByRole('link', { name: /^Run/ }).click()
  await expect(page.getByText('1 record about students cleared. 1 student taken off.')).toBeVisible()

  await signIn(page, 'ellwood', 'chart-datum')
  await page.getByRole('link', { name: 'Sweep' }).click()
  await expect(page.getByText('Nobody is left over')).toBeVisible()
  await page.getByLabel('Days for which cleared student data is kept').fill('30')
  await page.getByLabel('Days for which cleared student data is kept').press('Tab')
  await page.getByRole('button', { name: 'Keep it for 30 days' }).click()
  await expect(page.getByText('Set by M')).toBeVisible()
})
