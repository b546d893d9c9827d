import { type Page } from '@playwright/test'
import { base, begin, courseId, expect, foot, pairLine, signIn, test } from './support'

/** Opens the plan for a shell of spring (by default the one with the template's items) at a stage, begun or taken up again. */
async function openPlan(page: Page, stage: string, section = '02'): Promise<void> {
  const { courses } = (await (await page.request.get(`${base()}/api/v1/courses`)).json()) as {
    courses: { id: string; code: string; section: string; term: { name: string } }[]
  }
  const source = courses.find(course => course.code === 'HYD 240' && course.term.name === 'Autumn 2026')!.id
  const target = courses.find(course => course.section === section && course.term.name === 'Spring 2027')!.id
  const { id } = (await (
    await page.request.post(`${base()}/api/v1/plans`, { data: { sources: [source], target } })
  ).json()) as { id: string }
  await page.goto(`${base()}/plans/${id}/${stage}`)
}

test('Carry by unit, by kind and by words, with counts', async ({ page }) => {
  await signIn(page)
  await openPlan(page, 'carry')
  await page.getByRole('button', { name: 'Carry everything' }).click()
  await expect(foot(page)).toContainText('98 added')
  await page.getByRole('checkbox', { name: 'Carry Getting your bearings' }).press('Space')
  await expect(foot(page)).toContainText('80 added')
  await page.getByRole('checkbox', { name: 'quizzes' }).press('Space')
  // The first unit's two quizzes come back with their kind, and their unit with them.
  await expect(
    page.getByRole('list', { name: 'By kind' }).getByRole('listitem').filter({ hasText: 'quizzes' }),
  ).toContainText('8 of 8')
  await expect(page.getByRole('treeitem', { name: 'Getting your bearings' })).toContainText('2 of 18')
  await page.getByLabel('Find an item by its words').fill('nodal cycle')
  await expect(page.getByRole('treeitem', { level: 2 })).toHaveCount(1)
  await page.getByLabel('Find an item by its words').fill('nothing like this')
  await expect(page.getByText('Nothing here has the words')).toBeVisible()
  await page.getByLabel('Find an item by its words').fill('')
  await page.getByRole('button', { name: 'Carry everything' }).click()
  await expect(foot(page)).toContainText('0 stay behind')
  await expect(pairLine(page)).toContainText('Draft saved')
})

test('an assistant prepares, and is told who runs', async ({ page }) => {
  await signIn(page, 'okonjo', 'neap-tide')
  await openPlan(page, 'run')
  await expect(page.getByText('Adds 98 items in 7 units.')).toBeVisible()
  await expect(page.getByText('items it holds now; the 24 students on its roster stay')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'You may prepare this plan' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Run into HYD 240-02' })).toBeDisabled()
})

test('another source can be taken, and the one before again', async ({ page }) => {
  await signIn(page)
  await openPlan(page, 'pair', '01')
  const take = async (words: string, course: string): Promise<void> => {
    await page.getByRole('button', { name: 'Change the source' }).click()
    await page.getByLabel('Find another course to roll from').fill(words)
    await page
      .getByRole('listitem')
      .filter({ hasText: course })
      .getByRole('button', { name: 'Use this course' })
      .click()
  }
  await take('240-02', 'HYD 240-02')
  await expect(page.getByRole('group', { name: 'From, stays as it is' })).toContainText('Spring 2027')
  await take('autumn', 'HYD 240-01')
  await expect(page.getByRole('group', { name: 'From, stays as it is' })).toContainText('Autumn 2026')
})

test('a session that ends in the middle of a change: one signs in again in place, and the change is saved', async ({
  page,
}) => {
  await signIn(page)
  const plan = await begin(
    page.request,
    await courseId(page.request, 'HYD 240-01', 'Autumn 2026'),
    await courseId(page.request, 'HYD 240-01', 'Spring 2027'),
  )
  await page.goto(`${base()}/plans/${plan}/date`)
  await expect(foot(page)).toContainText('99 dates')
  await page.context().clearCookies()
  await page.getByText('No dates', { exact: true }).click()
  const again = page.getByRole('dialog', { name: 'Your session has ended' })
  await again.getByLabel('Name').fill('marchetti')
  await again.getByLabel('Password').fill('wrong')
  await again.getByRole('button', { name: 'Sign in again' }).click()
  await expect(again.getByRole('alert')).toContainText('do not belong together')
  await again.getByLabel('Password').fill('slack-water')
  await again.getByRole('button', { name: 'Sign in again' }).click()
  await expect(again).toHaveCount(0)
  await expect(pairLine(page)).toContainText('Draft saved')
  await page.reload()
  await expect(foot(page)).toContainText('99 taken away')
})

test('a change that cannot be saved is kept and saved again', async ({ page }) => {
  await signIn(page)
  await openPlan(page, 'date')
  await expect(foot(page)).toContainText('1 to settle')
  await page.route('**/api/v1/plans/*', route =>
    route.request().method() === 'PUT' ? route.abort() : route.continue(),
  )
  await page.getByText('Same distance from the first day').click()
  await expect(page.getByText('in whole weeks')).toBeVisible()
  await expect(page.getByRole('alert')).toContainText('The server cannot be reached')
  await page.unroute('**/api/v1/plans/*')
  await page.getByRole('button', { name: 'Save again' }).click()
  await expect(pairLine(page)).toContainText('Draft saved')
  await page.reload()
  await expect(page.getByText('in whole weeks')).toBeVisible()
  await page.keyboard.press('Control+z')
  await page.getByText('Same week and weekday').click()
  await expect(pairLine(page)).toContainText('Draft saved')
})
