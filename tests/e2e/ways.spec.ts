import { request, type Page } from '@playwright/test'
import { oddPackage } from '../support/samples'
import {
  askRegistrar,
  atRegistrar,
  base,
  begin,
  choose,
  courseId,
  expect,
  foot,
  inDatabase,
  keepHarbourDays,
  letIn,
  mailbox,
  makeCourse,
  pairLine,
  registrarBrings,
  roll,
  signIn,
  signInRequest,
  test,
} from './support'

const shells = async (page: Page): Promise<void> => {
  await page.goto(base())
  await expect(page.getByRole('heading', { name: 'Shells' })).toBeVisible()
}
const row = (page: Page, name: string) => page.getByRole('article', { name: new RegExp(`^${name}`) })
const runPlan = async (page: Page, name: RegExp = /^Run into/): Promise<void> => {
  await page.getByRole('link', { name: /^Run/ }).click()
  await page.getByText('I have seen what changes').click()
  await page.getByRole('button', { name }).click()
  // All of the page's work, so that a failure tells what stands there instead.
  await expect(page.locator('#work')).toContainText(/Done (Mon|Tue|Wed)/, { timeout: 40_000 })
}

test('the registrar’s list brings a shell and a class that moved its days; going down half-way it costs nothing', async ({
  page,
}) => {
  await signIn(page)
  await atRegistrar({ step: 2 })
  await askRegistrar(page, 'brought changes')
  await expect(
    page.getByRole('row', { name: /HYD 240-02, Spring 2027 meets Tue Thu 13:00, was Mon Wed Fri 13:00/ }),
  ).toBeVisible()
  await atRegistrar({ step: 3, fault: 'half' })
  await askRegistrar(page, 'could not be had')
  await expect(page.getByRole('alert')).toContainText('Nothing was changed here')
  await atRegistrar({ fault: 'down' })
  await askRegistrar(page, 'could not be had')
  await expect(page.getByRole('alert')).toContainText('cannot be reached')
  await shells(page)
  await expect(page.getByRole('link', { name: /The registrar’s list could not be read/ })).toBeVisible()
  await expect(row(page, 'HYD 310-01')).toContainText('12 students on the roster')
  await expect(row(page, 'HYD 240-02')).toContainText('Registrar: meets Tue Thu')
  // Who looks for a shell meanwhile is told of the fault, and the help desk is asked.
  await page.goto(`${base()}/no-shell`)
  await page.getByLabel('Course code').fill('WVG 202')
  await page.getByRole('button', { name: 'Find out why' }).click()
  // No course has that code: one is asked first, and may mean it.
  await expect(page.getByRole('status')).toContainText('The registrar has no course WVG 202. Did you mean …')
  await page.getByRole('button', { name: 'WVG 201', exact: true }).click()
  await expect(page.getByRole('status')).toContainText('It exists, but you are not listed on it.')
  await page.getByLabel('Course code').fill('WVG 202')
  await page.getByRole('button', { name: 'Find out why' }).click()
  await page.getByRole('button', { name: 'Ask for WVG 202 all the same' }).click()
  await expect(page.getByRole('status')).toContainText('could not be read last time')
  await page.getByLabel('Your words').fill('It meets on Thursdays.')
  await page.getByRole('button', { name: 'Send it to the help desk' }).click()
  await expect(page.getByRole('row', { name: /WVG 202, Spring 2027/ })).toContainText('mail', {
    timeout: 10_000,
  })
  await expect(async () => {
    const letters = (await (await fetch(`${mailbox()}/letters.json`)).json()) as {
      to: string
      text: string
    }[]
    expect(letters[0]).toMatchObject({
      to: 'help-desk@port-ellery.example',
      text: expect.stringContaining('It meets on Thursdays.'),
    })
  }).toPass({ timeout: 15_000 })
  await atRegistrar({ step: 2, fault: 'none' })
  await askRegistrar(page, 'nothing new')
})

test('one press goes from a shell to the summary before Run, with what is still to settle', async ({
  page,
}) => {
  await signIn(page)
  await row(page, 'HYD 240-02').getByRole('button', { name: 'Go straight to the summary' }).click()
  await expect(page.getByRole('heading', { name: 'What running does to HYD 240-02' })).toBeVisible()
  await expect(page.getByText('Adds 98 items')).toBeVisible()
  await expect(page.getByText(/items? ha(s|ve) dates to settle/)).toBeVisible()
})

test('while one person writes into a shell, others see who and since when, and cannot run into it', async ({
  page,
}) => {
  await signIn(page)
  const shell = await courseId(page.request, 'HYD 240-02', 'Spring 2027')
  await begin(page.request, await courseId(page.request, 'HYD 240-01', 'Autumn 2026'), shell)
  await shells(page)
  await row(page, 'HYD 240-02').getByRole('link', { name: 'Go on with the plan' }).click()
  await page.getByRole('link', { name: /^Run/ }).click()
  await page.getByText('I have seen what changes').click()
  await expect(page.getByRole('button', { name: 'Run into HYD 240-02' })).toBeEnabled()
  const office = await request.newContext()
  await signInRequest(office, 'ellwood', 'chart-datum')
  const other = await begin(office, await courseId(office, 'WVG 201-01', 'Autumn 2026'), shell)
  await office.dispose()
  // A process elsewhere is at it.
  await inDatabase(db =>
    db.raw(
      `INSERT INTO jobs (id, kind, subject, person_id, payload, state, step, done, total, lease_until, created_at)
       SELECT UUID(), 'run', ?, id, '{}', 'running', 'writes', 40, 98, DATE_ADD(UTC_TIMESTAMP(3), INTERVAL 300 SECOND),
         '2027-01-06 00:00:00' FROM people WHERE login = 'ellwood'`,
      [other],
    ),
  )
  await expect(page.getByText('M. Ellwood runs into HYD 240-02')).toBeVisible({ timeout: 15_000 })
  await expect(page.getByRole('button', { name: 'Run into HYD 240-02' })).toBeDisabled()
  await shells(page)
  await expect(row(page, 'HYD 240-02')).toContainText('M. Ellwood runs into it since 20:00')
  await expect(row(page, 'HYD 240-02')).toContainText('Writing: 40 of 98 things')
  await inDatabase(db => db('jobs').where({ subject: other }).delete())
  await expect(row(page, 'HYD 240-02')).toContainText('A plan is under way')
})

test('pinned, hidden, filtered: the list is one’s own and has an address', async ({ page }) => {
  await registrarBrings(2)
  await signIn(page)
  await row(page, 'HYD 310-01').getByRole('button', { name: 'Pin HYD 310-01' }).click()
  await expect(page.getByRole('heading', { name: 'Pinned' })).toBeVisible()
  await row(page, 'HYD 240-01').getByRole('button', { name: 'Take HYD 240-01 off my list' }).click()
  await expect(row(page, 'HYD 240-01')).toHaveCount(0)
  await page.getByRole('button', { name: /^Hidden 1/ }).click()
  await expect(page).toHaveURL(/view=hidden/)
  await page.reload()
  await row(page, 'HYD 240-01').getByRole('button', { name: 'Put HYD 240-01 back on my list' }).click()
  await page.getByLabel('Filter the shells').fill('no such words')
  await expect(page.getByText('Try fewer words')).toBeVisible()
  await page.getByLabel('Filter the shells').fill('tidal autumn')
  await page.getByRole('button', { name: /1 course under Past/ }).click()
  await expect(row(page, 'HYD 240-01')).toContainText('98 items to roll from')
  await shells(page)
  await row(page, 'HYD 310-01').getByRole('button', { name: 'Unpin HYD 310-01' }).click()
  await expect(page.getByRole('heading', { name: 'Pinned' })).toHaveCount(0)
})

test('a new course: the registrar’s shells are named first; then it is made, and filled from a package file', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${base()}/no-shell?way=new`)
  await page.getByLabel('Course code').fill('HYD 240')
  await page.getByLabel('Title that students see').fill('Copy of Tidal Hydrography')
  await expect(page.getByRole('status')).toContainText('The registrar has shells for this class')
  await expect(page.getByText('The title still says “Copy”.')).toBeVisible()
  await page.getByLabel('Course code').fill('HYD 119')
  await page.getByLabel('Title that students see').fill('Harbour Workshop')
  await page.getByRole('button', { name: 'Make the course', exact: true }).click()
  await expect(page.getByRole('heading', { name: 'HYD 119 Harbour Workshop' })).toBeVisible()
  await expect(page.getByText('made by hand, nobody on its roster')).toBeVisible()

  await page.getByRole('link', { name: 'A package file' }).click()
  await page.getByRole('link', { name: 'Bring the file in' }).click()
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'harbour.imscc', mimeType: 'application/octet-stream', buffer: oddPackage() })
  await page.getByLabel('Code, if it has one').fill('HYD 118')
  await page.getByLabel('Title', { exact: true }).fill('Harbour Days')
  await page.getByRole('button', { name: 'Keep as a course' }).click()
  await page.waitForURL(/\/plans\/[^/]+\/pair/, { timeout: 20_000 })
  await expect(page.getByRole('group', { name: 'From, stays as it is' })).toContainText('Harbour Days')
  await runPlan(page)
})

test('a course is rolled in place: a snapshot stays in the old term, the course goes on in the new one', async ({
  page,
}) => {
  await signIn(page)
  const workshop = await makeCourse(page.request, 'HYD 119', 'Harbour Workshop')
  await roll(page.request, await courseId(page.request, 'HYD 240-01', 'Autumn 2026'), workshop)
  await page.goto(`${base()}/no-shell?way=place`)
  await page.getByLabel('Find the course to use again').fill('harbour workshop')
  await page
    .getByRole('listitem')
    .filter({ hasText: 'HYD 119' })
    .getByRole('button', { name: 'Use this course again' })
    .click()
  await expect(page.getByText('This course is used again')).toBeVisible()
  await page.getByRole('button', { name: 'Plan HYD 119 in place' }).click()
  await expect(page.getByRole('group', { name: 'Now, a snapshot is kept' })).toContainText('Spring 2027')
  await expect(pairLine(page)).toContainText('this same course changes')
  await page.getByRole('link', { name: /^On to Date/ }).click()
  await runPlan(page, /^Roll HYD 119 in place/)
  await page.getByRole('link', { name: 'The snapshot' }).click()
  await expect(page.getByRole('main')).toContainText('Spring 2027')
  await expect(page.getByRole('main')).toContainText('a snapshot, kept as it was')
  await shells(page)
  await expect(row(page, 'HYD 119')).toHaveCount(1)
  await page.getByRole('button', { name: /^Archived 1/ }).click()
  await expect(row(page, 'HYD 119')).toContainText('a snapshot')
})

test('a template is made from a course, chosen by its picture, and planned from', async ({ page }) => {
  await registrarBrings(2)
  await signIn(page)
  await page.getByRole('button', { name: /^Past/ }).click()
  await row(page, 'HYD 240-01')
    .getByRole('link', { name: /HYD 240-01/ })
    .click()
  await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
  await page.getByLabel('Name').first().fill('Tides, unit by unit')
  await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
  await expect(page.getByText('Give its subject.')).toBeVisible()
  await page.getByLabel('Subject').first().fill('Hydrography')
  await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
  await expect(page.getByText('It is on the shelf.')).toBeVisible()
  await shells(page)
  await row(page, 'HYD 310-01')
    .getByRole('link', { name: 'See other ways' })
    .or(row(page, 'HYD 310-01').getByRole('link', { name: 'Choose a source' }))
    .first()
    .click()
  await page.getByRole('link', { name: 'A template' }).click()
  await page.getByLabel('Find a template').fill('by week')
  await expect(page.getByText('No template has the words “by week”.')).toBeVisible()
  await page.getByLabel('Find a template').fill('hydrography by unit')
  const template = page.getByRole('article', { name: 'Tides, unit by unit' })
  await expect(template.getByRole('img', { name: '7 units with 97 items' })).toBeVisible()
  // Looking at it begins no plan.
  await template.getByRole('link', { name: 'Look inside' }).click()
  await expect(page.getByText('You are only looking: no plan has begun.')).toBeVisible()
  const drafts = async (): Promise<number> => {
    const reply = await page.request.get(`${base()}/api/v1/plans`)
    return ((await reply.json()) as { plans: unknown[] }).plans.length
  }
  expect(await drafts()).toBe(0)
  await page.getByRole('button', { name: 'Plan from it into HYD 310-01' }).click()
  await expect(page.getByRole('group', { name: 'From, stays as it is' })).toContainText('Tides, unit by unit')
  // It is given another name, is offered no more, and goes away for good; the plan from it says so.
  const plan = page.url()
  await page.getByRole('link', { name: 'Shelf', exact: true }).click()
  await template.getByRole('button', { name: 'Rename or describe it' }).click()
  await template.getByLabel('Name').fill('Tides, by the unit')
  await template.getByRole('button', { name: 'Save the template' }).click()
  const renamed = page.getByRole('article', { name: 'Tides, by the unit' })
  await renamed.getByRole('button', { name: 'Retire it' }).click()
  await expect(page.getByRole('heading', { name: /^Retired/ })).toBeVisible()
  await renamed.getByRole('button', { name: 'Delete the template' }).click()
  await expect(renamed.getByRole('alert')).toContainText('go away for good')
  await renamed.getByRole('button', { name: 'Delete the template' }).click()
  await expect(page.getByText('Nothing is on the shelf for you yet')).toBeVisible()
  await page.goto(plan)
  await expect(page.getByText(/You can no longer roll from/)).toBeVisible()
})

test('several sources in one plan, in an order; names and windows are checked; all of it in one run', async ({
  page,
}) => {
  await registrarBrings(2)
  await signIn(page)
  await keepHarbourDays(page.request)
  const fieldwork = await courseId(page.request, 'HYD 310-01', 'Spring 2027')
  const plan = await begin(page.request, await courseId(page.request, 'HYD 240-01', 'Autumn 2026'), fieldwork)
  await page.goto(`${base()}/plans/${plan}/pair`)
  await page.getByRole('button', { name: 'Add a source' }).click()
  await page.getByLabel('Find a course to add as a source').fill('harbour days')
  await page.getByRole('listitem').filter({ hasText: 'HYD 118' }).getByRole('button', { name: 'Add' }).click()
  await expect(page.getByRole('list', { name: 'Sources' }).getByRole('listitem')).toHaveCount(2)
  await expect(page.getByRole('navigation', { name: 'Stages' })).toContainText('2 sources')
  await page.getByRole('button', { name: 'Move up HYD 118' }).click()
  await expect(page.getByRole('list', { name: 'Sources' }).getByRole('listitem').first()).toContainText(
    'Harbour Days',
  )
  await page.getByLabel('Title that students see').fill('Copy of Estuary Fieldwork')
  await page.keyboard.press('Tab')
  await page.getByRole('button', { name: 'Use “Estuary Fieldwork”' }).click()
  await page.getByLabel('Label of the section').fill('Boats')
  await page.keyboard.press('Tab')
  await page.getByLabel('Students may enter until').fill('1 Jan 2027')
  await page.keyboard.press('Enter')
  await expect(page.getByText('students cannot enter after Fri 1 Jan 2027')).toBeVisible()
  await page.getByRole('button', { name: 'Use the term’s dates' }).click()
  await page.getByRole('link', { name: /On to Carry/ }).click()
  // Each source has its units under a heading of its own.
  await expect(page.locator('.list .source', { hasText: 'HYD 240-01' }).first()).toBeVisible()
  await runPlan(page)
  await page.getByRole('link', { name: 'Read the record of the run' }).click()
  await expect(page.getByRole('row', { name: 'Section label not set Boats' })).toBeVisible()
})

test('one source into several sections: each has a plan with the same decisions and dates of its own', async ({
  page,
}) => {
  await registrarBrings(2)
  await signIn(page)
  const harbour = await keepHarbourDays(page.request)
  const id = await begin(page.request, harbour, await courseId(page.request, 'HYD 240-02', 'Spring 2027'))
  await page.goto(`${base()}/plans/${id}/pair`)
  await expect(page.getByText('Another section of this term has the same title')).toBeVisible()
  await page.getByRole('button', { name: 'Use “Tue Thu”' }).click()
  await expect(page.getByLabel('Label of the section')).toHaveValue('Tue Thu')
  await page.getByRole('group', { name: 'Shells of their own' }).getByText('HYD 240-01').click()
  await page.getByRole('button', { name: 'Plan for 1 more shell' }).click()
  await expect(page.getByText('1 plan made.')).toBeVisible()
  await page.getByRole('link', { name: /^Run/ }).click()
  await page.getByText('I have seen what changes').click()
  await expect(page.getByRole('heading', { name: 'The same plan for 1 more shell' })).toBeVisible()
  await expect(page.getByRole('listitem').filter({ hasText: 'adds' })).toContainText(
    /HYD 240-01 Mon Wed Fri 09:30 · adds \d+ item/,
  )
  await page.getByText('Then run into HYD 240-01 as well').click()
  await page.getByRole('button', { name: /^Run into HYD 240-02/ }).click()
  await expect(page.getByRole('list', { name: 'Other shells' })).toContainText(
    /HYD 240-01: \d+ items? will be added/,
  )
})

test('a plan for a term waits for its shell, and takes it when the registrar has it', async ({ page }) => {
  await signIn(page)
  await page.getByRole('button', { name: /^Past/ }).click()
  await row(page, 'HYD 240-01').getByRole('link', { name: 'Use it again' }).click()
  await choose(page, 'Term to plan for', 'Summer 2027')
  await page.getByRole('button', { name: 'Plan for this term' }).click()
  await expect(page.getByText('The shell for Summer 2027 has not come yet')).toBeVisible()
  await page.getByRole('link', { name: /^Run/ }).click()
  await expect(page.getByRole('heading', { name: 'There is no shell yet' })).toBeVisible()
  await expect(page.getByRole('button', { name: /^Run into/ })).toBeDisabled()
  await shells(page)
  await expect(page.getByRole('heading', { name: 'Waiting for a shell' })).toBeVisible()
  await atRegistrar({ step: 3 })
  await askRegistrar(page, 'brought changes')
  await shells(page)
  const summer = page.getByRole('article').filter({ hasText: 'Mon Wed Fri 09:30 · 0 students' })
  await summer.getByRole('button', { name: 'Attach your plan' }).click()
  await expect(page.getByRole('group', { name: 'Into, this shell changes' })).toContainText('Summer 2027')
  await runPlan(page)
})

test('a share code opens a course to a colleague of another department, until it is taken back', async ({
  page,
  browser,
}) => {
  await registrarBrings(3)
  await letIn('quist', 'rye-crumb')
  await signIn(page)
  await page.getByRole('button', { name: /^Past/ }).click()
  await row(page, 'HYD 240-01')
    .getByRole('link', { name: /HYD 240-01/ })
    .click()
  await page.getByRole('button', { name: 'Make a share code' }).click()
  await choose(page, 'Not included', 'quizzes')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Make the code' }).click()
  const code = /([A-Z2-9]{4}-[A-Z2-9]{4})/.exec(
    await page.getByRole('complementary').getByRole('status').innerText(),
  )![1]!

  const colleague = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await signIn(colleague, 'quist', 'rye-crumb')
  await row(colleague, 'BKG 115-01').getByRole('link', { name: 'Choose a source' }).click()
  await colleague.getByRole('link', { name: 'A share code' }).click()
  await colleague.getByLabel('Share code').fill('AAAA-BBBB')
  await colleague.getByRole('button', { name: 'Open it and plan' }).click()
  await expect(colleague.getByRole('alert')).toContainText('No course is shared by this code')
  await colleague.getByLabel('Share code').fill(code.toLowerCase())
  await colleague.getByRole('button', { name: 'Open it and plan' }).click()
  await expect(colleague.getByRole('group', { name: 'From, stays as it is' })).toContainText('Autumn 2026')
  await expect(colleague.getByText('its students are not shown to you')).toBeVisible()
  await colleague.getByRole('link', { name: /On to Carry/ }).click()
  await expect(foot(colleague)).toContainText('90 added')
  await expect(colleague.getByRole('list', { name: 'By kind' })).not.toContainText('quizzes')

  await page.getByRole('button', { name: `Take back ${code}` }).click()
  await expect(page.getByRole('complementary')).toContainText('taken back')
  await colleague.reload()
  const note = colleague.getByRole('status', { name: 'A source is not open any more' })
  await expect(note).toContainText('You can no longer roll from HYD 240-01 Tidal Hydrography, Autumn 2026.')
  await expect(note).toContainText('I. Marchetti took it back, Tue 5 Jan 20:00.')
  await expect(note.getByRole('link', { name: 'Choose another source in Pair' })).toBeVisible()
  await colleague.context().close()
})

test('a course shared with a department is there for those who work in it; two sections show one content', async ({
  page,
  browser,
}) => {
  await registrarBrings(3)
  await letIn('quist', 'rye-crumb', 'hyd310-01-2027s')
  await signIn(page, 'brandt', 'spring-range')
  await page.getByRole('button', { name: /^Past/ }).click()
  await row(page, 'HYD 240-01')
    .getByRole('link', { name: /HYD 240-01/ })
    .click()
  await page.getByRole('button', { name: 'Share with a department' }).click()
  await page.getByRole('button', { name: 'Share it' }).click()
  await expect(page.getByText('The department may take from this course now.')).toBeVisible()
  const colleague = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await signIn(colleague, 'quist', 'rye-crumb')
  await row(colleague, 'BKG 115-02')
    .getByRole('link', { name: 'See other ways' })
    .or(row(colleague, 'BKG 115-02').getByRole('link', { name: 'Choose a source' }))
    .first()
    .click()
  await colleague.getByRole('link', { name: 'Shared with you' }).click()
  await colleague
    .getByRole('listitem')
    .filter({ hasText: 'HYD 240-01' })
    .getByRole('button', { name: 'Plan from this course' })
    .click()
  await expect(colleague.getByText('7 units, 98 items')).toBeVisible()
  // Both sections of the class show one content, each with the dates of its own meetings.
  await colleague.getByText('Share this content with BKG 115-01').click()
  await expect(colleague.getByRole('checkbox', { name: /Share this content with BKG 115-01/ })).toBeChecked()
  await runPlan(colleague)
  await shells(colleague)
  await expect(row(colleague, 'BKG 115-01')).toContainText('Shares its content with another section')
  await row(colleague, 'BKG 115-01').getByRole('link', { name: 'Open the section' }).click()
  await expect(colleague.getByText('and has its own dates')).toBeVisible()
  await colleague.getByRole('link', { name: 'Contents, to read' }).click()
  await expect(colleague.getByRole('link', { name: 'Check-in quiz 1' })).toBeVisible()
  await colleague.context().close()
})

test('an instructor lets an assistant run; the office gives a duty; the log tells both', async ({ page }) => {
  await signIn(page)
  await row(page, 'HYD 240-02')
    .getByRole('link', { name: /HYD 240-02/ })
    .click()
  // What is pressed is done before one signs out.
  await Promise.all([
    page.waitForResponse(answer => answer.request().method() === 'PUT' && answer.ok()),
    page.getByText('may run plans into this shell').click(),
  ])
  await expect(page.getByRole('checkbox', { name: 'may run plans into this shell' })).toBeChecked()
  await page.context().clearCookies()
  await signIn(page, 'ellwood', 'chart-datum')
  await page.getByRole('link', { name: 'People' }).click()
  await page.getByRole('button', { name: 'Give Tobenna Okonjo a duty' }).click()
  await page.getByRole('button', { name: 'Give', exact: true }).click()
  await page.getByRole('button', { name: 'Take coordinator from Tobenna Okonjo' }).click()
  await page.getByRole('link', { name: 'Log' }).click()
  await page.getByLabel('Search the log').fill('okonjo')
  await expect(page.getByRole('row', { name: /I. Marchetti let an assistant run HYD 240-02/ })).toBeVisible()
  await choose(page, 'What was done', 'duties')
  await page.getByLabel('Search the log').fill('')
  await expect(page.getByRole('row', { name: /M. Ellwood took a duty/ })).toBeVisible()
})
