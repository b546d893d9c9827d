import { AxeBuilder } from '@axe-core/playwright'
import type { Page } from '@playwright/test'
import { base, courseId, begin, expect, foot, signIn, test } from './support'
import { everyView, look, officeViews, type View } from './views'

/** What axe finds amiss, a line each: the rule, and where. `rules`: these alone. */
async function amiss(page: Page, rules?: string[]): Promise<string[]> {
  // What is well is not asked for, and no second page is opened to put results together: views hold no foreign frame.
  const axe = new AxeBuilder({ page })
    .setLegacyMode()
    .options({ resultTypes: ['violations'], preload: false })
  const { violations } = await (rules ? axe.withRules(rules) : axe).analyze()
  return violations.map(
    ({ id, help, nodes }) => `${id} (${help}): ${nodes.map(node => node.target.join(' ')).join(', ')}`,
  )
}
/** A plan from last autumn into the first shell of spring. */
async function newPlan({ request }: Page): Promise<string> {
  const old = await courseId(request, 'HYD 240-01', 'Autumn 2026')
  return begin(request, old, await courseId(request, 'HYD 240-01', 'Spring 2027'))
}
/**
 * What stands out at the right, so that the page must be moved sideways to be read: nothing may, at 320 px
 * (WCAG 2.2, 1.4.10). Ask by `expect.poll`: the media queries of a page hear of a new size with the next frame, so that
 * a busy browser can be asked before.
 */
const standsOut = (page: Page): Promise<string[]> =>
  page.evaluate(() => {
    const { scrollWidth, clientWidth } = document.documentElement
    if (scrollWidth <= clientWidth) return []
    const wide = [...document.querySelectorAll('body *')].filter(
      element => element.getBoundingClientRect().right > clientWidth + 1,
    )
    return [`${scrollWidth} px wide`, ...wide.map(element => `${element.tagName} ${element.className}`)]
  })

const softly = expect.configure({ soft: true })
async function inspect(page: Page, views: readonly View[]): Promise<void> {
  for (const view of views) {
    await page.setViewportSize({ width: 1280, height: 800 })
    await look(page, view)
    expect.soft(await amiss(page), view.name).toEqual([])
    // By night a page is the same but for its colours.
    await page.evaluate(() => document.documentElement.setAttribute('data-theme', 'night'))
    expect.soft(await amiss(page, ['color-contrast']), `${view.name}, by night`).toEqual([])
    await page.setViewportSize({ width: 320, height: 640 })
    await softly.poll(() => standsOut(page), `${view.name} is too wide at 320 px`).toEqual([])
  }
}
// In parts, so that two can be looked at beside one another.
for (const part of [0, 1])
  test(`every view, by day and by night, has nothing amiss for axe, and is one column at 320 px (${part + 1} of 2)`, async ({
    page,
  }) => {
    test.setTimeout(500_000)
    await page.goto(`${base()}/sign-in`)
    if (part === 0) expect.soft(await amiss(page), 'the sign-in').toEqual([])
    await signIn(page)
    const views = await everyView(page)
    await inspect(
      page,
      views.filter((_, at) => at % 2 === part),
    )
  })
test('so are the views of the academic office', async ({ page }) => {
  await signIn(page, 'ellwood', 'chart-datum')
  await inspect(page, officeViews)
})
test('so is a ledger whose units open on dates', async ({ page }) => {
  await signIn(page, 'sorrel', 'warm-proof')
  const old = await courseId(page.request, 'ORN 130-01', 'Autumn 2026')
  const plan = await begin(page.request, old, await courseId(page.request, 'ORN 130-01', 'Spring 2027'))
  await inspect(page, [{ name: 'the ledger', path: `/plans/${plan}/date`, shows: 'Week 2: Song' }])
})
test('the night theme is chosen in the menu and stays; the device decides until one has chosen', async ({
  page,
}) => {
  await page.emulateMedia({ colorScheme: 'dark' })
  await signIn(page)
  const html = page.locator('html')
  await expect(html).toHaveAttribute('data-theme', 'night')
  await page.getByRole('button', { name: 'I. Marchetti' }).click()
  await page.getByLabel('Colours').selectOption('day')
  await expect(html).toHaveAttribute('data-theme', 'day')
  await page.reload()
  await expect(html).toHaveAttribute('data-theme', 'day')
})

test('on a phone one settles a date, reads the whole effect, runs and opens the shell', async ({ page }) => {
  await page.setViewportSize({ width: 320, height: 640 })
  await signIn(page)
  const plan = await newPlan(page)
  await page.goto(`${base()}/plans/${plan}/date`)
  await expect(foot(page)).toContainText('1 to settle')
  await page.keyboard.press('n')
  const why = page.getByRole('region', { name: 'Why' })
  await why.scrollIntoViewIfNeeded()
  await why.getByRole('button', { name: 'Edit' }).click()
  const form = page.getByRole('row', { name: /^Dates of/ })
  await form.getByRole('textbox').first().fill('mon wk 7')
  await form.getByRole('textbox').first().press('Enter')
  await expect(foot(page)).toContainText('0 to settle')
  await expect.poll(() => standsOut(page)).toEqual([])
  await foot(page)
    .getByRole('link', { name: /On to Run/ })
    .click()
  await page.getByText('I have seen what changes in HYD 240-01').click()
  await foot(page).getByRole('button', { name: 'Run into HYD 240-01' }).click()
  await expect(page.getByRole('heading', { name: 'HYD 240-01 is filled.' })).toBeVisible({ timeout: 30_000 })
  await foot(page)
    .getByRole('link', { name: /Go to the shell/ })
    .click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await expect(page.getByRole('link', { name: 'Lab sheet 1', exact: true })).toBeVisible()
  await expect.poll(() => standsOut(page)).toEqual([])
})

for (const [width, height] of [
  [640, 400],
  [853, 533],
  [1024, 768],
] as const)
  test(`at ${width}×${height} the ledger has room, and everything of the stage is reached`, async ({
    page,
  }) => {
    await page.setViewportSize({ width, height })
    await signIn(page)
    const plan = await newPlan(page)
    await page.goto(`${base()}/plans/${plan}/date`)
    const rows = page.getByLabel('Rows; j and k move, e edits')
    await expect(page.getByRole('row', { name: /Lab sheet 1/ }).first()).toBeVisible()
    const box = await rows.boundingBox()
    expect(box?.height).toBeGreaterThan(200)
    await page.getByRole('combobox', { name: 'Due at' }).scrollIntoViewIfNeeded()
    await expect(page.getByRole('combobox', { name: 'Due at' })).toBeInViewport()
    await expect(foot(page).getByRole('link', { name: /On to Run/ })).toBeInViewport()
    await expect.poll(() => standsOut(page)).toEqual([])
  })
