import type { Locator, Page } from '@playwright/test'
import { editText } from '../support/edits'
import {
  base,
  begin,
  choose,
  courseId,
  expect,
  inDatabase,
  roll,
  signIn,
  signInRequest,
  test,
} from './support'

// Carry: the ledger of places, the grade rules, what the shell holds already, and again.

const asSorrel = (page: Page): Promise<void> => signIn(page, 'sorrel', 'warm-proof')
/** Begins a plan from last term's course into the shell of the same code, and opens one of its pages. */
async function openPlan(page: Page, code: string, stage: 'carry' | 'grades'): Promise<void> {
  const old = await courseId(page.request, code, 'Autumn 2026')
  const plan = await begin(page.request, old, await courseId(page.request, code, 'Spring 2027'))
  await page.goto(`${base()}/plans/${plan}/${stage}`)
}
const line = (page: Page, title: string): Locator =>
  page.locator('.place-line', { has: page.getByText(title, { exact: true }) }).first()
const happens = (row: Locator): Locator => row.locator('.happens')
async function runPlan(page: Page, shell: string): Promise<void> {
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Run/ }).click()
  await page.getByText(`I have seen what changes in ${shell}`).click()
  await page.getByRole('button', { name: `Run into ${shell}` }).click()
  await expect(page.getByRole('heading', { name: `${shell} is filled.` })).toBeVisible()
}

test('grade rules that make 95 are made 100, an item finds another category, and the sample gradebook shows what that makes', async ({
  page,
}) => {
  await asSorrel(page)
  await openPlan(page, 'ORN 130-01', 'grades')
  await expect(page.getByText('The weights make 95. Each counts in proportion')).toBeVisible()
  await page.getByRole('checkbox', { name: 'Hold the weight of Field notes' }).press('Space')
  await page.getByRole('button', { name: 'Make them 100' }).click()
  await expect(page.getByText('The weights make 100.')).toBeVisible()
  const weight = (of: string) => page.getByLabel(`Weight of ${of}`, { exact: true })
  await expect(weight('Field notes')).toHaveValue('30')
  await expect(weight('Plumage trainer')).toHaveValue('26.92')
  // A typed weight that is none is said, and changes nothing.
  await weight('Checks').fill('many')
  await weight('Checks').press('Enter')
  await expect(page.getByText('A number such as 12.5')).toBeVisible()
  await weight('Checks').press('Escape')
  // More is dropped from the field notes: whoever missed one is better off.
  const result = (name: string) => page.getByRole('row', { name: new RegExp(name) }).getByRole('cell')
  await expect(result('Strong at first').nth(2)).not.toHaveText('the same')
  await page.getByRole('button', { name: 'Steady' }).click()
  await page.getByLabel('The autumn count: score').fill('0')
  await page.getByLabel('The autumn count: score').press('Enter')
  await expect(result('Steady').nth(1)).toContainText('· C')
  // The check moves under another category; one undo takes it back, one redo brings it again.
  await page.getByRole('button', { name: 'Show 1 item, 25 points' }).click()
  await page.locator('.el-select', { has: page.getByLabel('Category of Check: routes') }).click()
  await page
    .locator('.el-select-dropdown__item', { hasText: 'The autumn count' })
    .filter({ visible: true })
    .click()
  await expect(page.getByRole('button', { name: 'Show 2 items, 125 points' })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(page.getByRole('button', { name: /2 items, 125 points/ })).toHaveCount(0)
  await page.keyboard.press('Control+Shift+z')
  await expect(page.getByRole('button', { name: /2 items, 125 points/ })).toBeVisible()
  await runPlan(page, 'ORN 130-01')
  await page.getByRole('link', { name: 'Go to the shell' }).first().click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await expect(page.getByRole('row', { name: 'Together' })).toContainText('100 %')
})

test('a shell with a template in it: places are filled, one is paired by hand, what is fixed stays, and the list before Run is exact', async ({
  page,
}) => {
  await asSorrel(page)
  await openPlan(page, 'WVG 201-01', 'carry')
  await expect(happens(line(page, 'Safety at the loom'))).toHaveText('stays')
  await expect(happens(line(page, 'A word from your teacher'))).toHaveText('removed, unfilled')
  const draft = line(page, 'Reading a draft')
  await expect(happens(draft)).toHaveText('fills?')
  await draft.click()
  await page.getByRole('button', { name: 'Choose the same for 5 more like it' }).click()
  await expect(page.getByLabel('Where it stands, and what is next')).not.toContainText('to settle')
  // A page takes the place of the department's welcome: paired by hand, both texts side by side.
  await line(page, 'What is it for?').click()
  await page.getByRole('combobox', { name: 'What it meets in the shell' }).click()
  await expect(
    page.locator('.el-select-dropdown__item', { hasText: 'Welcome to the loom room' }).first(),
  ).toBeVisible()
  await page.locator('.el-select-dropdown__item', { hasText: 'Welcome to the loom room' }).first().click()
  const welcome = line(page, 'What is it for?')
  await expect(happens(welcome)).toHaveText('replaces')
  await welcome.click()
  await expect(page.getByRole('heading', { name: 'Shell now' })).toBeVisible()
  await expect(page.locator('.compare del').first()).toBeVisible()
  await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: /^Run/ }).click()
  await expect(
    page.getByText(
      /Fills 6 empty places\. Replaces 1 item\. .*Writes over 1 grade category\. Removes 1 empty place\./,
    ),
  ).toBeVisible()
  const losses = page.getByRole('region', { name: /^Overwritten or removed in the shell: [34]$/ })
  await expect(losses).toContainText('Welcome to the loom room is replaced by “What is it for?”')
  await expect(losses).toContainText(
    'A word from your teacher is an empty place that nothing fills, and is removed',
  )
  await runPlan(page, 'WVG 201-01')
  await page.getByRole('link', { name: 'Read the record of the run' }).click()
  await expect(page.getByRole('row', { name: /Reading a draft/ })).toContainText('filled an empty place')
  await page.getByRole('link', { name: 'the shell' }).click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await expect(page.locator('[data-item="Safety at the loom"]')).toContainText('fixed by the institution')
  await expect(page.getByText('an empty place')).toHaveCount(0)
})

test('a place takes what stands under one heading and another text below it; a unit takes what comes above what it holds', async ({
  page,
}) => {
  await asSorrel(page)
  await openPlan(page, 'WVG 201-01', 'carry')
  await line(page, 'How close the threads stand').click()
  await choose(page, 'How much of its text comes', /A first square/)
  await expect(page.getByText('Only what stands under “A first square” comes')).toBeVisible()
  await choose(page, 'What else goes into this place', 'What is it for?')
  await expect(page.getByText('One more text follows it, under its title')).toBeVisible()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Fill this place, and go on' }).click()
  await expect(happens(line(page, 'A first square'))).toHaveText('fills')
  await expect(happens(line(page, 'What is it for?'))).toHaveText('goes into')
  await line(page, 'Plain weave and its relatives').click()
  await expect(page.getByRole('region', { name: 'Both units side by side' })).toContainText('Further reading')
  await choose(page, 'Where in this unit what comes stands', 'above what it holds')
  const titles = page.locator('.place-line .holds .words')
  await expect
    .poll(async () => (await titles.allTextContents()).indexOf('Sample 2: basket and rib'))
    .toBeLessThan((await titles.allTextContents()).indexOf('A first square'))
  await runPlan(page, 'WVG 201-01')
  await page.getByRole('link', { name: 'Go to the shell' }).first().click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await page.getByRole('link', { name: 'A first square' }).click()
  await expect(page.getByText('Weave a hand')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'What is it for?' })).toBeVisible()
  await expect(page.getByText('Wind the yarn')).toHaveCount(0)
})

test('units are renamed by a pattern with a preview, one item by hand, and undone', async ({ page }) => {
  await asSorrel(page)
  await openPlan(page, 'ORN 130-01', 'carry')
  await page.getByLabel('Pattern of the names').fill('Part {n} – {title}')
  await expect(page.getByRole('list', { name: 'New names' })).toContainText('Part 2 – Song')
  await page.getByRole('button', { name: 'Rename 3 units' }).click()
  const held = page.locator('.place-line .holds .words')
  await expect(held.filter({ hasText: 'Part 2 – Song' })).toBeVisible()
  await page.keyboard.press('Control+z')
  await expect(held.filter({ hasText: 'Part 2 – Song' })).toHaveCount(0)
  await page.keyboard.press('Control+Shift+z')
  await line(page, 'Reading a sonogram').click()
  await page.keyboard.press('e')
  const name = page.getByLabel('What it is called in the shell')
  await expect(name).toBeFocused()
  await name.fill('How to read a sonogram')
  await name.press('Enter')
  await expect(held.filter({ hasText: 'How to read a sonogram' })).toBeVisible()
  await runPlan(page, 'ORN 130-01')
  await page.getByRole('link', { name: 'Go to the shell' }).first().click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await expect(page.getByText('Part 2 – Song').first()).toBeVisible()
  await expect(page.locator('[data-item="How to read a sonogram"]')).toBeVisible()
})

test('a second run after edits on both sides: what changed in the source comes, what changed here stays, and of both one chooses', async ({
  page,
}) => {
  await asSorrel(page)
  const [old, shell] = [
    await courseId(page.request, 'ORN 130-01', 'Autumn 2026'),
    await courseId(page.request, 'ORN 130-01', 'Spring 2027'),
  ]
  await roll(page.request, old, shell)
  const retitle = (course: string, from: string, to: string) =>
    inDatabase(db => db('items').where({ course_id: course, title: from }).update({ title: to }))
  await retitle(old, 'Reading a sonogram', 'How to read a sonogram')
  await retitle(shell, 'Routes and weather', 'Routes, as I teach them')
  await retitle(old, 'Where is your patch?', 'Which is your patch?')
  await retitle(shell, 'Where is your patch?', 'Your patch, please')
  // Somebody threw one out of the shell on purpose.
  await inDatabase(db =>
    db('items').where({ course_id: shell, title: 'Field notes 2' }).update({ state: 'deleted' }),
  )
  await openPlan(page, 'ORN 130-01', 'carry')
  await expect(happens(line(page, 'How to read a sonogram'))).toHaveText('brings up to date')
  await expect(happens(line(page, 'Routes, as I teach them'))).toHaveText('there already')
  const patch = line(page, 'Your patch, please')
  await expect(happens(patch)).toHaveText('there already?')
  await expect(happens(line(page, 'Field notes 2'))).toHaveText('was removed here')
  await patch.click()
  await expect(page.getByText('both changed')).toBeVisible()
  await page.locator('table.parts').getByText('Which is your patch?').click()
  await expect(happens(line(page, 'Which is your patch?'))).toHaveText('brings up to date')
  await runPlan(page, 'ORN 130-01')
  await page.goto(`${base()}/courses/${shell}?view=read`)
  for (const title of ['How to read a sonogram', 'Routes, as I teach them', 'Which is your patch?'])
    await expect(page.locator(`[data-item="${title}"]`)).toBeVisible()
  await expect(page.locator('[data-item="Field notes 2"]')).toHaveCount(0)
})

test('a text that was changed on both sides is put together passage by passage', async ({ page }) => {
  await asSorrel(page)
  const [old, shell] = [
    await courseId(page.request, 'ORN 130-01', 'Autumn 2026'),
    await courseId(page.request, 'ORN 130-01', 'Spring 2027'),
  ]
  await roll(page.request, old, shell)
  await inDatabase(async db => {
    await editText(db, old, 'Routes and weather', html =>
      html
        .replace('</h1>', '</h1><p>Take the early ferry.</p>')
        .replace('</body>', '<p>Mind the gate.</p></body>'),
    )
    await editText(db, shell, 'Routes and weather', html =>
      html.replace('</body>', '<p>I am there at six.</p></body>'),
    )
  })
  await openPlan(page, 'ORN 130-01', 'carry')
  const routes = line(page, 'Routes and weather')
  await expect(happens(routes)).toHaveText('there already?')
  await routes.click()
  await page.getByRole('button', { name: 'Compare the text by passages' }).click()
  // What only the old course changed is marked already.
  await expect(page.getByRole('radio', { name: 'Passage 1: take the old course’s' })).toBeChecked()
  await page.getByText('both, the shell’s first').last().click()
  await expect(happens(routes)).toHaveText('brings up to date')
  await expect(page.getByText('by passages', { exact: true })).toBeVisible()
  await runPlan(page, 'ORN 130-01')
  await page.goto(`${base()}/courses/${shell}?view=read`)
  await page.getByRole('link', { name: 'Routes and weather' }).click()
  const text = page.getByRole('main')
  await expect(text).toContainText(/Take the early ferry.*Birds fly.*I am there at six.*Mind the gate/s)
})

test('one unit now and another three weeks later: the second run adds that alone, with what it needs', async ({
  page,
}) => {
  await asSorrel(page)
  await openPlan(page, 'ORN 130-01', 'carry')
  await line(page, 'Week 1: Looking before listening').click()
  await page.keyboard.press('o')
  await expect(page.getByLabel('Where it stands, and what is next')).toContainText('5 added')
  await runPlan(page, 'ORN 130-01')
  await openPlan(page, 'ORN 130-01', 'carry')
  const foot = page.getByLabel('Where it stands, and what is next')
  await expect(foot).toContainText('5 in the shell already')
  await expect(foot).toContainText('0 added')
  // By keys alone: type ahead to the unit, and take it.
  await page.getByRole('tree').focus()
  // "Where is your patch?" begins with it too.
  for (let at = 0; at < 3; at++) await page.keyboard.press('Shift+W')
  await expect(page.getByRole('treeitem', { selected: true })).toContainText('Week 2: Song')
  await page.keyboard.press('x')
  await expect(foot).toContainText('4 added')
  await runPlan(page, 'ORN 130-01')
  await page.getByRole('link', { name: 'Go to the shell' }).first().click()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await expect(page.locator('[data-item="Reading a sonogram"]')).toBeVisible()
  await expect(page.locator('[data-item="The autumn count"]')).toHaveCount(0)
})

test('leaving a page behind says what breaks; one press brings it, and a thing is moved into another unit', async ({
  page,
}) => {
  await asSorrel(page)
  await openPlan(page, 'ORN 130-01', 'carry')
  await line(page, 'Syllabus').click()
  await page.keyboard.press('x')
  await expect(page.getByText('Left behind, the link leads nowhere.')).toBeVisible()
  await page.getByRole('button', { name: 'Bring it' }).click()
  await expect(page.getByText('Left behind, the link leads nowhere.')).toHaveCount(0)
  // Dragged into another unit, and moved by the list of units.
  await line(page, 'Where is your patch?').dragTo(line(page, 'Week 3: Migration'))
  await expect(page.getByText('1 item goes into another unit.')).toBeVisible()
  await page.getByRole('button', { name: 'Leave all where they were' }).click()
  await line(page, 'Field notes 1').click()
  await page.keyboard.press('m')
  await expect(page.getByRole('combobox', { name: 'Into which unit it goes' })).toBeFocused()
  await page.keyboard.press('Enter')
  await page
    .locator('.el-select-dropdown__item', { hasText: 'Week 2: Song' })
    .filter({ visible: true })
    .click()
  await expect(page.getByText('1 item goes into another unit.')).toBeVisible()
})

test('the academic office fixes an item; no rollover changes it then', async ({ page }) => {
  await signIn(page, 'ellwood', 'chart-datum')
  await signInRequest(page.request, 'ellwood', 'chart-datum')
  const shell = await courseId(page.request, 'HYD 240-02', 'Spring 2027')
  await page.goto(`${base()}/courses/${shell}?view=read`)
  await page.getByRole('link', { name: 'Honest work' }).click()
  await page.getByRole('button', { name: 'Fix this item for the institution' }).click()
  await expect(page.getByText('Fixed by the institution: no rollover changes it.')).toBeVisible()
  await page.goto(`${base()}/log`)
  await expect(page.getByText('fixed an item for the institution').first()).toBeVisible()
})

test('several rows that are chosen go into another unit together, and up or down together', async ({
  page,
}) => {
  await signIn(page)
  await openPlan(page, 'HYD 240-01', 'carry')
  const plan = /plans\/([^/]+)/.exec(page.url())?.[1] ?? ''
  await line(page, 'How to write a shore log').click()
  await page.keyboard.press('Shift+ArrowDown')
  await expect(page.getByText('all 2 chosen')).toBeVisible()
  await choose(page, 'Into which unit it goes', 'Tidal streams')
  const document = async () =>
    (
      (await (await page.request.get(`${base()}/api/v1/plans/${plan}`)).json()) as {
        document: { places: { into: object; after: object } }
      }
    ).document.places
  await expect.poll(async () => Object.keys((await document()).into).length).toBe(2)
  await page.getByRole('tree').focus()
  await page.keyboard.press('Control+ArrowDown')
  await expect.poll(async () => Object.keys((await document()).after).length).toBe(2)
})
