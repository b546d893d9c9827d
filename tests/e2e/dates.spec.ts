import type { Page } from '@playwright/test'
import exceljs from 'exceljs'
import {
  base,
  begin,
  choose,
  courseId,
  expect,
  foot,
  inDatabase,
  isRun,
  pairLine,
  signIn,
  test,
} from './support'
import { byCommand } from './by-command'

// The Date stage: rules, dates moved by hand, crowded days, sheets. What comes out is what the plan command says of the same case.

async function open(page: Page, shell: string, term: string): Promise<string> {
  await signIn(page)
  const old = await courseId(page.request, 'HYD 240-01', 'Autumn 2026')
  const plan = await begin(page.request, old, await courseId(page.request, shell, term))
  await page.goto(`${base()}/plans/${plan}/date`)
  await expect(page.getByRole('radiogroup', { name: 'How dates cross' })).toContainText('suggested')
  return plan
}
const summer = (page: Page): Promise<string> => open(page, 'HYD 235-01', 'Summer 2027')
const grid = (page: Page) => page.getByRole('grid', { name: 'Dates, old and new' })
const row = (page: Page, title: string) => grid(page).locator(`[data-item="${title}"]`)
const due = async (page: Page, title: string): Promise<string> =>
  (await row(page, title).locator('[data-field=due]').getAttribute('data-at')) ?? ''
const count = async (page: Page, words: string): Promise<number> =>
  Number(new RegExp(`(\\d+) ${words}`).exec((await foot(page).textContent()) ?? '')?.[1] ?? 0)
const saved = (page: Page) => expect(pairLine(page)).toContainText('Draft saved')

/** The dates of the plan's sheet say what the plan command says, item by item. */
async function agrees(page: Page, id: string): Promise<void> {
  await saved(page)
  const expected = await byCommand(page, id)
  const reply = await page.request.get(`${base()}/api/v1/plans/${id}/dates.xlsx`)
  const sheet = await sheetOf(await reply.body())
  const moment = (value: unknown): string | null =>
    value instanceof Date ? value.toISOString().slice(0, 16) : null
  const found = sheet.rows.map(cells => [
    cells[sheet.at('Key')],
    ...['Opens', 'Due', 'Closes'].map(name => moment(cells[sheet.at(name)])),
  ])
  expect(found.length).toBeGreaterThan(90)
  expect(found).toEqual(
    found.map(([key]) => {
      const is = expected.get(String(key))
      return [key, is?.opens ?? null, is?.due ?? null, is?.closes ?? null]
    }),
  )
}
async function sheetOf(bytes: Buffer) {
  const book = new exceljs.Workbook()
  await book.xlsx.load(bytes as unknown as ArrayBuffer)
  const [sheet] = book.worksheets
  if (!sheet) throw new Error('the workbook has no sheet')
  const header = (sheet.getRow(1).values as unknown[]).map(String)
  const at = (name: string): number => header.indexOf(name)
  const rows = sheet.getRows(2, sheet.rowCount - 1)?.map(each => each.values as unknown[]) ?? []
  return { book, sheet, at, rows }
}

test('five weekdays become two meetings: what was due at a class is due at a class', async ({ page }) => {
  await signIn(page)
  const old = await courseId(page.request, 'HYD 240-01', 'Autumn 2026')
  const shell = await courseId(page.request, 'HYD 240-02', 'Spring 2027')
  await inDatabase(async db => {
    const meets = (course: string, weekdays: readonly (1 | 2 | 3 | 4 | 5)[]) =>
      weekdays.map((weekday, position) => ({
        course_id: course,
        position,
        weekday,
        start: '13:00',
        end: '14:15',
        room: null,
      }))
    await db('meetings').whereIn('course_id', [old, shell]).delete()
    await db('meetings').insert([...meets(old, [1, 2, 3, 4, 5]), ...meets(shell, [2, 4])])
  })
  const plan = await begin(page.request, old, shell)
  await page.goto(`${base()}/plans/${plan}/date`)
  await expect(page.getByRole('radiogroup', { name: 'How dates cross' })).toContainText('suggested')
  const way = page.getByText('Class meeting for class meeting')
  if (!(await way.isVisible())) await page.getByText(/more ways/).click()
  await way.click()
  await expect(row(page, 'Lab sheet 1')).toContainText('class meeting')
  const dues = await grid(page)
    .locator('[data-field=due]')
    .evaluateAll(cells => cells.flatMap(cell => cell.getAttribute('data-at') || []))
  expect(dues.length).toBeGreaterThan(6)
  const weekdays = dues.map(at => new Date(`${at.slice(0, 10)}T12:00Z`).getUTCDay())
  expect([...new Set(weekdays)].sort()).toEqual([2, 4])
  await agrees(page, plan)
})

test('sixteen weeks become seven: another way is laid over and chosen, what is left is settled, and crowded days are eased', async ({
  page,
}) => {
  const plan = await summer(page)
  // It begins with the better way, and says what the usual one would leave; one press goes there and back.
  await expect.poll(() => count(page, 'to settle')).toBeLessThan(5)
  await expect(
    page.getByText(/Dates move by “Stretched to the length of the term”, which leaves/),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Move dates by “Same week and weekday”' }).click()
  await expect.poll(() => count(page, 'to settle')).toBeGreaterThan(30)
  await page
    .getByRole('button', { name: 'Lay Stretched to the length of the term over the crossing' })
    .click()
  await expect(page.getByText(/dotted in the crossing: \d+ items land/)).toBeVisible()
  await page.getByRole('button', { name: 'Move dates by “Stretched to the length of the term”' }).click()
  await expect.poll(() => count(page, 'to settle')).toBeLessThan(5)
  await expect(page.getByText(/dotted in the crossing/)).toBeHidden()

  await page.keyboard.press('c')
  await expect(page.getByRole('img', { name: /What is due each day/ })).toBeVisible()
  await page.getByRole('spinbutton', { name: 'Items due on a day' }).fill('2')
  await page.getByRole('spinbutton', { name: 'Items due on a day' }).press('Enter')
  await expect(page.getByRole('heading', { name: /Ease would move \d+ items/ })).toBeVisible()
  const moves = page.getByRole('list', { name: 'What Ease would move' }).getByRole('listitem')
  const all = await moves.count()
  await moves.first().getByRole('checkbox').uncheck()
  await expect(page.getByRole('button', { name: `Move ${all - 1} and hold` })).toBeVisible()
  await moves.first().getByRole('checkbox').check()
  await page.getByRole('button', { name: `Move all ${all} and hold` }).click()
  await expect(page.getByText('Nothing needs to move.')).toBeVisible()
  await expect(page.getByText('No day and no week holds too much.')).toBeVisible()
  await saved(page)
  await page.reload()
  await expect(page.getByRole('spinbutton', { name: 'Items due on a day' })).toHaveValue('2')
  await page.keyboard.press('c')

  await page.keyboard.press('s')
  await page.keyboard.press('n')
  const choices = page.getByRole('group', { name: 'Settle it' })
  while ((await count(page, 'to settle')) > 0) {
    const before = await count(page, 'to settle')
    await choices.getByRole('button').first().click()
    await expect.poll(() => count(page, 'to settle')).toBeLessThan(before)
  }
  await expect(page.getByText('Nothing is to settle here.')).toBeVisible()
  await page.getByRole('button', { name: 'Show the whole ledger' }).click()

  await agrees(page, plan)
})

test('one week’s work is moved by hand, and the later ones follow; a step back brings all of it again', async ({
  page,
}) => {
  const plan = await open(page, 'HYD 240-01', 'Spring 2027')
  await expect(row(page, 'Lab sheet 1')).toBeVisible()
  const [lab, quiz] = [await due(page, 'Lab sheet 1'), await due(page, 'Check-in quiz 1')]
  const welcome = await due(page, 'Welcome survey')
  await row(page, 'Lab sheet 1').click()
  await page.keyboard.press('x')
  await page.keyboard.press('Shift+ArrowDown')
  const panel = page.getByRole('region', { name: 'Chosen items' })
  await expect(panel).toContainText('2 items')
  await choose(page, 'They move alone or with others', 'with all later ones')
  await page.keyboard.press('}')
  const week = (at: string): string =>
    new Date(Date.parse(`${at}:00Z`) + 7 * 86_400_000).toISOString().slice(0, 16)
  await expect.poll(() => due(page, 'Lab sheet 1')).toBe(week(lab))
  expect(await due(page, 'Check-in quiz 1')).toBe(week(quiz))
  expect(await due(page, 'Welcome survey')).toBe(welcome)
  expect(await count(page, 'held')).toBeGreaterThan(60)
  await agrees(page, plan)
  await page.keyboard.press('Control+z')
  await expect.poll(() => due(page, 'Lab sheet 1')).toBe(lab)
  await expect(foot(page)).toContainText('0 held')
})

test('many are chosen by a search, by kind and by a range, and get dates at once', async ({ page }) => {
  await open(page, 'HYD 240-01', 'Spring 2027')
  const panel = page.getByRole('region', { name: 'Chosen items' })
  await page.keyboard.press('f')
  await page.getByLabel('Find items by their words').fill('lab sheet')
  const chosen = page.getByRole('button', { name: /^Choose all \d+$/ })
  await chosen.click()
  await expect(panel).toContainText(/\d+ items/)
  await panel.getByRole('textbox', { name: 'Due for all chosen' }).fill('fri wk 5 17:00')
  await panel.getByRole('textbox', { name: 'Due for all chosen' }).press('Enter')
  await expect.poll(() => due(page, 'Lab sheet 2')).toBe('2027-02-05T17:00')
  await choose(page, 'How it is filled down', 'each a week later')
  await panel.getByRole('button', { name: 'Fill down' }).click()
  await expect.poll(() => due(page, 'Lab sheet 2')).toBe('2027-02-12T17:00')
  await panel.getByRole('button', { name: /^Open them from .*, never closing$/ }).click()
  await expect(row(page, 'Lab sheet 2').locator('[data-field=closes]')).toHaveAttribute('data-at', '')
  await page.keyboard.press('u')
  await expect(foot(page)).toContainText('0 held')
  await page.keyboard.press('Escape')
  await expect(panel).toBeHidden()

  await page.getByRole('button', { name: 'Show all' }).click()
  await row(page, 'Check-in quiz 1').click()
  await page.keyboard.press('X')
  await expect(panel).toContainText('8 items')
  await page.keyboard.press('p')
  await expect.poll(() => count(page, 'held')).toBeGreaterThanOrEqual(8)
  // What is chosen and filtered away is said, and dropped with one press.
  await page.getByLabel('Find items by their words').fill('check-in quiz 1')
  await expect(panel).toContainText('7 of them are out of sight and change too.')
  await panel.getByRole('button', { name: 'Drop these 7' }).click()
  await expect(panel).toContainText('1 item')
  await expect(panel.getByText('out of sight')).toHaveCount(0)
  await page.getByLabel('Find items by their words').fill('')
  await page.getByRole('button', { name: 'Due', exact: true }).click()
  await expect(page.getByRole('columnheader', { name: 'Due', exact: true })).toHaveAttribute(
    'aria-sort',
    'ascending',
  )
  await page.reload()
  await expect(grid(page).getByRole('row').nth(1)).toHaveAttribute('data-item', 'Where is your water?')
})

test('the crossing is dragged, swept over and looked at closely; what follows is in the ledger', async ({
  page,
}) => {
  const plan = await open(page, 'HYD 240-01', 'Spring 2027')
  const picture = page.getByRole('region', { name: 'Crossing' }).locator('svg')
  const box = (await picture.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 }
  // Over the first weeks of the new term's line.
  await page.mouse.move(box.x + 112, box.y + 178)
  await page.mouse.down()
  await page.mouse.move(box.x + 240, box.y + 166, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByRole('region', { name: 'Chosen items' })).toContainText(/\d+ items/)
  await page.keyboard.press('Escape')

  await row(page, 'Lab sheet 1').click()
  const before = await due(page, 'Lab sheet 1')
  const opens = await row(page, 'Lab sheet 1').locator('[data-field=opens]').getAttribute('data-at')
  for (let n = 0; n < 3; n++) await page.keyboard.press('+')
  const whole = page.getByRole('button', { name: 'Whole' })
  await expect(whole).toBeVisible()
  for (let n = 0; n < 12; n++) await page.keyboard.press(',')
  const mark = page.locator('.thread.chosen .end')
  const at = (await mark.boundingBox()) ?? { x: 0, y: 0, width: 0, height: 0 }
  await page.mouse.move(at.x + at.width / 2, at.y + at.height / 2)
  await page.mouse.down()
  await page.mouse.move(at.x + 70, at.y + 4, { steps: 5 })
  await expect(picture).toContainText(/week \d+ · .* due/)
  await page.mouse.up()
  await expect.poll(() => due(page, 'Lab sheet 1')).not.toBe(before)
  const days = (one: string | null, other: string | null): number =>
    Math.round((Date.parse(`${one}:00Z`) - Date.parse(`${other}:00Z`)) / 86_400_000)
  const moved = days(await due(page, 'Lab sheet 1'), before)
  expect(moved).toBeGreaterThan(0)
  // The window moves with it, and the time of day stays.
  expect((await due(page, 'Lab sheet 1')).slice(11)).toBe(before.slice(11))
  expect(
    days(await row(page, 'Lab sheet 1').locator('[data-field=opens]').getAttribute('data-at'), opens),
  ).toBe(moved)
  await whole.click()
  await expect(whole).toBeHidden()
  await agrees(page, plan)
})

test('a sheet is changed elsewhere and comes back: what it changes is shown, taken in part, and nothing else', async ({
  page,
}, testInfo) => {
  const plan = await open(page, 'HYD 240-01', 'Spring 2027')
  const waiting = page.waitForEvent('download')
  await page.getByRole('link', { name: 'XLSX' }).click()
  const path = await (await waiting).path()
  const book = new exceljs.Workbook()
  await book.xlsx.readFile(path)
  const sheet = book.worksheets[0]!
  const header = (sheet.getRow(1).values as unknown[]).map(String)
  const cell = (title: string, column: string): exceljs.Cell => {
    const found = sheet
      .getRows(2, sheet.rowCount - 1)!
      .find(each => each.getCell(header.indexOf('Item')).value === title)!
    return found.getCell(header.indexOf(column))
  }
  // Keys are locked, dates are real dates that may be changed, and held is one of two words.
  expect(cell('Lab sheet 1', 'Key').protection?.locked).not.toBe(false)
  expect(cell('Lab sheet 1', 'Due').protection?.locked).toBe(false)
  expect(cell('Lab sheet 1', 'Due').value).toBeInstanceOf(Date)
  expect(cell('Lab sheet 1', 'Held').dataValidation).toMatchObject({ type: 'list', formulae: ['"yes,no"'] })
  cell('Lab sheet 1', 'Due').value = new Date('2027-01-22T17:00:00Z')
  cell('Lab sheet 2', 'Due').value = new Date('2027-02-02T23:59:00Z')
  cell('Lab sheet 3', 'Due').value = 'whenever'
  cell('Lab sheet 4', 'Due').value = { formula: 'TODAY()', result: 'today' }
  cell('Lab sheet 5', 'Plan').value = 'another'
  const changed = testInfo.outputPath('changed.xlsx')
  await book.xlsx.writeFile(changed)

  await page.getByLabel('Bring a changed sheet back').setInputFiles(changed)
  const told = page.getByRole('region', { name: 'What the sheet changes' })
  await expect(told.getByRole('heading', { name: /changes 2 items/ })).toBeFocused()
  const wrong = told.getByRole('list', { name: 'Rows that do not count' })
  await expect(wrong).toContainText('“whenever” is not a date')
  await expect(wrong).toContainText('“today” is not a date')
  await expect(wrong).toContainText('This row is of another plan')
  await expect(foot(page)).toContainText('0 held')
  await told.getByRole('checkbox', { name: 'Take the change of Lab sheet 2' }).uncheck()
  await told.getByRole('button', { name: 'Take 1 of 2 changes' }).click()
  await expect.poll(() => due(page, 'Lab sheet 1')).toBe('2027-01-22T17:00')
  expect(await due(page, 'Lab sheet 2')).not.toBe('2027-02-02T23:59')
  await agrees(page, plan)

  await page.getByLabel('Bring a changed sheet back').setInputFiles({
    name: 'notes.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('Item,When\nLab sheet 1,soon\n'),
  })
  await expect(page.getByRole('alert')).toContainText('has no column “Key”')
})

test('only with the keyboard, from the rule to the run', async ({ page }) => {
  const plan = await summer(page)
  // Into the radios, to the one that is suggested.
  await page.getByRole('radio', { name: 'Stretched to the length of the term' }).press('Space')
  await expect.poll(() => count(page, 'to settle')).toBeLessThan(5)
  await page.getByLabel('Rows; j and k move, e edits').focus()
  while ((await count(page, 'to settle')) > 0) {
    const before = await count(page, 'to settle')
    await page.keyboard.press('n')
    await page.keyboard.press('p')
    await expect.poll(() => count(page, 'to settle')).toBeLessThan(before)
  }
  await page.keyboard.press('f')
  await page.keyboard.type('problem set 1')
  await page.keyboard.press('Tab')
  await page.getByLabel('Rows; j and k move, e edits').focus()
  await page.keyboard.press('j')
  await page.keyboard.press(']')
  await page.keyboard.press('e')
  await page.keyboard.type('fri wk 3 12:00')
  await page.keyboard.press('Enter')
  await expect.poll(() => due(page, 'Problem set 1')).toBe('2027-05-28T12:00')
  await agrees(page, plan)
  await page.keyboard.press('6')
  await expect(page.getByRole('main')).toBeFocused()
  const seen = page.getByRole('checkbox', { name: 'I have seen what changes in HYD 235-01' })
  await expect(seen).toBeEnabled()
  await seen.press('Space')
  await expect(seen).toBeChecked()
  await page.getByRole('button', { name: 'Run into HYD 235-01' }).press('Enter')
  await isRun(page.request, plan)
})

test('when units open, which grading period counts and how much grace there is: decided here, and so in the shell', async ({
  page,
}) => {
  await signIn(page, 'sorrel', 'warm-proof')
  const shell = await courseId(page.request, 'ORN 130-01', 'Spring 2027')
  const plan = await begin(page.request, await courseId(page.request, 'ORN 130-01', 'Autumn 2026'), shell)
  await page.goto(`${base()}/plans/${plan}/date`)
  const week = row(page, 'Week 2: Song')
  const opens = week.locator('[data-field=opens]')
  await expect(opens).toHaveAttribute('data-at', '2027-01-18T08:00')

  // The unit moves with what is in it; it opens, and has no other date.
  await week.click()
  await choose(page, 'It moves alone or with others', 'with its whole unit')
  await page.keyboard.press(']')
  await expect(opens).toHaveAttribute('data-at', '2027-01-19T08:00')
  await expect.poll(() => due(page, 'Field notes 2')).toBe('2027-01-25T23:59')
  expect(await due(page, 'Field notes 1')).toBe('2027-01-17T23:59')
  await page.keyboard.press('e')
  const editing = page.getByRole('row', { name: 'Dates of Week 2: Song' })
  await expect(editing.getByRole('textbox')).toHaveCount(1)
  await editing.getByRole('textbox', { name: 'Opens' }).fill('20 jan 09:00')
  await editing.getByRole('textbox', { name: 'Opens' }).press('Enter')
  await expect(opens).toHaveAttribute('data-at', '2027-01-20T09:00')

  const periods = page.getByRole('region', { name: 'Grading periods' })
  await expect(periods).toContainText('6 items')
  await row(page, 'Field notes 1').click()
  await expect(page.getByRole('region', { name: 'Why' })).toContainText('It is due within it.')
  await choose(page, 'Grading period', 'Second half')
  await expect(periods).toContainText('1 item')
  await expect(periods).toContainText('1 period was chosen by hand')
  // Without its due date and its opening the unit tells; that one is chosen stays.
  await row(page, 'Plumage trainer, set 1').click()
  await page.keyboard.press('e')
  const due1 = page.getByRole('row', { name: 'Dates of Plumage trainer, set 1' })
  await due1.getByRole('textbox', { name: 'Due' }).fill('')
  await due1.getByRole('textbox', { name: 'Due' }).press('Enter')
  await expect(page.getByRole('region', { name: 'Why' })).toContainText('Its unit lies within it.')

  const grace = page.getByRole('radiogroup', { name: 'Grace allowances in the new course' })
  await expect(grace).toContainText('as before: 5 allowances of 2 days each, at most one on one item')
  await grace.getByText('none', { exact: true }).click()
  await expect(page.getByText('With none, the syllabus must not mention them.')).toBeVisible()
  await grace.getByText('so many:').click()
  await page.getByRole('spinbutton', { name: 'How many grace allowances each student has' }).fill('8')
  await page.getByRole('spinbutton', { name: 'How many grace allowances each student has' }).press('Enter')
  await saved(page)

  await page.goto(`${base()}/plans/${plan}/run`)
  const effect = page.getByRole('table').first()
  await expect(effect).toContainText('5 items in First half, 1 item in Second half')
  await expect(effect).toContainText('8 allowances of 2 days each')
  await page.getByText('I have seen what changes in ORN 130-01').click()
  await page.getByRole('button', { name: 'Run into ORN 130-01' }).click()
  await isRun(page.request, plan)
  await page.goto(`${base()}/courses/${shell}?view=read`)
  await expect(page.locator('[data-item="Week 2: Song"] [data-field=opens]')).toHaveAttribute(
    'data-at',
    '2027-01-20T09:00',
  )
  await expect(page.locator('[data-item="Field notes 1"]')).toContainText('Second half')
  await expect(page.getByText('8 allowances of 2 days each, at most one on one item')).toBeVisible()
})
