import { readFileSync, writeFileSync } from 'node:fs'
import exceljs from 'exceljs'
import { type Page } from '@playwright/test'
import type { CourseWhole } from '../../shared/api/courses'
import { closureTable, hostilePackage, oddPackage } from '../support/samples'
import { byCommand } from './by-command'
import { base, choose, courseId, expect, runOf, signIn, test } from './support'

const demoFile = (name: string): Buffer => readFileSync(new URL(`../../demo/files/${name}`, import.meta.url))
async function bring(page: Page, name: string, buffer: Buffer): Promise<void> {
  // By its path: a large file given as bytes goes through the browser's own line first, which a busy machine does not finish.
  const path = test.info().outputPath(name)
  writeFileSync(path, buffer)
  await page.goto(`${base()}/files`)
  // One chooses a file on a page that is there: its list has come.
  await expect(page.getByText(/You have no files here|Came/).first()).toBeVisible()
  await page.locator('input[type=file]').setInputFiles(path)
  await page.waitForURL(/\/files\/./)
}

test('an old package: what is wrong with it, where; kept as a course with the package as it came', async ({
  page,
}) => {
  await signIn(page)
  await page.keyboard.press('g')
  await page.keyboard.press('f')
  await expect(page.getByText('You have no files here')).toBeVisible()
  await bring(page, 'hyd-110.imscc', oddPackage())
  await expect(page.getByRole('heading', { name: 'HYD 110: Coastal Waters' })).toBeVisible()
  const row = page.getByRole('row').filter({ hasText: 'Tide tables, 2019' })
  await expect(row).toContainText('error')
  await expect(row).toContainText('imsmanifest.xml, line 4')
  await expect(page.getByRole('list', { name: 'What is in it' }).getByRole('listitem')).toHaveCount(9)
  // Nothing is stored yet: the course is not found.
  const found = async () =>
    (
      (await (await page.request.get(`${base()}/api/v1/courses?q=HYD%20110`)).json()) as {
        courses: unknown[]
      }
    ).courses.length
  expect(await found()).toBe(0)
  await page.getByLabel('Title').fill('')
  await page.getByRole('button', { name: 'Keep as a course' }).click()
  await expect(page.getByText('Give a title.')).toBeVisible()
  await page.getByLabel('Title').fill('Coastal Waters')
  await page.getByRole('button', { name: 'Keep as a course' }).click()
  await page.getByRole('link', { name: 'Open the course' }).click()
  await expect(page.getByRole('heading', { name: 'Coastal Waters' })).toBeVisible()
  expect(await found()).toBe(1)
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'hyd-110.imscc' }).click()
  const kept = await download
  expect(kept.suggestedFilename()).toBe('hyd-110.imscc')
  expect(readFileSync(await kept.path()).equals(oddPackage())).toBe(true)
  // What the old encoding says is shown as it was meant.
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await page.getByRole('link', { name: 'Chart of the harbour' }).click()
  await expect(page.getByRole('article')).toContainText('Profondeur à marée basse')
})

test('a package comes in with its line items, a course JSON and a sheet: what they disagree about is asked, what meets nothing is paired', async ({
  page,
}) => {
  await signIn(page)
  const sheet = [
    'Due,Points,Item',
    '2026-10-01 17:00,,SHORE LOG 1',
    '2026-10-02 17:00,,A title nobody knows',
    'soon,,Shore log 2',
  ].join('\n')
  for (const [name, bytes] of [
    ['roster.zip', demoFile('port-ellery.oneroster.zip')],
    ['tides.course.json', demoFile('hyd-240-01-autumn-2026.course.json')],
    ['dates.csv', Buffer.from(sheet)],
  ] as const) {
    await bring(page, name, bytes)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  }
  await bring(page, 'tides.imscc', demoFile('hyd-240-01-autumn-2026.imscc'))
  const gather = page.getByRole('region', { name: 'What your other files say of it' })
  for (const name of ['roster.zip', 'tides.course.json', 'dates.csv'])
    await expect(gather.getByRole('checkbox', { name: `Bring ${name} in with it` })).toBeChecked()
  // The sheet says another day than the others: it counts unless one says otherwise.
  const due = gather.getByRole('radiogroup', { name: /^Shore log 1: due$/i })
  await expect(due.getByRole('radio').first()).toBeChecked()
  await expect(due).toContainText('Thu 1 Oct 2026, 17:00')
  await expect(gather).toContainText('dates.csv, row 4, Due: “soon” says nothing that could be read.')
  const stray = gather.getByRole('row').filter({ hasText: 'A title nobody knows' })
  await expect(stray).toContainText('no item is like it')
  await choose(page, 'Item that A title nobody knows is about', 'Shore log 3')
  await expect(stray).toHaveCount(0)
  // It has the items of a course that is there; here it becomes one of its own.
  await expect(page.getByRole('radio', { name: /HYD 240-01 Tidal Hydrography, Autumn 2026/ })).toBeChecked()
  await page.getByRole('radio', { name: 'A course of its own' }).check({ force: true })
  await page.getByLabel('Code').fill('HYD 240')
  await page.getByRole('textbox', { name: 'Title' }).focus()
  await page.keyboard.press('Tab')
  await expect(page.getByRole('button', { name: 'Keep as a course' })).toBeFocused()
  await page.keyboard.press('Enter')
  await page.getByRole('link', { name: 'Open the course' }).click()
  await page.waitForURL(/\/courses\/./)
  const id = page.url().split('/').at(-1)
  const course = (await (await page.request.get(`${base()}/api/v1/courses/${id}`)).json()) as {
    nodes: { title: string; due: string | null }[]
  }
  const dueOf = (title: string) => course.nodes.find(node => node.title === title)?.due
  expect([dueOf('Shore log 1'), dueOf('Shore log 3')]).toEqual(['2026-10-01T17:00', '2026-10-02T17:00'])
  expect(course.nodes.filter(node => node.due !== null).length).toBeGreaterThan(30)
})

test('five files of one course come in by the keyboard, are rolled, and every date is what the plan command says', async ({
  page,
}) => {
  await signIn(page)
  const shell = await courseId(page.request, 'HYD 240-01', 'Spring 2027')
  await page.goto(`${base()}/fill/${shell}?way=file`)
  await page.getByRole('link', { name: 'Bring the file in' }).press('Enter')
  await expect(page.getByRole('heading', { name: 'Files', exact: true })).toBeVisible()
  const sheet = 'Due;Item;Points\n2026-10-01 17:00;Shore log 1;12\n'
  await page.locator('input[type=file]').setInputFiles(
    [
      ['tides.imscc', demoFile('hyd-240-01-autumn-2026.imscc')],
      ['roster.zip', demoFile('port-ellery.oneroster.zip')],
      ['tides.course.json', demoFile('hyd-240-01-autumn-2026.course.json')],
      ['dates.csv', Buffer.from(sheet)],
      ['closures.csv', closureTable()],
    ].map(([name, buffer]) => ({
      name: name as string,
      mimeType: 'application/octet-stream',
      buffer: buffer as Buffer,
    })),
  )
  const sent = (name: string) => page.getByRole('row').filter({ hasText: name })
  for (const name of ['tides.imscc', 'roster.zip', 'tides.course.json', 'dates.csv', 'closures.csv'])
    await expect(sent(name)).toContainText('read; nothing is stored yet', { timeout: 30_000 })
  await sent('tides.imscc').getByRole('link').press('Enter')
  const gather = page.getByRole('region', { name: 'What your other files say of it' })
  for (const name of ['roster.zip', 'tides.course.json', 'dates.csv'])
    await expect(gather.getByRole('checkbox', { name: `Bring ${name} in with it` })).toBeChecked()
  await expect(gather.getByText('closures.csv')).toHaveCount(0)
  const own = page.getByRole('radio', { name: 'A course of its own' })
  await page.getByRole('radio', { name: /HYD 240-01 Tidal Hydrography, Autumn 2026/ }).focus()
  for (let press = 0; press < 8 && !(await own.isChecked()); press++) await page.keyboard.press('ArrowDown')
  await expect(own).toBeChecked()
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Tidal Hydrography')
  await page.getByRole('button', { name: 'Keep as a course' }).press('Enter')
  await expect(page.getByText('Kept as')).toBeVisible({ timeout: 30_000 })
  await page.getByRole('button', { name: 'Plan the shell from it' }).press('Enter')
  await page.waitForURL(/\/plans\/[^/]+\/pair/)
  const plan = page.url().split('/').at(-2) ?? ''
  const expected = await byCommand(page, plan)
  expect(expected.size).toBeGreaterThan(90)
  await runOf(page.request, plan)
  const { nodes } = (await (
    await page.request.get(`${base()}/api/v1/courses/${shell}`)
  ).json()) as CourseWhole
  const written = nodes.filter(({ type }) => type === 'item')
  expect(written.map(({ lineage, opens, due, closes }) => [lineage, opens, due, closes])).toEqual(
    written.map(({ lineage }) => {
      const says = expected.get(lineage)
      return [lineage, says?.opens, says?.due, says?.closes]
    }),
  )
  expect(written.filter(({ due }) => due !== null).length).toBeGreaterThan(30)
  expect(written.find(({ title }) => title === 'Shore log 1')).toMatchObject({ points: 120_000 })
})

test('a package without a calendar, without a code: its first and last day are asked, and its own dates propose them', async ({
  page,
}) => {
  await signIn(page)
  await bring(
    page,
    'log.csv',
    Buffer.from('Item,Due\nWelcome aboard,2025-09-12\nChart of the harbour,2025-11-28\n'),
  )
  const day = (uid: string, name: string, from: string, to: string): string =>
    `BEGIN:VEVENT\r\nUID:${uid}\r\nDTSTAMP:20250101T000000Z\r\nSUMMARY:${name}\r\nDTSTART;VALUE=DATE:${from}\r\nDTEND;VALUE=DATE:${to}\r\nEND:VEVENT\r\n`
  const days = day('1', 'Reading week', '20251110', '20251115') + day('2', 'Snow day', '20260110', '20260111')
  const head = 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//Port Ellery//EN\r\n'
  await bring(page, 'campus.ics', Buffer.from(`${head}${days}END:VCALENDAR\r\n`))
  await bring(page, 'hyd-110.imscc', oddPackage())
  await expect(page.getByRole('checkbox', { name: 'Bring log.csv in with it' })).toBeChecked()
  await choose(page, 'Term it was taught in', 'Another term')
  await expect(page.getByLabel('First day of classes')).toHaveValue(/12 Sep/)
  await page.getByLabel('First day of classes').fill('8 sep 2025')
  await page.getByLabel('Last day of classes').fill('5 dec 2025')
  await page.getByLabel('Code').fill('')
  // Days of a calendar among the files, as far as they lie in that time.
  await page.getByText('Reading week Mon 10 Nov to Fri 14 Nov').click()
  await expect(page.getByRole('checkbox', { name: /Snow day/ })).toHaveCount(0)
  await page.getByRole('button', { name: 'Keep as a course' }).click()
  await expect(page.getByText('Kept as Coastal Waters, 8 Sep to 5 Dec 2025.')).toBeVisible({
    timeout: 30_000,
  })
  await page.getByRole('link', { name: 'Open the course' }).click()
  await expect(page.getByRole('heading', { name: 'Coastal Waters' })).toBeVisible()
  await expect(page.getByText('8 Sep to 5 Dec 2025').first()).toBeVisible()
})

test('a table of dates changes a course that is there, once one has seen what; a later package is compared with it', async ({
  page,
}) => {
  await signIn(page)
  await bring(
    page,
    'moved.csv',
    Buffer.from('Item,Due\nShore log 1,2026-09-18 17:00\nShore log 2,2096-09-18\n'),
  )
  await page.getByLabel('Find the course that it is about').fill('hydrography autumn')
  await page
    .getByRole('listitem')
    .filter({ hasText: 'Autumn 2026' })
    .getByRole('button', { name: 'Choose it' })
    .click()
  const gather = page.getByRole('region', { name: 'What files say of the course' })
  await expect(gather).toContainText('more than two years from the term')
  await expect(page.getByText('It changes 1 date or number of 1 item.')).toBeVisible()
  await page.getByRole('button', { name: 'Change HYD 240-01 Tidal Hydrography' }).click()
  await expect(page.getByText('HYD 240-01 Tidal Hydrography takes 1 date or number of 1 item.')).toBeVisible({
    timeout: 30_000,
  })
  const old = await courseId(page.request, 'HYD 240-01', 'Autumn 2026')
  const dueOf = async () => {
    const whole = (await (await page.request.get(`${base()}/api/v1/courses/${old}`)).json()) as CourseWhole
    return whole.nodes.find(({ title }) => title === 'Shore log 1')?.due
  }
  expect(await dueOf()).toBe('2026-09-18T17:00')
  await page.getByRole('link', { name: 'See the change or take it back' }).click()
  await expect(page.getByText('took 1 date or number of 1 item from moved.csv')).toBeVisible()
  await bring(page, 'tides.imscc', demoFile('hyd-240-01-autumn-2026.imscc'))
  await page.getByRole('button', { name: 'Compare with HYD 240-01 Tidal Hydrography' }).click()
  await page.waitForURL(/\/plans\/[^/]+\/carry/, { timeout: 30_000 })
  expect(await dueOf()).toBe('2026-09-18T17:00')
})

test('a package made to do harm is refused with the reason and a way on', async ({ page }) => {
  await signIn(page)
  await bring(page, 'notes.imscc', hostilePackage())
  await expect(page.getByRole('heading', { name: 'This file was refused' })).toBeVisible()
  await expect(page.getByRole('alert')).toContainText('an entry leads outside the archive')
  await expect(page.getByRole('alert')).toContainText('No part of it was used')
  await page.getByRole('button', { name: 'Delete the file' }).click()
  await expect(page.getByRole('heading', { name: 'Files', exact: true })).toBeVisible()
  await expect(page.getByRole('link', { name: 'notes.imscc' })).toHaveCount(0)
})

test('reading is stopped, and the file is gone', async ({ page }) => {
  await signIn(page)
  const event = (n: number): string =>
    `BEGIN:VEVENT\r\nUID:${n}\r\nDTSTART;VALUE=DATE:20270222\r\nSUMMARY:Day ${n}\r\nEND:VEVENT\r\n`
  await bring(
    page,
    'long.ics',
    Buffer.from(
      `BEGIN:VCALENDAR\r\n${Array.from({ length: 200_000 }, (_, n) => event(n)).join('')}END:VCALENDAR\r\n`,
    ),
  )
  await expect(page.getByRole('progressbar')).toBeVisible()
  await page.getByRole('button', { name: 'Stop reading and delete the file' }).click()
  await page.waitForURL(/\/files$/)
  await expect(page.getByRole('link', { name: 'long.ics' })).toHaveCount(0)
})

test('a file may be dropped anywhere on the page', async ({ page }) => {
  await signIn(page)
  await page.goto(`${base()}/files`)
  await expect(page.getByText('or drop it anywhere on this page.')).toBeVisible()
  const dropped = await page.evaluateHandle(text => {
    const transfer = new DataTransfer()
    transfer.items.add(new File([text], 'closures.csv', { type: 'text/csv' }))
    return transfer
  }, 'Name,First day,Last day\nStudy week,15 Feb 2027,19 Feb 2027\n')
  await page.getByRole('main').dispatchEvent('dragenter', { dataTransfer: dropped })
  await expect(page.getByText('Let go to send it.')).toBeVisible()
  await page.getByRole('main').dispatchEvent('drop', { dataTransfer: dropped })
  await expect(page.getByRole('heading', { name: 'closures.csv' })).toBeVisible()
  await expect(page.getByText('What its columns mean')).toBeVisible({ timeout: 20_000 })
})
test('a table of dates: its columns are confirmed, its days become closures', async ({ page }) => {
  await signIn(page, 'ellwood', 'chart-datum')
  await bring(
    page,
    'summer.csv',
    Buffer.from('When,What,Thereafter\n5/7/2027,Boat day,6/8/2027\n7/7/2027,Regatta,8/7/2027\n'),
  )
  await expect(page.getByText('does not show which number is the day')).toBeVisible()
  await expect(page.getByRole('cell', { name: 'Mon 5 Jul 2027' })).toBeVisible()
  await choose(page, 'Order of day and month', 'month, then day (2/15)')
  await expect(page.getByRole('cell', { name: 'Fri 7 May 2027' })).toBeVisible()
  await choose(page, 'Order of day and month', 'day, then month (15/2)')
  await choose(page, 'Column of the last day', 'none: one day each')
  await choose(page, 'Term', 'Summer 2027')
  await expect(page.getByRole('button', { name: 'Confirm the columns first' })).toBeDisabled()
  await page.getByText('Use these columns').click()
  await page.getByRole('button', { name: 'Mark all 2' }).click()
  await page.getByRole('button', { name: 'Add 2 closures to Summer 2027' }).click()
  await expect(page.getByText('2 closures were added to Summer 2027')).toBeVisible()
})

test('a roster is for the office to bring in; its line items go to one’s own courses', async ({ page }) => {
  await signIn(page)
  await bring(page, 'roster.zip', demoFile('port-ellery.oneroster.zip'))
  await expect(page.getByRole('heading', { name: 'Bring its line items in' })).toBeVisible()
  await expect(page.getByRole('row', { name: /^enrollments/ })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Bring the roster in' })).toHaveCount(0)
  await expect(
    page.getByText('HYD 240-01 Tidal Hydrography, Autumn 2026 (a file names this class)'),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Bring its line items in' }).click()
  await expect(page.getByText(/^1 course got 0 dates and numbers of 0 items, and 1,069 results/)).toBeVisible(
    {
      timeout: 30_000,
    },
  )
  await expect(page.getByText(/stay out: the academic office brings a roster in/)).toBeVisible()
})

test('a file over the limit, and a connection that breaks, are told without losing the page', async ({
  page,
}) => {
  await signIn(page)
  await page.goto(`${base()}/files`)
  await page.route('**/api/v1/uploads?name=*', route => route.abort())
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'a.imscc', mimeType: 'x', buffer: oddPackage() })
  await expect(page.getByRole('alert')).toContainText('The file did not arrive')
  await page.unroute('**/api/v1/uploads?name=*')
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'empty.imscc', mimeType: 'x', buffer: Buffer.alloc(0) })
  await expect(page.getByRole('alert')).toContainText('The file is empty')
})

test('dates go out as a workbook', async ({ page }) => {
  await signIn(page)
  const { courses } = (await (await page.request.get(`${base()}/api/v1/courses`)).json()) as {
    courses: { id: string; code: string; term: { name: string } }[]
  }
  const answer = await page.request.get(
    `${base()}/api/v1/courses/${courses.find(course => course.code === 'HYD 240' && course.term.name === 'Autumn 2026')!.id}/dates.xlsx`,
  )
  const book = new exceljs.Workbook()
  await book.xlsx.load((await answer.body()) as unknown as ArrayBuffer)
  expect(book.worksheets[0]!.getRow(1).values).toEqual([
    undefined,
    'Unit',
    'Item',
    'Kind',
    'Points',
    'Opens',
    'Due',
    'Closes',
    'Time zone',
    'Key',
  ])
  expect(book.worksheets[0]!.rowCount).toBeGreaterThan(40)
})
