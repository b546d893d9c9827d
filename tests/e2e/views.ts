import { request as anyone, type Page } from '@playwright/test'
import { base, begin, courseId, expect, makeCourse, pairLine, roll, signInRequest } from './support'
import { hostilePackage, oddPackage } from '../support/samples'

/** A view of the application: where it is, and what is done there before it is looked at. */
export interface View {
  name: string
  path: string
  /** What is there once the view has been drawn. */
  shows: string | RegExp
  then?: (page: Page) => Promise<void>
}
async function send(page: Page, name: string, data: Buffer): Promise<string> {
  const sent = await page.request.post(`${base()}/api/v1/uploads?name=${name}`, {
    headers: { 'content-type': 'application/octet-stream' },
    data,
  })
  const { id } = (await sent.json()) as { id: string }
  await expect(async () => {
    const upload = (await (await page.request.get(`${base()}/api/v1/uploads/${id}`)).json()) as {
      state: string
    }
    expect(['read', 'refused']).toContain(upload.state)
  }).toPass({ timeout: 20_000 })
  return id
}

/** What the academic office alone sees. */
export const officeViews: View[] = [
  { name: 'the people', path: '/people', shows: 'Signs in as' },
  { name: 'the batches', path: '/batches', shows: 'Their plans begin with' },
  {
    name: 'a batch',
    path: '/batches',
    shows: 'Their plans begin with',
    then: async at => {
      await at.getByRole('button', { name: 'Try every pair' }).click()
      await expect(at.getByText('Dry run done')).toBeVisible({ timeout: 30_000 })
    },
  },
  { name: 'the sweep', path: '/sweep', shows: 'How long it is kept' },
  {
    name: 'the codes, being written',
    path: '/codes',
    shows: 'Tried on your courses',
    then: at => at.getByRole('button', { name: 'Add a pattern' }).click(),
  },
  {
    name: 'the rule for past courses',
    path: '/?view=past',
    shows: 'A course is past',
    then: at => at.getByRole('button', { name: 'Change this rule' }).click(),
  },
]
/** Makes what the views show, as whoever is signed in, and lists them. */
export async function everyView(page: Page): Promise<View[]> {
  const { request } = page
  const old = await courseId(request, 'HYD 240-01', 'Autumn 2026')
  const shell = await courseId(request, 'HYD 240-01', 'Spring 2027')
  const second = await courseId(request, 'HYD 240-02', 'Spring 2027')
  const filled = await makeCourse(request, 'HYD 241', 'Tides again')
  await roll(request, old, filled)
  const template = await request.post(`${base()}/api/v1/courses/${old}/template`, {
    data: {
      title: 'Tides, unit by unit',
      subject: 'Hydrography',
      arrangement: 'units',
      about: 'As taught twice.',
    },
  })
  expect(template.ok()).toBe(true)
  const plan = await begin(request, old, shell)
  const again = await begin(request, old, filled)
  const done = await courseOf(page, filled)
  const [read, refused] = [
    await send(page, 'odd.imscc', oddPackage()),
    await send(page, 'bad.imscc', hostilePackage()),
  ]
  const closed = await closedPlan(page, filled)
  const item = done.nodes.find(node => node.kind === 'quiz') ?? done.nodes[0]
  const stage = (name: string, shows: View['shows'], then?: View['then']): View => ({
    name: `the stage ${name}`,
    path: `/plans/${plan}/${name}`,
    shows,
    then,
  })
  return [
    { name: 'the shells', path: '/', shows: 'Go straight to the summary' },
    { name: 'past shells', path: '/?view=past', shows: 'HYD 240-01' },
    { name: 'hidden shells', path: '/?view=hidden', shows: 'You have hidden nothing' },
    { name: 'the rollovers', path: '/rollovers', shows: 'HYD 241' },
    { name: 'the habits', path: '/habits', shows: 'No habit yet' },
    { name: 'the shelf', path: '/shelf', shows: 'Tides, unit by unit' },
    { name: 'the files', path: '/files', shows: 'odd.imscc' },
    { name: 'a file that was read', path: `/files/${read}`, shows: 'Keep it as a course' },
    { name: 'a file that was refused', path: `/files/${refused}`, shows: 'This file was refused' },
    { name: 'the codes', path: '/codes', shows: 'Tried on your courses' },
    { name: 'one’s sign-ins and password', path: '/you', shows: 'Change your password' },
    { name: 'the log', path: '/log', shows: 'ran a plan' },
    { name: 'the registrar', path: '/registrar', shows: 'Checked lately' },
    { name: 'a shell that is missing', path: '/no-shell', shows: 'Find out why' },
    { name: 'a plan for a term', path: `/no-shell?way=term&from=${old}`, shows: 'Plan for this term' },
    { name: 'ways in: suggested', path: `/fill/${second}`, shows: 'Before you choose' },
    { name: 'ways in: a course', path: `/fill/${second}?way=course`, shows: 'Before you choose' },
    { name: 'ways in: a template', path: `/fill/${second}?way=template`, shows: 'Tides, unit by unit' },
    { name: 'ways in: a code', path: `/fill/${second}?way=code`, shows: 'Share code' },
    { name: 'archived shells', path: '/?view=archived', shows: 'Nothing is archived' },
    { name: 'a new course', path: '/no-shell?way=new', shows: 'You become its instructor' },
    {
      name: 'a course in place',
      path: `/no-shell?way=place&from=${old}`,
      shows: 'This course is used again',
    },
    { name: 'ways in: shared', path: `/fill/${second}?way=department`, shows: 'Before you choose' },
    { name: 'ways in: a file', path: `/fill/${second}?way=file`, shows: 'Bring the file in' },
    { name: 'a course', path: `/courses/${filled}`, shows: 'Tides again' },
    { name: 'a course that is arranged', path: `/courses/${filled}/arrange`, shows: 'Changes here' },
    { name: 'an item', path: `/courses/${filled}/items/${item?.lineage}`, shows: item?.title ?? '' },
    { name: 'the record of a run', path: `/runs/${done.lastRun.id}`, shows: 'Record' },
    { name: 'undoing a run', path: `/runs/${done.lastRun.id}/undo`, shows: 'What happened there since' },
    { name: 'a plan that was run', path: `/plans/${done.lastRun.planId}/run`, shows: 'is filled' },
    {
      name: 'a plan whose source was taken back',
      path: `/plans/${closed}/carry`,
      shows: 'You can no longer',
    },
    stage('pair', 'Rolls from'),
    stage('carry', 'The shell will hold'),
    stage('around', 'Part by part'),
    stage('settings', 'Settings come exactly'),
    stage('worth', 'How it is taught'),
    stage('find', 'Northtide searches every course'),
    stage('grades', 'Sample gradebook'),
    {
      name: 'the stage carry again, with both texts',
      path: `/plans/${again}/carry`,
      shows: 'The shell will hold',
      then: async at => {
        await at.locator('.place-line', { hasText: 'The two bulges' }).click()
        await expect(at.getByRole('region', { name: 'Selected' })).toBeVisible()
      },
    },
    stage('clear', 'Clear'),
    stage('date', 'How dates cross', async at => {
      await at
        .getByRole('row', { name: /Lab sheet 1/ })
        .first()
        .click()
      await expect(at.getByRole('region', { name: 'Why' })).toBeVisible()
    }),
    stage('date', 'How dates cross', async at => {
      await at
        .getByRole('row', { name: /Lab sheet 1/ })
        .first()
        .dblclick()
      await expect(at.getByRole('button', { name: 'Save and hold' })).toBeVisible()
    }),
    stage('date', 'How dates cross', async at => {
      await at.getByRole('checkbox', { name: 'Choose Lab sheet 1' }).first().check()
      await at.getByRole('checkbox', { name: 'Choose Lab sheet 2' }).first().check()
      await expect(at.getByRole('combobox', { name: 'How it is filled down' })).toBeVisible()
    }),
    stage('date?show=crowded', 'How much is too much', async at => {
      await expect(at.getByRole('img', { name: /^What is due each day/ })).toBeVisible()
    }),
    stage('date', 'How dates cross', async at => {
      const buffer = Buffer.from('Key,Due\nnobody,soon\n')
      await at
        .getByLabel('Bring a changed sheet back')
        .setInputFiles({ name: 'd.csv', mimeType: 'text/csv', buffer })
      await expect(at.getByRole('list', { name: 'Rows that do not count' })).toBeVisible()
    }),
    stage('date', 'How dates cross', bothChange),
    stage('run', 'Before you run'),
    stage('run', 'Before you run', async at => {
      await at.getByRole('button', { name: /keys/ }).click()
      await expect(at.getByRole('complementary', { name: 'Keys' })).toBeVisible()
    }),
  ]
}
/** A plan from a course that the office shared by a code and has since taken back. */
async function closedPlan({ request }: Page, target: string): Promise<string> {
  const office = await anyone.newContext()
  await signInRequest(office, 'ellwood', 'chart-datum')
  const shares = `${base()}/api/v1/courses/${await courseId(office, 'WVG 201-01', 'Autumn 2026')}/shares`
  const made = await office.post(shares, { data: { days: null } })
  const share = (await made.json()) as { id: string; code: string }
  const opened = await request.post(`${base()}/api/v1/shares`, { data: { code: share.code } })
  const plan = await begin(request, ((await opened.json()) as { courseId: string }).courseId, target)
  expect((await office.delete(`${shares}/${share.id}`)).ok()).toBe(true)
  await office.dispose()
  return plan
}
/** The same rule is changed here and in another window, of which this one is not told in time. */
async function bothChange(page: Page): Promise<void> {
  await page.route('**/api/v1/plans/*/state', route => route.abort())
  const other = await page.context().newPage()
  await other.goto(page.url())
  await other.getByText('No dates', { exact: true }).click()
  await expect(pairLine(other)).toContainText('Draft saved')
  await other.close()
  await page.getByText('Same distance from the first day').click()
  await expect(page.getByRole('button', { name: 'Save what I chose' })).toBeVisible()
  await page.unroute('**/api/v1/plans/*/state')
}
interface CourseFilled {
  nodes: { kind: string | null; lineage: string; title: string }[]
  lastRun: { id: string; planId: string }
}
const courseOf = async (page: Page, id: string): Promise<CourseFilled> =>
  (await (await page.request.get(`${base()}/api/v1/courses/${id}`)).json()) as CourseFilled

/** Goes to a view and waits until it stands. */
export async function look(page: Page, view: View): Promise<void> {
  await page.goto(`${base()}${view.path}`)
  await expect(page.locator('#work')).toContainText(view.shows, { timeout: 15_000 })
  await view.then?.(page)
  // What comes a moment later than the words, such as the terms to choose from, is there too.
  await page.waitForLoadState('networkidle')
}
