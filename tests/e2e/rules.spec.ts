import type { Page } from '@playwright/test'
import { base, begin, choose, courseId, expect, foot, pairLine, signIn, test } from './support'

// Rules for dates, for the whole course and for less than that.

async function atSummer(page: Page): Promise<void> {
  await signIn(page)
  const old = await courseId(page.request, 'HYD 240-01', 'Autumn 2026')
  const summer = await courseId(page.request, 'HYD 235-01', 'Summer 2027')
  await page.goto(`${base()}/plans/${await begin(page.request, old, summer)}/date`)
  await expect(page.getByRole('radiogroup', { name: 'How dates cross' })).toContainText('suggested')
  // It begins with the better way; here it goes week by week.
  await page.getByRole('button', { name: 'Move dates by “Same week and weekday”' }).click()
  await expect(page.getByText(/would leave \d+\. *Move dates by “Stretched/)).toBeVisible()
}
const own = (page: Page) => page.getByRole('list', { name: 'Rules of their own' })
const settle = async (page: Page): Promise<number> =>
  Number(/(\d+) to settle/.exec((await foot(page).textContent()) ?? '')?.[1] ?? 0)

test('a kind of item has a rule of its own, with what each way would leave to settle; it is removed, and a step back brings it again', async ({
  page,
}) => {
  await atSummer(page)
  const before = await settle(page)
  await choose(page, 'For what the rule is', 'every quiz')
  await expect(page.getByText('No rule of its own')).toBeVisible()
  await expect(page.getByText('the wider rule decides: same week and weekday')).toBeVisible()
  await page.getByText('Stretched to the length of the term', { exact: true }).click()
  await expect(own(page)).toContainText('every quiz: stretched to the length of the term')
  await expect.poll(() => settle(page)).toBeLessThan(before)
  await page.getByText('on the same weekday').click()
  await expect(pairLine(page)).toContainText('Draft saved')
  await page.reload()
  await expect(own(page)).toContainText('every quiz')
  await page.getByRole('button', { name: 'Remove the rule for every quiz' }).click()
  await expect(own(page)).toBeHidden()
  await expect.poll(() => settle(page)).toBe(before)
  await page.keyboard.press('Control+z')
  await expect(own(page)).toContainText('every quiz')
})

test('every way is offered; a way that takes the new length is suggested where the terms differ; weekdays are turned', async ({
  page,
}) => {
  await atSummer(page)
  await page.getByText(/more ways/).click()
  for (const way of [
    'Class meeting for class meeting',
    'Open all term',
    'Every date as it was',
    'Always open',
  ])
    await expect(page.getByText(way, { exact: true })).toBeVisible()
  await page.getByText('Every date as it was', { exact: true }).click()
  await expect(page.getByRole('combobox', { name: 'Due at' })).toBeHidden()
  await page.getByText('Same week and weekday', { exact: true }).click()
  // Any time of day can be typed; what is none is said, and nothing changes.
  await choose(page, 'Due at', 'another time …')
  const typed = page.getByLabel('Due at: another time')
  await typed.fill('25:10')
  await typed.press('Enter')
  await expect(page.getByText('“25:10” is no time of day. Type 14:30 or 2:30 pm.')).toBeVisible()
  await typed.fill('2:45 pm')
  await typed.press('Enter')
  await expect(page.getByRole('row', { name: /Lab sheet 1/ })).toContainText('14:45')
  await page.getByText(/^Weekdays:/).click()
  await choose(page, 'Friday’s work becomes', 'becomes Thursday’s')
  await expect(page.getByText('Weekdays: Friday becomes Thursday')).toBeVisible()
})

test('rows that were found and chosen get a rule together; what each way would move is said before', async ({
  page,
}) => {
  await atSummer(page)
  await page.keyboard.press('f')
  await page.getByLabel('Find items by their words').fill('lab sheet')
  await page.getByRole('button', { name: /^Choose all \d+$/ }).click()
  const panel = page.getByRole('region', { name: 'Chosen items' })
  const many = Number(/(\d+) items/.exec((await panel.textContent()) ?? '')?.[1])
  expect(many).toBeGreaterThan(3)
  await choose(page, 'For what the rule is', `the ${many} chosen rows`)
  await expect(page.getByText('No rule of its own')).toBeVisible()
  const ways = page.getByRole('radiogroup', { name: 'How dates cross' })
  await expect(ways.locator('.method', { hasText: 'No dates' })).toContainText(
    `other dates than now for ${many} items`,
  )
  await expect(ways.locator('.method', { hasText: 'Same week and weekday' })).toContainText(
    'the same dates as now',
  )
  await ways.getByText('No dates', { exact: true }).click()
  await expect(own(page)).toContainText(`${many} items: no dates`)
  await expect(foot(page)).toContainText('taken away')
  await page.getByRole('button', { name: `Remove the rule for ${many} items` }).click()
  await expect(own(page)).toBeHidden()
  await expect(foot(page)).not.toContainText('taken away')
})
