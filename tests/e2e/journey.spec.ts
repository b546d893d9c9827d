import { readFileSync } from 'node:fs'
import { type Locator, type Page } from '@playwright/test'
import { base, begin, courseId, expect, foot, pairLine, roll, signIn, signInByForm, test } from './support'

interface Dates {
  opens: string | null
  due: string | null
  closes: string | null
}
const worked = JSON.parse(
  readFileSync(new URL('../cases/01-same-week-and-weekday.json', import.meta.url), 'utf8'),
) as { case: { items: { id: string; title: string }[] }; expected: { items: (Dates & { id: string })[] } }
const months = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
/** `Fri 15 Jan 23:59`, worked out here by another way than the application's. */
const shown = (at: string | null): string =>
  at === null
    ? ''
    : `${new Intl.DateTimeFormat('en', { weekday: 'short', timeZone: 'UTC' }).format(new Date(`${at}Z`))} ${Number(at.slice(8, 10))} ${months[Number(at.slice(5, 7)) - 1]} ${at.slice(11)}`
const cell = async (row: Locator, field: string): Promise<string> =>
  (await row.locator(`[data-field=${field}]`).innerText()).replace(/\s+/g, ' ').trim()

/** Finds a row of the virtual ledger: looks on from where it is, then once from the top. */
async function ledgerRow(page: Page, title: string): Promise<Locator> {
  const table = page.getByRole('grid', { name: 'Dates, old and new' })
  const row = table.locator(`[data-item="${title}"]`)
  const list = table.getByRole('rowgroup')
  for (let step = 0; step < 40 && (await row.count()) === 0; step++) {
    await list.evaluate(element => {
      element.scrollTop =
        element.scrollTop + element.clientHeight + 1 >= element.scrollHeight ? 0 : element.scrollTop + 250
    })
    await page.waitForTimeout(30)
  }
  return row
}

test('from sign-in to the opened shell, with case 01’s dates on screen', async ({ page }) => {
  const outside: string[] = []
  page.on('request', request => {
    if (!request.url().startsWith(base()) && !request.url().startsWith('data:')) outside.push(request.url())
  })
  const errors: string[] = []
  page.on('pageerror', error => errors.push(error.message))
  page.on('console', message => {
    if (message.type() === 'error') errors.push(message.text())
  })

  await signInByForm(page, 'marchetti', 'slack-water')
  const shell = page.locator('article', { hasText: 'HYD 240-01 Tidal' })
  await expect(shell).toContainText('29 students on the roster · empty')
  await expect(shell).toContainText('98 items · sure: same code, HYD 240')
  await shell.getByRole('button', { name: 'Go step by step' }).click()

  // Pair: direction unmistakable.
  await expect(page.getByRole('group', { name: 'From, stays as it is' })).toContainText('Autumn 2026')
  await expect(page.getByRole('group', { name: 'Into, this shell changes' })).toContainText('Spring 2027')
  await page.getByRole('link', { name: /On to Carry/ }).click()

  // Carry: everything; one item out and in again by key.
  await expect(foot(page)).toContainText('98 added')
  await page.keyboard.press('j')
  await page.keyboard.press('j')
  await page.keyboard.press('x')
  await expect(foot(page)).toContainText('97 added')
  await page.keyboard.press('Control+z')
  await expect(foot(page)).toContainText('98 added')
  await page.getByRole('link', { name: /On to Clear/ }).click()

  // Clear: what the source holds, by kind, and that none of it crosses.
  await expect(page.getByRole('heading', { name: /records about students stay behind/ })).toContainText(
    'No trace of a student is in what you carry.',
  )
  for (const kind of ['Submissions', 'Grades', 'Quiz attempts', 'Discussion posts', 'Extensions']) {
    const cells = await page
      .getByRole('row', { name: new RegExp(`^${kind}`, 'i') })
      .getByRole('cell')
      .allInnerTexts()
    expect(Number(cells[1]!.replace(',', ''))).toBeGreaterThan(0)
    expect(cells[2]).toBe('0')
  }
  await page.getByRole('link', { name: /On to Date/ }).click()

  // Date: every date of the case, on screen.
  await expect(foot(page)).toContainText('1 to settle')
  for (const { id, title } of worked.case.items) {
    const expected = worked.expected.items.find(item => item.id === id)!
    if (!expected.opens && !expected.due && !expected.closes) continue
    const row = await ledgerRow(page, title)
    for (const field of ['opens', 'due', 'closes'] as const)
      expect(await cell(row, field), `${title}, ${field}`).toBe(shown(expected[field]) || '–')
  }
  await (await ledgerRow(page, 'Soundings project')).click()
  await expect(page.getByRole('region', { name: 'Why' })).toContainText(
    'Tue 30 Mar runs on a Monday timetable',
  )

  // Held by hand, and let go.
  const log = await ledgerRow(page, 'Shore log 1')
  await log.click()
  await page.keyboard.press('e')
  const due = page.getByLabel('Due', { exact: true })
  await due.fill('31 feb')
  await page.keyboard.press('Enter')
  await expect(page.getByText('February 2027 has 28 days.')).toBeVisible()
  await due.fill('thu wk 2 12:00')
  await expect(page.getByText('Thu 14 Jan 12:00')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(log.locator('[data-field=due]')).toHaveText(/Thu 14 Jan\s+12:00/)
  await expect(log).toContainText('look: no meeting that day')
  await page.keyboard.press('u')
  await expect(log.locator('[data-field=due]')).toHaveText(/Fri 15 Jan\s+23:59/)
  // Brackets move the whole item; with one date chosen, that alone.
  await page.keyboard.press('}')
  await expect(log.locator('[data-field=opens]')).toHaveText(/Tue 19 Jan/)
  await expect(log.locator('[data-field=closes]')).toHaveText(/Sun 24 Jan/)
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('[')
  await expect(log.locator('[data-field=opens]')).toHaveText(/Mon 18 Jan/)
  await expect(log.locator('[data-field=due]')).toHaveText(/Fri 22 Jan/)
  await expect(log).toContainText('held')
  await page.keyboard.press('u')
  await expect(log.locator('[data-field=due]')).toHaveText(/Fri 15 Jan\s+23:59/)

  // The other methods, live.
  await page.getByText('No dates', { exact: true }).click()
  await expect(foot(page)).toContainText('99 taken away')
  await page.getByText('Same week and weekday').click()
  await expect(foot(page)).toContainText('99 dates')
  await expect(pairLine(page)).toContainText('Draft saved')
  await page.getByRole('link', { name: /On to Run/ }).click()

  // Run: the effect in numbers, consent, writing.
  await expect(page.getByText('Adds 98 items in 7 units. Replaces and removes nothing.')).toBeVisible()
  const run = page.getByRole('button', { name: 'Run into HYD 240-01' })
  await expect(run).toBeDisabled()
  await page.getByText('I have seen what changes in HYD 240-01').click()
  await run.click()
  await expect(page.getByRole('heading', { name: 'HYD 240-01 is filled.' })).toBeVisible()
  await expect(page.getByText('The audit found nothing')).toBeVisible()

  // The shell itself, readable.
  await page
    .getByRole('main')
    .getByRole('link', { name: /Go to the shell/ })
    .click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await expect(page.getByText('Nothing of students is here.')).toBeVisible()
  for (const { id, title } of worked.case.items) {
    const expected = worked.expected.items.find(item => item.id === id)!
    const row = page.locator(`tr[data-item="${title}"]`)
    for (const field of ['opens', 'due', 'closes'] as const)
      expect(await cell(row, field), `${title}, ${field}`).toBe(shown(expected[field]))
  }
  await page.getByRole('link', { name: 'The two bulges' }).click()
  const content = page.getByRole('article')
  await expect(content).toContainText('The moon pulls on all of the earth')
  await expect(content.getByRole('img')).toHaveJSProperty('complete', true)
  expect(
    await content.getByRole('img').evaluate((image: HTMLImageElement) => image.naturalWidth),
  ).toBeGreaterThan(0)
  expect(errors).toEqual([])
  expect(outside).toEqual([])
})

test('the record says what was done, and the dates can be taken along', async ({ page }) => {
  await signIn(page)
  const [old, shell] = [
    await courseId(page.request, 'HYD 240-01', 'Autumn 2026'),
    await courseId(page.request, 'HYD 240-01', 'Spring 2027'),
  ]
  await roll(page.request, old, shell)
  await page.reload()
  await page.getByRole('link', { name: 'record' }).click()
  await expect(
    page.getByRole('heading', { name: 'HYD 240-01, Autumn 2026 into HYD 240-01, Spring 2027' }),
  ).toBeVisible()
  await expect(page.getByRole('row', { name: /Shore log 1 Tue 12 Jan 08:00/ })).toBeVisible()
  await page.getByRole('link', { name: 'the shell' }).click()
  for (const [name, first] of [
    ['iCalendar', 'BEGIN:VCALENDAR'],
    ['CSV', '\uFEFFUnit,Item,Kind'],
  ] as const) {
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('link', { name }).click(),
    ])
    const text = readFileSync(await download.path(), 'utf8')
    expect(text.startsWith(first)).toBe(true)
    expect(text).toContain('Shore log 1')
  }
})

test('the keys: list, find, go, and letters switched off', async ({ page }) => {
  await signIn(page)
  await page.keyboard.press('?')
  await expect(page.getByRole('complementary', { name: 'Keys' })).toContainText('find a course')
  await page.keyboard.press('?')
  await page.keyboard.press('/')
  await page.keyboard.type('hyd 240 2026')
  await expect(page.getByRole('option')).toHaveCount(1)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Tidal Hydrography', level: 1 })).toBeVisible()
  await page.keyboard.press('g')
  await page.keyboard.press('r')
  await expect(page.getByRole('heading', { name: 'Rollovers' })).toBeVisible()
  await page.keyboard.press('?')
  await page.getByText('Single letters are keys').click()
  await page.keyboard.press('g')
  await page.keyboard.press('s')
  await expect(page.getByRole('heading', { name: 'Rollovers' })).toBeVisible()
})

test('a plan changed in another tab is joined with what was changed here; where both changed one thing, either can be kept', async ({
  page,
  context,
}) => {
  await signIn(page)
  await page
    .locator('article', { hasText: 'HYD 240-02 Tidal' })
    .getByRole('button', { name: 'Go step by step' })
    .click()
  await page.getByRole('link', { name: /On to Carry/ }).click()
  await expect(foot(page)).toContainText('0 stay behind')
  // What a screen reader is told of a box.
  await expect(page.getByRole('checkbox', { name: 'Carry Syllabus' })).toBeChecked()
  const other = await context.newPage()
  await other.goto(page.url())
  await other.getByRole('checkbox', { name: 'Carry Syllabus' }).press('Space')
  await expect(foot(other)).toContainText('1 stay behind')
  await expect(pairLine(other)).toContainText('Draft saved')
  await page.getByRole('checkbox', { name: 'Carry How to reach us' }).press('Space')
  await expect(page.getByRole('status')).toContainText('You changed this plan in another window.')
  await expect(
    page.getByRole('treeitem').filter({ has: page.getByRole('checkbox', { checked: false }) }),
  ).toHaveText([/Syllabus/, /How to reach us/])
  await expect(pairLine(page)).toContainText('Draft saved')
  // The other tab takes over what was changed here as soon as it is looked at.
  await other.evaluate(() => window.dispatchEvent(new Event('focus')))
  await expect(foot(other)).toContainText('2 stay behind')

  await page.getByRole('link', { name: /^Date/ }).click()
  await other.getByRole('link', { name: /^Date/ }).click()
  // One who is not told in time, as where the connection falters.
  await other.route('**/api/v1/plans/*/state', route => route.abort())
  await page.getByText('No dates', { exact: true }).click()
  await expect(pairLine(page)).toContainText('Draft saved')
  await other.getByText('Same distance from the first day').click()
  const choice = other.getByRole('alert')
  await expect(choice).toContainText('The other window changed the same thing meanwhile.')
  await expect(choice).toContainText('The rule for the whole course')
  await expect(choice).toContainText('Here: Same distance from the first day')
  await other.getByText('The other window: No dates').click()
  await other.getByRole('button', { name: 'Save what I chose' }).click()
  await expect(other.getByRole('alert')).toHaveCount(0)
  await expect(foot(other)).toContainText('0 to settle')
  const plan = new URL(other.url()).pathname.split('/')[2]!
  await other.close()
  await page.goto(base())
  await page.request.delete(`${base()}/api/v1/plans/${plan}`)
})

test('wrong password, a server that fails, and a plan that is not there are each said with a way on', async ({
  page,
}) => {
  await page.goto(`${base()}/plans/01999999-9999-7999-8999-999999999999/date`)
  await expect(page).toHaveURL(/sign-in\?back=/)
  await page.getByLabel('Name').fill('marchetti')
  await page.getByLabel('Password').fill('wrong')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toContainText('do not belong together')
  await page.getByLabel('Password').fill('slack-water')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await expect(page.getByRole('alert')).toContainText('This plan is not here')
  await page.getByRole('link', { name: 'Back to the shells' }).click()
  await expect(page.getByRole('heading', { name: 'Shells' })).toBeVisible()
  await begin(
    page.request,
    await courseId(page.request, 'HYD 240-01', 'Autumn 2026'),
    await courseId(page.request, 'HYD 240-01', 'Spring 2027'),
  )
  await page.route('**/api/v1/plans', route => route.abort())
  await page.getByRole('link', { name: 'Rollovers' }).click()
  await expect(page.getByRole('alert')).toContainText('The server cannot be reached')
  await page.unroute('**/api/v1/plans')
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByRole('table')).toBeVisible()
})
