// npm run bench:shells : the first page with 5 000 courses, in Chromium against the built application: how soon its rows are painted, and how
// soon a keystroke in the filter is answered. The same page of a person with a few courses, in the same run, is what it is compared with.
import { present } from '../core/present'
import { chromium, type Page } from '@playwright/test'
import { noRoster, type Roster } from '../core/formats/oneroster/read'
import { connect } from '../server/db/connection'
import { importRoster } from '../server/registrar/roster'
import { startApp } from '../tests/support/app'
import { chromiumHere } from '../tests/support/chromium'
import { makeCatalogue } from '../tests/support/catalogue'
import { useServer } from '../tests/support/database'

const many = 5000
const { courses, shells } = makeCatalogue(7, 2000)
const candidates = [
  ...shells.map(entry => ({ ...entry.shell, term: '2027-spring' })),
  ...courses.map(course => ({ ...course, term: '2026-autumn' })),
].slice(0, many)
const people = [...new Set(candidates.flatMap(course => course.instructors))]
const roster: Roster = {
  ...noRoster,
  orgs: [
    {
      sourcedId: 'org-port-ellery',
      name: 'Port Ellery Institute',
      type: 'school',
      identifier: '',
      parentSourcedId: '',
    },
  ],
  users: people.map((id, n) => ({
    sourcedId: id,
    enabledUser: 'true',
    orgSourcedIds: '',
    role: 'teacher',
    username: '',
    givenName: `Person ${n}`,
    familyName: `Number ${n}`,
    email: '',
    middleName: '',
    identifier: '',
    phone: '',
    sms: '',
    'metadata.nickname': '',
    agentSourcedIds: '',
  })),
  courses: candidates.map(course => ({
    sourcedId: `co-${course.id}`,
    schoolYearSourcedId: '',
    title: course.title,
    courseCode: course.code,
    orgSourcedId: 'org-port-ellery',
  })),
  classes: candidates.map(course => ({
    sourcedId: course.id,
    title: course.title,
    courseSourcedId: `co-${course.id}`,
    classCode: `${course.code}-${course.section}`,
    classType: 'scheduled',
    location: '',
    schoolSourcedId: 'org-port-ellery',
    termSourcedIds: course.term,
    periods: 'MO 09:30-10:20,WE 09:30-10:20',
  })),
  enrollments: candidates.flatMap(course =>
    course.instructors.map(person => ({
      sourcedId: `en-${course.id}-${person}`,
      classSourcedId: course.id,
      schoolSourcedId: '',
      userSourcedId: person,
      role: 'teacher',
      primary: 'true',
      beginDate: '',
      endDate: '',
    })),
  ),
}

/** Milliseconds from asking for the page until its first rows stand in it, and until the first of them is whole. */
async function opened(page: Page, url: string): Promise<{ rows: number; whole: number }> {
  await page.goto('about:blank')
  await page.goto(url, { waitUntil: 'commit' })
  return page.evaluate(async () => {
    const until = async (selector: string): Promise<number> => {
      while (!document.querySelector(selector)) await new Promise(requestAnimationFrame)
      await new Promise(requestAnimationFrame)
      return performance.now()
    }
    return {
      rows: await until('article.shell'),
      whole: await until('article.shell .acts .act, article.shell .acts > span.soft'),
    }
  })
}
/** Milliseconds from a keystroke in the filter to the frame in which the list answers it; null where it has nothing to say to it. */
const typed = (page: Page, text: string): Promise<number | null> =>
  page.evaluate(async value => {
    const field = present(document.querySelector<HTMLInputElement>('.filter input'))
    const shown = (): string =>
      [...document.querySelectorAll('article.shell')].map(row => row.getAttribute('aria-label')).join() +
      present(document.querySelector('nav .view span')).textContent
    const before = shown()
    const start = performance.now()
    field.value = value
    field.dispatchEvent(new Event('input', { bubbles: true }))
    while (shown() === before && performance.now() - start < 1000) await new Promise(requestAnimationFrame)
    return shown() === before ? null : performance.now() - start
  }, text)
const middle = (values: number[]): number => present([...values].sort((a, b) => a - b)[values.length >> 1])

const stopServer = useServer()
const app = await startApp('northtide_bench')
const db = connect({
  host: present(process.env.DB_HOST),
  port: Number(process.env.DB_PORT),
  user: present(process.env.DB_USER),
  password: present(process.env.DB_PASSWORD),
  database: app.database,
})
await importRoster(db, roster)
// The old courses hold what HYD 240 holds, and every course has thirty students.
const old = (await db('courses').where({ source_id: 'hyd240-01-2026a' }).first('id'))?.id ?? ''
const autumn = (await db('terms').where({ code: '2026-autumn' }).first('id'))?.id ?? ''
await db.raw(
  'INSERT INTO items (course_id, lineage, parent_lineage, position, kind, title, state, exam, points, category_lineage, body_hash, media_type, settings) SELECT c.id, i.lineage, i.parent_lineage, i.position, i.kind, i.title, i.state, i.exam, i.points, NULL, i.body_hash, i.media_type, i.settings FROM courses c JOIN items i ON i.course_id = ? WHERE c.term_id = ? AND c.id <> ?',
  [old, autumn, old],
)
await db.raw(
  `INSERT IGNORE INTO enrolments (id, course_id, person_id, role, origin) SELECT UUID(), c.id, p.id, 'student', 'registrar' FROM courses c JOIN (SELECT id FROM people WHERE source_id LIKE 'st-2027-01-%' LIMIT 30) p`,
)
await db.destroy()
const browser = await chromium.launch(chromiumHere)
try {
  const measure = async (
    login: string,
    password: string,
  ): Promise<{ rows: number[]; whole: number[]; page: Page }> => {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
    // What is run in the page was compiled with a helper that is not there.
    await page.addInitScript('globalThis.__name = value => value')
    await page.goto(`${app.url}/sign-in`)
    await page.getByLabel('Name').fill(login)
    await page.getByLabel('Password').fill(password)
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.locator('article.shell').first().waitFor()
    const times = []
    for (let round = 0; round < 7; round++) times.push(await opened(page, app.url))
    return { rows: times.map(time => time.rows), whole: times.map(time => time.whole), page }
  }
  const few = await measure('marchetti', 'slack-water')
  const all = await measure('ellwood', 'chart-datum')
  const keys: number[] = []
  for (const word of ['tides', 'hyd 2', 'person', 'ice'])
    for (let length = 1; length <= word.length; length++) {
      const time = await typed(all.page, word.slice(0, length))
      if (time !== null) keys.push(time)
    }
  console.log(
    `the first page with ${many + 3} courses: rows painted ${middle(all.rows).toFixed(0)} ms after it is asked for (worst of 7: ${Math.max(...all.rows).toFixed(0)}), the first row whole after ${middle(all.whole).toFixed(0)} ms; with 3 courses ${middle(few.rows).toFixed(0)} and ${middle(few.whole).toFixed(0)} ms: ratios ${(middle(all.rows) / middle(few.rows)).toFixed(2)} and ${(middle(all.whole) / middle(few.whole)).toFixed(2)}`,
  )
  console.log(
    `a keystroke in its filter is answered in ${middle(keys).toFixed(0)} ms (median of ${keys.length}, worst ${Math.max(...keys).toFixed(0)} ms); a frame takes 17 ms`,
  )
} finally {
  await browser.close()
  await app.stop()
  stopServer()
}
