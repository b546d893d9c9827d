import { base, expect, signIn, test } from './support'

test('the office writes patterns and sees at once what they read; pairing warns when code and term disagree', async ({
  page,
}) => {
  await signIn(page, 'ellwood', 'chart-datum')
  await page.goto(`${base()}/codes`)
  await expect(page.getByText('No pattern yet.')).toBeVisible()
  await page.getByRole('button', { name: 'Add a pattern' }).click()
  const row = page.getByRole('row', { name: /HYD 240 Spring 2027/ })
  await expect(row).toContainText('subject HYD, number 240')
  await page.getByLabel('Pattern 1', { exact: true }).fill('{subject} {nummer}')
  await expect(page.getByRole('alert')).toContainText('{nummer} is no part of a code')
  await expect(page.getByRole('button', { name: 'Save the rules' })).toBeDisabled()
  // A school that numbers its terms so would read the demo's code as one of autumn 2040.
  await page.getByLabel('Pattern 1', { exact: true }).fill('{season} 2{year}')
  await page.getByLabel('Seasons of pattern 1', { exact: true }).fill('HYD autumn')
  await expect(page.getByRole('alert')).toContainText('needs {number} or {reference}')
  await page.getByLabel('Pattern 1', { exact: true }).fill('{season} {number}')
  await expect(row).toContainText('the code says autumn, the course is in Spring 2027')
  // Any code can be tried, also one of a term that has no shell of it yet.
  await page.getByLabel('Code', { exact: true }).fill('HYD 240')
  await expect(page.getByText(/A shell of this code would be filled from HYD 240/)).toBeVisible()
  await page.getByLabel('Code', { exact: true }).fill('CHM 999')
  await expect(page.getByText(/None of your courses of other terms has this code/)).toBeVisible()
  await page.getByRole('button', { name: 'Add a renumbered course' }).click()
  await page.getByLabel('Old code 1').fill('HYD 140')
  await page.getByLabel('New code 1').fill('HYD140')
  // One leaves the page, and finds what was written as it was.
  await page.getByRole('link', { name: 'Log', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'Log' })).toBeVisible()
  await page.getByRole('link', { name: 'Codes', exact: true }).click()
  await expect(page.getByText('These are your rules as you left them. They are not saved yet.')).toBeVisible()
  await expect(page.getByLabel('Pattern 1', { exact: true })).toHaveValue('{season} {number}')
  await page.getByRole('button', { name: 'Save the rules' }).click()
  await expect(page.getByText('HYD 140 and HYD140 are one code already.')).toBeVisible()
  await page.getByLabel('New code 1').fill('HYD 240')
  await page.getByRole('button', { name: 'Save the rules' }).click()
  await expect(page.getByText('Saved. Suggestions follow these rules')).toBeVisible()
  await page.reload()
  await expect(page.getByText(/As \S+ Ellwood saved them/)).toBeVisible()

  const { courses } = (await (await page.request.get(`${base()}/api/v1/courses`)).json()) as {
    courses: { id: string; code: string; section: string; term: { name: string } }[]
  }
  const find = (term: string, section: string): string =>
    courses.find(
      course => course.code === 'HYD 240' && course.section === section && course.term.name === term,
    )!.id
  const { id } = (await (
    await page.request.post(`${base()}/api/v1/plans`, {
      data: { sources: [find('Autumn 2026', '01')], target: find('Spring 2027', '02') },
    })
  ).json()) as { id: string }
  await page.goto(`${base()}/plans/${id}/pair`)
  await expect(page.getByText('Its code HYD 240 says autumn; the course is in Spring 2027')).toBeVisible()
  // The rules are as they were for whoever comes next.
  const { revision } = (await (await page.request.get(`${base()}/api/v1/codes`)).json()) as {
    revision: number
  }
  expect(
    (
      await page.request.put(`${base()}/api/v1/codes`, {
        data: { patterns: [], mapped: [] },
        headers: { 'if-match': `"${revision}"` },
      })
    ).status(),
  ).toBe(200)
  await page.request.delete(`${base()}/api/v1/plans/${id}`)
})

test('others read the rules and are told whose they are', async ({ page }) => {
  await signIn(page)
  await page.goto(`${base()}/codes`)
  await expect(page.getByText('The academic office makes these rules.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Save the rules' })).toHaveCount(0)
  expect(
    (
      await page.request.put(`${base()}/api/v1/codes`, {
        data: { patterns: [], mapped: [] },
        headers: { 'if-match': '"1"' },
      })
    ).status(),
  ).toBe(403)
})
