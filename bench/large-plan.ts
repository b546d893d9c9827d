import { chromium, type Page } from '@playwright/test'
import { dayOf, wallOf } from '../core/calendar/day'
import { lineageOf } from '../core/course/lineage'
import type { CourseContent, ItemNode } from '../core/course/model'
import { noRoster, type Roster } from '../core/formats/oneroster/read'
import { connect } from '../server/db/connection'
import { importCourse } from '../server/exchange/import-course'
import { importRoster } from '../server/registrar/roster'
import { startApp } from '../tests/support/app'
import { chromiumHere } from '../tests/support/chromium'
import { useServer } from '../tests/support/database'

const [oldClass, newClass] = ['big-2026a', 'big-2027s']
const classRow = (sourcedId: string, termSourcedIds: string) => ({
  sourcedId,
  title: 'A very large course',
  courseSourcedId: 'co-big',
  classCode: 'BIG 900-01',
  classType: 'scheduled',
  location: '',
  schoolSourcedId: 'org-hydrography',
  termSourcedIds,
  periods: '',
})
const enrol = (classSourcedId: string) => ({
  sourcedId: `en-${classSourcedId}`,
  classSourcedId,
  schoolSourcedId: '',
  userSourcedId: 'pe-marchetti',
  role: 'teacher',
  primary: 'true',
  beginDate: '',
  endDate: '',
})
const roster: Roster = {
  ...noRoster,
  orgs: [
    {
      sourcedId: 'org-hydrography',
      name: 'Department of Hydrography',
      type: 'department',
      identifier: '',
      parentSourcedId: 'org-port-ellery',
    },
  ],
  users: [
    {
      sourcedId: 'pe-marchetti',
      enabledUser: 'true',
      orgSourcedIds: '',
      role: 'teacher',
      username: 'marchetti',
      givenName: 'Isolde',
      familyName: 'Marchetti',
      email: '',
      middleName: '',
      identifier: '',
      phone: '',
      sms: '',
      'metadata.nickname': '',
      agentSourcedIds: '',
    },
  ],
  courses: [
    {
      sourcedId: 'co-big',
      schoolYearSourcedId: '',
      title: 'A very large course',
      courseCode: 'BIG 900',
      orgSourcedId: 'org-hydrography',
    },
  ],
  classes: [classRow(oldClass, '2026-autumn'), classRow(newClass, '2027-spring')],
  enrollments: [enrol(oldClass), enrol(newClass)],
}
const first = dayOf('2026-09-03')
const item = (i: number): ItemNode => {
  const due = first + ((i * 37) % 90)
  return {
    type: 'item',
    lineage: lineageOf(oldClass, `i${i}`),
    identifier: `i${i}`,
    resource: null,
    kind: 'assignment',
    title: `Work ${i + 1}`,
    body: null,
    points: 100_000,
    state: 'visible',
    exam: false,
    category: null,
    settings: {},
    dates: { opens: wallOf(due - 3, 480), due: wallOf(due, 1439), closes: wallOf(due + 2, 1439) },
    children: [],
  }
}
const content: CourseContent = {
  title: 'A very large course',
  categories: [],
  nodes: Array.from({ length: 20 }, (_, u) => ({
    type: 'unit' as const,
    lineage: lineageOf(oldClass, `u${u}`),
    identifier: `u${u}`,
    title: `Unit ${u + 1}`,
    children: Array.from({ length: 100 }, (_, n) => item(u * 100 + n)),
  })),
}

/** A course of 2 000 items, 6 000 dates, in a plan that was just begun, in Chromium on the built application; all of it is stopped at the end. */
export async function withLargePlan(work: (page: Page) => Promise<void>): Promise<void> {
  const stopServer = useServer()
  const app = await startApp('northtide_bench')
  const db = connect({
    host: process.env.DB_HOST!,
    port: Number(process.env.DB_PORT),
    user: process.env.DB_USER!,
    password: process.env.DB_PASSWORD!,
    database: app.database,
  })
  await importRoster(db, roster)
  await importCourse(db, { classKey: oldClass, content, document: null, results: null })
  await db.destroy()
  const browser = await chromium.launch(chromiumHere)
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    // What tsx writes around named functions, which go to the page as they are.
    await page.addInitScript('globalThis.__name = named => named')
    await page.goto(`${app.url}/sign-in`)
    await page.getByLabel('Name').fill('marchetti')
    await page.getByLabel('Password').fill('slack-water')
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page
      .locator('article', { hasText: 'BIG 900' })
      .getByRole('button', { name: 'step by step' })
      .click()
    await page.getByText('Rolls from').waitFor()
    await work(page)
  } finally {
    await browser.close()
    await app.stop()
    stopServer()
  }
}
export const median = (values: number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1]!
