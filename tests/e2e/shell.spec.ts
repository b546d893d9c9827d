import { request, type Page } from '@playwright/test'
import { base, choose, courseId, expect, roll, signIn, signInRequest, test } from './support'

// After Run the work goes on in the shell: its own ledger.

interface Whole {
  nodes: {
    lineage: string
    title: string
    kind: string | null
    opens: string | null
    due: string | null
    closes: string | null
    points: number | null
    state: string
  }[]
}
/** HYD 240-01 of spring, just filled, as its instructor opens it. */
async function open(page: Page, query = '', shown = 'Syllabus'): Promise<string> {
  await signIn(page)
  const [old, shell] = [
    await courseId(page.request, 'HYD 240-01', 'Autumn 2026'),
    await courseId(page.request, 'HYD 240-01', 'Spring 2027'),
  ]
  await roll(page.request, old, shell)
  await page.goto(`${base()}/courses/${shell}${query}`)
  await expect(row(page, shown)).toBeVisible()
  return shell
}
const row = (page: Page, title: string) => page.locator(`[data-item="${title}"]`)
const whole = async (page: Page, shell: string): Promise<Whole> =>
  (await (await page.request.get(`${base()}/api/v1/courses/${shell}`)).json()) as Whole
const node = async (page: Page, shell: string, title: string) =>
  (await whole(page, shell)).nodes.find(each => each.title === title)!
const changed = (page: Page) => page.getByRole('heading', { name: 'Changed since the run' }).locator('..')

test('one date is changed by keyboard, counts at once, is undone and made again', async ({ page }) => {
  const shell = await open(page)
  const { due, lineage } = await node(page, shell, 'Lab sheet 1')
  await page.goto(`${base()}/courses/${shell}?item=${lineage}`)
  await expect(row(page, 'Lab sheet 1')).toHaveAttribute('aria-current', 'true')
  // Two presses: the due date alone, and a day later.
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press(']')
  await expect(row(page, 'Lab sheet 1')).toContainText('look: no meeting that day')
  await expect(changed(page)).toContainText('set the due date of “Lab sheet 1” to')
  await expect(page.getByText('1 of them changed since the run')).toBeVisible()
  const later = (await node(page, shell, 'Lab sheet 1')).due!
  expect(Date.parse(later) - Date.parse(due!)).toBe(86_400_000)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await node(page, shell, 'Lab sheet 1')).due).toBe(due)
  await expect(changed(page)).toBeHidden()
  await page.keyboard.press('Control+Shift+z')
  await expect.poll(async () => (await node(page, shell, 'Lab sheet 1')).due).toBe(later)
  // As the run wrote it.
  await page.keyboard.press('u')
  await expect.poll(async () => (await node(page, shell, 'Lab sheet 1')).due).toBe(due)
})

test('all quizzes are open throughout, and take a setting that one of them has; five edits, and the third is taken back', async ({
  page,
}) => {
  const shell = await open(page, '?kind=quiz', 'Check-in quiz 1')
  await page.keyboard.press('Control+a')
  const panel = page.getByRole('region', { name: 'Chosen items' })
  await panel.getByRole('button', { name: /never closing/ }).click()
  await expect
    .poll(
      async () =>
        new Set((await whole(page, shell)).nodes.flatMap(n => (n.kind === 'quiz' ? [n.closes] : []))),
    )
    .toEqual(new Set([null]))
  const parts = page.getByRole('region', { name: 'What it is' })
  await parts.getByLabel('Attempts of what is chosen').fill('2')
  await expect(parts).toContainText(/All \d have it already\./)
  await parts.getByLabel('Attempts of what is chosen').fill('3')
  await parts.getByRole('button', { name: /^Set attempts to “3” for \d+ items$/ }).click()
  await expect(changed(page)).toContainText(/changed attempts|set attempts/)
  await panel.getByRole('button', { name: 'Choose none' }).click()
  await row(page, 'Check-in quiz 1').click()
  await parts.getByLabel('Points').fill('-3')
  await parts.getByLabel('Points').press('Enter')
  await expect(parts.getByRole('alert')).toHaveText('Points cannot be below 0.')
  await parts.getByLabel('Points').fill('6')
  await parts.getByLabel('Points').press('Enter')
  await expect(changed(page)).toContainText('gave “Check-in quiz 1” 6 points')
  await row(page, 'Check-in quiz 2').click()
  await choose(page, 'State', 'hidden')
  await expect(row(page, 'Check-in quiz 2')).toContainText('hidden')
  await expect(changed(page)).toContainText('hid “Check-in quiz 2”')
  await parts.getByLabel('Title').fill('Check-in quiz two')
  await parts.getByLabel('Title').press('Enter')
  await expect(row(page, 'Check-in quiz two')).toBeVisible()
  await changed(page).getByRole('button', { name: 'Take back: gave “Check-in quiz 1” 6 points' }).click()
  await expect.poll(async () => (await node(page, shell, 'Check-in quiz 1')).points).not.toBe(60_000)
  expect((await node(page, shell, 'Check-in quiz two')).state).toBe('hidden')
})

test('an item is removed and brought back; what a student worked on is only hidden', async ({ page }) => {
  const shell = await open(page)
  await row(page, 'Safety on the foreshore').click()
  await page.getByRole('button', { name: 'Remove …' }).click()
  await page.getByRole('button', { name: 'Remove “Safety on the foreshore”' }).click()
  await expect(row(page, 'Safety on the foreshore')).toBeHidden()
  await page.getByText('1 thing removed, kept aside').click()
  await page.getByRole('button', { name: 'Bring “Safety on the foreshore” back' }).click()
  await expect(row(page, 'Safety on the foreshore')).toBeVisible()
  expect((await node(page, shell, 'Safety on the foreshore')).state).toBe('visible')
})

test('two people in one ledger at once: both changes stand, and each sees the other’s', async ({ page }) => {
  const shell = await open(page)
  const { lineage } = await node(page, shell, 'Lab sheet 1')
  await page.goto(`${base()}/courses/${shell}?item=${lineage}`)
  await expect(row(page, 'Lab sheet 1')).toHaveAttribute('aria-current', 'true')
  const office = await request.newContext()
  await signInRequest(office, 'ellwood', 'chart-datum')
  const things = { [lineage]: { points: 330_000 } }
  const reply = await office.post(`${base()}/api/v1/courses/${shell}/edits`, {
    data: { does: 'change', things },
  })
  expect(reply.status()).toBe(200)
  await office.dispose()
  await page.keyboard.press('}')
  await expect(changed(page)).toContainText('gave “Lab sheet 1” 33 points', { timeout: 15_000 })
  await expect(page.getByRole('region', { name: 'What it is' }).getByLabel('Points')).toHaveValue('33')
  const now = await node(page, shell, 'Lab sheet 1')
  expect([now.points, now.due?.slice(0, 10)]).toEqual([330_000, '2027-01-20'])
})
