import type { Locator, Page } from '@playwright/test'
import { base, begin, choose, courseId, expect, roll, signIn, test } from './support'

// Carry from anywhere: items found in other courses, what the plan makes itself, what stands around the units, and the shelf.

const asSorrel = (page: Page): Promise<void> => signIn(page, 'sorrel', 'warm-proof')
async function openPlan(
  page: Page,
  [from, into]: readonly [from: string, into: string],
  stage: string,
): Promise<string> {
  const old = await courseId(page.request, from, 'Autumn 2026')
  const plan = await begin(page.request, old, await courseId(page.request, into, 'Spring 2027'))
  await page.goto(`${base()}/plans/${plan}/${stage}`)
  return plan
}
const weave = ['WVG 201-01', 'WVG 201-01'] as const
const line = (page: Page, title: string): Locator =>
  page.locator('.place-line', { has: page.getByText(title, { exact: true }) }).first()
const stages = (page: Page): Locator => page.getByRole('navigation', { name: 'Stages' })
const pages = (page: Page): Locator => page.getByRole('navigation', { name: 'Pages of Carry' })
async function runPlan(page: Page, shell: string): Promise<void> {
  await stages(page).getByRole('link', { name: /^Run/ }).click()
  await page.getByText(`I have seen what changes in ${shell}`).click()
  await page.getByRole('button', { name: `Run into ${shell}` }).click()
  await expect(page.getByRole('heading', { name: `${shell} is filled.` })).toBeVisible()
}
const tick = (page: Page, name: string): Promise<void> =>
  page.locator('label', { has: page.getByRole('checkbox', { name, exact: true }) }).click()

test('three questions of a quiz and an attached file are found in another course by their words, taken, undone and brought in', async ({
  page,
}) => {
  await asSorrel(page)
  await openPlan(page, weave, 'find')
  const words = page.getByLabel('Find items in all courses by their words')
  await expect(page.getByText('Northtide searches every course')).toBeVisible()
  await words.fill('nowhere to be found')
  await expect(page.getByText('Nothing that you may roll from has the words')).toBeVisible()
  // A word inside a question.
  await words.fill('steer')
  await expect(page.getByRole('list', { name: 'Found' })).toContainText('Check: routes')
  await tick(page, 'Question 2')
  await tick(page, 'Question 4')
  await choose(page, 'Into which unit it goes', 'Twills')
  await page.getByRole('button', { name: 'Take 3 questions into the plan' }).click()
  await expect(page.getByText('It is in the plan.')).toBeVisible()
  // A word inside an attached document.
  await words.fill('supercilium')
  await expect(page.getByRole('list', { name: 'Found' })).toContainText('Telling five warblers apart.docx')
  await page.getByRole('button', { name: 'Take this file into the plan' }).click()
  await expect(page.getByText('It is in the plan.')).toBeVisible()
  await pages(page).getByRole('link', { name: 'Units and items' }).click()
  await expect(line(page, 'Check: routes')).toContainText('ORN 130-01')
  await expect(line(page, 'Check: routes')).toContainText('3 questions')
  await page.keyboard.press('Control+z')
  await expect(line(page, 'Telling five warblers apart.docx')).toHaveCount(0)
  await page.keyboard.press('Control+Shift+z')
  await expect(line(page, 'Telling five warblers apart.docx')).toBeVisible()
  await runPlan(page, 'WVG 201-01')
  await expect(page.getByRole('row', { name: /^From other courses 2/ })).toBeVisible()
  await page.getByRole('link', { name: 'Read the record of the run' }).click()
  await expect(page.getByText('taken from ORN 130-01 · 3 questions of it')).toBeVisible()
  await page.getByRole('link', { name: 'the shell' }).click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await page.getByRole('link', { name: 'Check: routes' }).click()
  await expect(page.getByText('A fall of migrants follows')).toBeVisible()
  await expect(page.getByText('At night they steer by')).toHaveCount(0)
})

test('a week is added in the plan with an item, moved, and dated by a pattern', async ({ page }) => {
  await asSorrel(page)
  await openPlan(page, ['ORN 130-01', 'ORN 130-01'], 'carry')
  await page.getByRole('button', { name: 'Add the unit' }).click()
  await expect(page.getByText('Give it a name first.')).toBeVisible()
  const name = page.getByRole('textbox', { name: 'Name of what is added' })
  await name.fill('Week 4: Winter visitors')
  await page.getByRole('button', { name: 'Add the unit' }).click()
  await expect(line(page, 'Week 4: Winter visitors')).toContainText('new')
  await choose(page, 'What is added', 'assignment')
  await name.fill('Field notes 4')
  await expect(page.getByText('to “Week 4: Winter visitors”')).toBeVisible()
  await page.getByRole('button', { name: 'Add the assignment' }).click()
  await page.getByRole('textbox', { name: 'Points', exact: true }).fill('many')
  await expect(page.getByText('A number, such as 10 or 7.5.')).toBeVisible()
  await page.getByRole('textbox', { name: 'Points', exact: true }).fill('20')
  await choose(page, 'Its grade category', 'Field notes')
  await page.getByPlaceholder('An empty line begins a new paragraph.').fill('Two hours, from a hide.')
  await page.getByPlaceholder('An empty line begins a new paragraph.').blur()
  await stages(page).getByRole('link', { name: /^Date/ }).click()
  await page.getByText('Date it by a pattern').click()
  await expect(page.getByText('1 item gets dates by this.')).toBeVisible()
  // Teaching week 4 of spring 2027 begins on Monday 25 January; the week after it on 1 February (tests/cases/01).
  const row = page.getByRole('row', { name: /Field notes 4/ })
  await expect(row).toContainText('Mon 25 Jan 08:00')
  await expect(row).toContainText('Mon 1 Feb 23:59')
  await runPlan(page, 'ORN 130-01')
  await expect(page.getByRole('row', { name: /^Made in the plan 2/ })).toBeVisible()
  await page.getByRole('link', { name: 'Go to the shell' }).first().click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await page.getByRole('link', { name: 'Field notes 4' }).click()
  await expect(page.getByText('Two hours, from a hide.')).toBeVisible()
})

test('an online course into a meeting one: what was made for the screen is listed, one item comes as a frame, settings go to many, furniture by part', async ({
  page,
}) => {
  await asSorrel(page)
  await openPlan(page, ['ORN 130-01', 'WVG 201-01'], 'worth')
  const made = page.getByRole('region', { name: 'Made for another way of teaching' })
  await expect(made).toContainText('a test that is taken online')
  await made.getByRole('button', { name: 'Take Check: routes as a frame' }).click()
  await made.getByRole('button', { name: 'Leave Where is your patch? behind' }).click()
  await expect(made.getByRole('button', { name: 'Carry Where is your patch?' })).toBeVisible()
  // Both taught in person, nothing is made for the screen any more.
  await choose(page, 'How the old course was taught', 'in person')
  await expect(made).toHaveCount(0)
  await pages(page).getByRole('link', { name: 'Around the units' }).click()
  await choose(page, 'What happens to Plumage trainer, autumn edition 2026', 'stays behind')
  await expect(page.getByText('3 parts come')).toBeVisible()
  await pages(page).getByRole('link', { name: 'Settings' }).click()
  await choose(page, 'Of which kind', 'items of any kind')
  await page.getByRole('button', { name: 'Give the settings of Check: routes to others' }).click()
  await tick(page, 'Give settings to Field notes 1')
  await page.getByRole('button', { name: 'Give 2 settings to 1 item' }).click()
  await expect(page.getByRole('row', { name: /Field notes 1/ })).toContainText('20 was not set')
  await pages(page).getByRole('link', { name: 'Units and items' }).click()
  await page.getByLabel('Find an item by its words').fill('routes')
  await expect(line(page, 'Check: routes')).toContainText('a frame, no content')
  await runPlan(page, 'WVG 201-01')
  for (const row of [/^Frames 1/, /^Settings given 1/, /^Around the units 3/])
    await expect(page.getByRole('row', { name: row })).toBeVisible()
  await page.getByRole('link', { name: 'Read the record of the run' }).click()
  await expect(page.getByText('a frame, without content')).toBeVisible()
})

test('a unit is put on the department’s shelf, improved there by a colleague, and brought into a shell; a shell is changed in place and back', async ({
  page,
}) => {
  await signIn(page)
  const old = await courseId(page.request, 'HYD 240-01', 'Autumn 2026')
  await page.goto(`${base()}/courses/${old}?view=read`)
  await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
  await choose(page, 'What is kept', 'The tide as harmonics')
  await page.getByLabel('Subject').first().fill('Hydrography')
  await page.getByText('Colleagues who see it may improve it').click()
  await choose(page, 'On whose shelf', /Hydrography/)
  await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
  await expect(page.getByText('It is on the shelf.')).toBeVisible()

  await signIn(page, 'okonjo', 'neap-tide')
  await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  const entry = page.getByRole('article', { name: 'The tide as harmonics' })
  await entry.getByRole('button', { name: 'Show its versions' }).click()
  await entry.getByLabel('What changes with the next version').fill('a kinder beginning')
  await entry.getByRole('button', { name: 'Keep it as version 1 and go on' }).click()
  await expect(entry.getByRole('button', { name: 'Bring version 1 back' })).toBeVisible()
  await entry.getByRole('link', { name: 'Rename, move or add something in it' }).click()
  const outline = page.getByRole('listbox', { name: 'Units and items' })
  await outline.getByRole('option', { name: 'Constituents and their names' }).click()
  const called = page.getByRole('textbox', { name: 'What it is called' })
  await called.fill('Constituents, and who named them')
  await called.press('Enter')
  await expect(page.getByRole('list', { name: 'Changes here' })).toContainText('renamed “Constituents')

  await signIn(page)
  const shell = await courseId(page.request, 'HYD 240-01', 'Spring 2027')
  await roll(page.request, await shelved(page), shell)
  await page.goto(`${base()}/courses/${shell}?view=read`)
  await expect(page.getByRole('link', { name: 'Constituents, and who named them' })).toBeVisible()
  // In the shell itself: an item is moved by a key, a week is added, and both are taken back.
  await page.getByRole('link', { name: 'Rename, move or add something here' }).click()
  const second = outline.getByRole('option').nth(1)
  await expect(second).toBeVisible()
  const before = await outline.getByRole('option').allTextContents()
  await second.click()
  await page.keyboard.press('Control+ArrowDown')
  await expect(outline.getByRole('option').nth(2)).toHaveText(before[1] ?? '')
  await page.getByRole('textbox', { name: 'Name of what is added' }).fill('Week of questions')
  await page.getByRole('button', { name: 'Add the unit' }).click()
  await expect(outline.getByRole('option').last()).toContainText('Week of questions')
  await page.getByRole('button', { name: 'Take this back' }).click()
  await expect(page.getByText('Taken back: added the unit “Week of questions”.')).toBeVisible()
  await page.getByRole('button', { name: 'Take this back' }).click()
  await expect.poll(() => outline.getByRole('option').allTextContents()).toEqual(before)
})
/** The course that holds what stands on the shelf. */
async function shelved(page: Page): Promise<string> {
  const answer = await page.request.get(`${base()}/api/v1/templates`)
  const { templates } = (await answer.json()) as { templates: { course: { id: string; title: string } }[] }
  return templates.find(each => each.course.title === 'The tide as harmonics')?.course.id ?? ''
}
