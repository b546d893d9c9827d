import type { Locator, Page } from '@playwright/test'
import { base, expect, foot, signIn, test } from './support'

/** Goes from thing to thing until this one has the focus; fails where the Tab key does not lead there. */
async function tabTo(page: Page, wanted: Locator, most = 40): Promise<void> {
  for (let n = 0; n < most; n++) {
    if (await wanted.evaluate(element => element === document.activeElement).catch(() => false)) return
    await page.keyboard.press('Tab')
  }
  await expect(wanted, `reached by ${most} presses of Tab`).toBeFocused()
}
const work = (page: Page): Locator => page.getByRole('main')

test('by keyboard alone: from sign-in to the opened shell', async ({ page }) => {
  await page.goto(`${base()}/sign-in`)
  await tabTo(page, page.getByLabel('Name'))
  await page.keyboard.type('marchetti')
  await page.keyboard.press('Tab')
  await page.keyboard.type('slack-water')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Shells' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Go straight to the summary' }).first()).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Run: HYD 240-01, Spring 2027' })).toBeAttached()

  // After a stage the focus is where work goes on, and what it is is said.
  await page.keyboard.press('2')
  await expect(work(page)).toBeFocused()
  await expect(page.getByText('Carry: HYD 240-01, Spring 2027').last()).toBeAttached()
  const tree = page.getByRole('tree')
  await tabTo(page, tree)
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Space')
  await expect(foot(page)).toContainText('1 stay behind')
  await page.keyboard.press('Control+z')
  await expect(foot(page)).toContainText('0 stay behind')
  // The list is one stop: the next press leads out of it.
  await page.keyboard.press('Tab')
  expect(await tree.evaluate(element => element.contains(document.activeElement))).toBe(false)

  await page.keyboard.press('4')
  await expect(foot(page)).toContainText('99 dates')
  await expect(foot(page)).toContainText('1 to settle')
  await page.keyboard.press('n')
  await page.keyboard.press('e')
  const field = page.getByRole('row', { name: /^Dates of/ }).getByRole('textbox')
  // Edit begins at the date that the item has: it opens, and is not due.
  await expect(field.first()).toBeFocused()
  await page.keyboard.press('Control+a')
  await page.keyboard.type('mon wk 7')
  await page.keyboard.press('Enter')
  await expect(foot(page)).toContainText('0 to settle')
  await expect(page.getByLabel('Rows; j and k move, e edits')).toBeFocused()
  // Letters work again once one has chosen from a list.
  await tabTo(page, page.getByRole('combobox', { name: 'Due at' }))
  await page.keyboard.press('Enter')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('combobox', { name: 'Due at' })).toHaveAttribute('aria-expanded', 'false')
  const why = page.getByRole('region', { name: 'Why' })
  const before = await why.getByRole('heading').textContent()
  await page.keyboard.press('k')
  await expect(why.getByRole('heading')).not.toHaveText(before ?? '')

  // The list of keys takes the focus and gives it back.
  await page.keyboard.press('?')
  await expect(page.getByRole('complementary', { name: 'Keys' })).toBeFocused()
  await page.keyboard.press('Escape')
  await expect(page.getByRole('combobox', { name: 'Due at' })).toBeFocused()

  await page.keyboard.press('6')
  await expect(work(page)).toBeFocused()
  await tabTo(page, page.getByRole('checkbox', { name: 'I have seen what changes in HYD 240-01' }))
  await page.keyboard.press('Space')
  await tabTo(page, foot(page).getByRole('button', { name: 'Run into HYD 240-01' }))
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'HYD 240-01 is filled.' })).toBeFocused({ timeout: 30_000 })
  await page.keyboard.press('7')
  await expect(page.locator('[data-item="Syllabus"]')).toBeVisible()
})

test('what one does by letters is not hinted at where letters are off; arrows go on', async ({ page }) => {
  await signIn(page)
  await page.getByRole('button', { name: 'Go step by step' }).first().click()
  await expect(work(page)).toBeFocused()
  await page.keyboard.press('4')
  await expect(foot(page)).toContainText('1 to settle')
  await expect(foot(page).getByText(/hold$/)).toBeVisible()
  await page.getByRole('button', { name: 'I. Marchetti' }).click()
  await page.getByText('Single letters are keys').click()
  await expect(foot(page).getByText(/hold$/)).toHaveCount(0)
  await page.keyboard.press('Escape')
  await page.keyboard.press('p')
  await expect(foot(page)).toContainText('0 held')
  await page.getByLabel('Rows; j and k move, e edits').focus()
  for (let n = 0; n < 40; n++) await page.keyboard.press('ArrowDown')
  await expect(page.getByRole('region', { name: 'Why' })).toBeVisible()
  // The selected row is wholly in sight, above the foot.
  const row = page.locator('[role=row][aria-selected=true]')
  await expect(row).toBeInViewport({ ratio: 0.98 })
  const [rowBox, footBox] = [await row.boundingBox(), await foot(page).boundingBox()]
  expect((rowBox?.y ?? 0) + (rowBox?.height ?? 0)).toBeLessThanOrEqual((footBox?.y ?? 0) + 1)
})
