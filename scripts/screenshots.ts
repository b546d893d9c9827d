// npm run screenshots : makes docs/screenshots from the demo, on a database and a server of its own. Wants a build (./start makes one).
import { mkdirSync, readFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import { addressFromEnvironment, connect } from '../server/db/connection'
import { startApp } from '../tests/support/app'
import { chromiumHere } from '../tests/support/chromium'
import { useServer } from '../tests/support/database'
import { editText } from '../tests/support/edits'
import { closureTable } from '../tests/support/samples'

const folder = fileURLToPath(new URL('../docs/screenshots/', import.meta.url))
mkdirSync(folder, { recursive: true })
/** Somebody edits last term's course, and somebody the shell: what the pages have no form for yet is written as they would. */
async function editedOnBothSides(): Promise<void> {
  const db = connect({ ...addressFromEnvironment(), database: app.database })
  const retitle = (term: string, from: string, to: string) =>
    db('items')
      .whereIn(
        'course_id',
        db('courses').join('terms', 'terms.id', 'term_id').where('terms.code', term).select('courses.id'),
      )
      .where({ title: from })
      .update({ title: to })
  await retitle('2026-autumn', 'Reading a sonogram', 'How to read a sonogram')
  await retitle('2027-spring', 'Routes and weather', 'Routes, as I teach them')
  await retitle('2026-autumn', 'Where is your patch?', 'Which is your patch?')
  await retitle('2027-spring', 'Where is your patch?', 'Your patch, please')
  const bird = async (term: string): Promise<string> => {
    const found = await db('courses')
      .join('terms', 'terms.id', 'term_id')
      .where({ 'terms.code': term, 'courses.code': 'ORN 130' })
      .first('courses.id')
    return found?.id ?? ''
  }
  const added = (words: string) => (html: string) => html.replace('</body>', `<p>${words}</p></body>`)
  await editText(db, await bird('2026-autumn'), 'Binoculars, and how to hold them', html =>
    added('Set the left eye first, then the right.')(
      html.replace('</h1>', '</h1><p>Borrow a pair before you buy one.</p>'),
    ),
  )
  await editText(
    db,
    await bird('2027-spring'),
    'Binoculars, and how to hold them',
    added('I bring six pairs on the first morning.'),
  )
  await db.destroy()
}
const stopServer = useServer()
const app = await startApp('northtide_screenshots')
const browser = await chromium.launch(chromiumHere)
try {
  const page = await (
    await browser.newContext({
      viewport: { width: 1280, height: 800 },
      timezoneId: 'America/Halifax',
      locale: 'en-CA',
    })
  ).newPage()
  const signIn = async (name: string, password: string): Promise<void> => {
    await page.getByLabel('Name', { exact: true }).fill(name)
    await page.getByLabel('Password').fill(password)
    await page.getByRole('button', { name: 'Sign in' }).click()
    await page.getByRole('heading', { name: 'Shells' }).waitFor()
  }
  const signInAs = async (name: string, password: string, leaving: string): Promise<void> => {
    await page.getByRole('button', { name: leaving }).click()
    await page.getByRole('button', { name: 'Sign out' }).click()
    await signIn(name, password)
  }
  const shot = async (name: string): Promise<void> => {
    await page.mouse.move(640, 790)
    await page.waitForTimeout(500)
    await page.screenshot({ path: `${folder}${name}.png` })
    console.error(`${name}.png`)
  }
  /** The Date stage where sixteen weeks become seven: the crossing, what is to settle, and crowded days. */
  const summerDates = async (): Promise<void> => {
    const reply = await page.request.get(`${app.url}/api/v1/courses`)
    const all = (await reply.json()) as {
      courses: { id: string; code: string; section: string; term: { name: string } }[]
    }
    const id = (code: string, term: string) =>
      all.courses.find(each => each.code === code && each.section === '01' && each.term.name === term)?.id
    const data = { sources: [id('HYD 240', 'Autumn 2026')], target: id('HYD 235', 'Summer 2027') }
    const begun = await page.request.post(`${app.url}/api/v1/plans`, { data })
    const plan = ((await begun.json()) as { id: string }).id
    await page.goto(`${app.url}/plans/${plan}/date`)
    await page.getByText('suggested').waitFor()
    await page.keyboard.press('s')
    await page.keyboard.press('n')
    await page.getByRole('group', { name: 'Settle it' }).waitFor()
    await shot('settle')
    await page.keyboard.press('s')
    // It begins with the better way; here that is laid over the usual one.
    await page.getByRole('button', { name: 'Move dates by “Same week and weekday”' }).click()
    await page.getByRole('button', { name: /^Lay Stretched/ }).click()
    await page.locator('.thread', { hasText: 'Soundings project' }).first().dispatchEvent('click')
    await page.locator('.note', { hasText: 'Soundings project' }).waitFor()
    await shot('date')
    await page.keyboard.press('c')
    await page.getByRole('heading', { name: /^Ease would move/ }).waitFor()
    await shot('ease')
  }
  await page.goto(`${app.url}/sign-in`)
  // The office tries every shell of the term. The drafts that this makes are discarded again.
  await signIn('ellwood', 'chart-datum')
  await page.getByRole('link', { name: 'Batches' }).click()
  await page.getByRole('button', { name: 'Try every pair' }).click()
  await page.getByText('Dry run done').waitFor()
  await shot('batch')
  await page.getByRole('button', { name: 'Discard this batch' }).click()
  await page.getByRole('button', { name: 'Discard the batch and the drafts it made' }).click()
  await page.getByText('No batch has been made yet').waitFor()
  await signInAs('marchetti', 'slack-water', 'M. Ellwood')
  // The registrar has had news: a shell, people, a class on other days.
  await fetch(`${app.registrar}/control`, { method: 'POST', body: new URLSearchParams({ step: '2' }) })
  await page.goto(`${app.url}/registrar`)
  await page.getByRole('button', { name: 'Check the registrar now' }).click()
  await page.getByText('brought changes').waitFor()
  await shot('registrar')
  await page.goto(app.url)
  await page.getByText('Registrar: meets').waitFor()
  await shot('shells')
  // Ways in: a template that was made from the old course, a share code, the same course in place, a shell that is asked for.
  await page.goto(app.url)
  await page.getByRole('button', { name: /^Past/ }).click()
  await page
    .getByRole('link', { name: /HYD 240-01/ })
    .first()
    .click()
  for (const [name, subject, arrangement] of [
    ['Tides, unit by unit', 'Hydrography', 'by unit'],
    ['A term on the water', 'Fieldwork', 'by week'],
  ] as const) {
    await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
    await page.getByLabel('Name', { exact: true }).first().fill(name)
    await page.getByLabel('Subject').first().fill(subject)
    await page.locator('.el-select', { has: page.getByLabel('Arranged', { exact: true }) }).click()
    await page
      .locator('.el-select-dropdown__item', { hasText: arrangement })
      .filter({ visible: true })
      .click()
    await page.getByRole('button', { name: 'Keep it on the shelf' }).click()
    await page.getByText('It is on the shelf.').waitFor()
  }
  await page.goto(`${app.url}/shelf`)
  await page.getByRole('button', { name: 'Show its versions' }).first().click()
  await page.getByLabel('What changes with the next version').fill('a shorter second unit')
  await page.getByRole('button', { name: 'Keep it as version 1 and go on' }).click()
  await page.getByText('Version 1', { exact: true }).waitFor()
  await shot('shelf')
  await page.goto(app.url)
  await page
    .locator('article.shell[aria-label^="HYD 310-01"]')
    .getByRole('link', { name: /See other ways|Choose a source/ })
    .first()
    .click()
  await page.getByRole('link', { name: 'A template' }).click()
  await page.getByText('Plan from this template').first().waitFor()
  await page.getByRole('link', { name: 'A share code' }).click()
  await page.getByLabel('Share code').fill('K7QM-4TXB')
  await page.getByRole('button', { name: 'Open it and plan' }).click()
  await page.getByRole('alert').waitFor()
  await page.goto(`${app.url}/no-shell?way=place`)
  await page.getByLabel('Find the course to use again').fill('autumn')
  await page
    .locator('.choice li', { hasText: 'Autumn 2026' })
    .getByRole('button', { name: 'Use this course again' })
    .click()
  await page.getByRole('button', { name: /in place$/ }).click()
  await page.getByText('As it will be').waitFor()
  await page.goto(app.url)
  await page
    .locator('article.shell[aria-label^="HYD 240-02"]')
    .getByRole('button', { name: 'Go step by step' })
    .click()
  await page.getByText('Rolls from').waitFor()
  await page.getByRole('button', { name: 'Add a source' }).click()
  await page.getByLabel('Find a course to add as a source').fill('240-01')
  await page
    .locator('.choice li', { hasText: 'Spring 2027' })
    .waitFor({ timeout: 3000 })
    .catch(() => {})
  await page.getByRole('button', { name: 'Cancel' }).click()
  await shot('pair')
  await page.goto(app.url)
  await page
    .locator('article.shell[aria-label^="HYD 240-01"]')
    .getByRole('button', { name: 'Go step by step' })
    .click()
  await page.getByText('Rolls from').waitFor()
  for (const [name, ready] of [
    ['carry', 'Add something new'],
    ['clear', 'records about students stay behind'],
    ['date', 'How dates cross'],
  ] as const) {
    await page.getByRole('link', { name: new RegExp(`^On to ${name}`, 'i') }).click()
    await page.getByRole('heading', { name: ready }).waitFor()
    if (name === 'date') {
      await page.locator('.thread', { hasText: 'Soundings project' }).dispatchEvent('click')
      await page.locator('.note', { hasText: 'Soundings project' }).waitFor()
    }
    // Clear is shown of a course in which students stand, dates of two terms that differ in length.
    if (name === 'carry') await shot(name)
  }
  const spring = page.url()
  await summerDates()
  await page.goto(spring)
  await page.getByRole('link', { name: /^On to Run/ }).click()
  await page.getByText('Adds 98 items').waitFor()
  await page.getByText('I have seen what changes').click()
  await shot('run')
  await page.getByRole('button', { name: /^Run into/ }).click()
  await page.getByText('The audit found nothing').waitFor()
  await page.getByRole('link', { name: 'Read the record of the run' }).click()
  await page.getByRole('heading', { name: /Audit/ }).waitFor()
  await shot('record')
  await page.getByRole('link', { name: 'the shell' }).click()
  // One goes on in it: a date is moved by a day.
  await page.locator('[data-item="Lab sheet 1"]').click()
  for (const key of ['ArrowRight', 'ArrowRight', ']']) await page.keyboard.press(key)
  await page.getByRole('heading', { name: 'Changed since the run' }).waitFor()
  await shot('rolled-shell')
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await page.getByRole('link', { name: 'The two bulges' }).click()
  await page.locator('.content img').waitFor()

  const bring = async (name: string, buffer: Buffer, ready: string): Promise<void> => {
    await page.goto(`${app.url}/files`)
    await page
      .locator('input[type=file]')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer })
    await page.getByText(ready).first().waitFor()
  }
  const demoFile = (name: string): Buffer => readFileSync(`demo/files/${name}`)
  await bring('port-ellery.oneroster.zip', demoFile('port-ellery.oneroster.zip'), 'Delete the file')
  const document = 'hyd-240-01-autumn-2026.course.json'
  await bring(document, demoFile(document), 'Delete the file')
  const sheet =
    'Item,Due,Points\nProblem set 1,2026-09-15 09:30,\nShore log 1,2026-09-18,12\nField notes,2026-10-02,\n'
  await bring('dates-as-taught.csv', Buffer.from(sheet), 'Delete the file')
  await bring(
    'hyd-240-01-autumn-2026.imscc',
    demoFile('hyd-240-01-autumn-2026.imscc'),
    'What your other files say',
  )
  await page.getByText('on which files disagree').waitFor()
  await shot('files')
  await signInAs('sorrel', 'warm-proof', 'I. Marchetti')
  const stepByStep = async (code: string): Promise<void> => {
    await page.goto(app.url)
    const shell = page.locator(`article.shell[aria-label^="${code}"]`)
    await shell.getByRole('button', { name: 'Go step by step' }).click()
    await page.getByText('Rolls from').waitFor()
    await page.getByRole('link', { name: /^On to Carry/ }).click()
    await page.locator('.place-line').first().waitFor()
  }
  await stepByStep('WVG 201-01')
  await page.locator('.place-line', { hasText: 'What is it for?' }).click()
  await page.getByRole('combobox', { name: 'What it meets in the shell' }).click()
  await page
    .locator('.el-select-dropdown__item', { hasText: 'Welcome to the loom room' })
    .filter({ visible: true })
    .click()
  await page.locator('.place-line', { hasText: 'What is it for?' }).first().click()
  await page.locator('.compare del').first().waitFor()
  await shot('places')
  await page.getByRole('link', { name: 'Find elsewhere' }).click()
  await page.getByLabel('Find items in all courses by their words').fill('at night steer')
  await page.getByRole('checkbox', { name: 'Question 2' }).waitFor({ state: 'attached' })
  await page.locator('label', { has: page.getByRole('checkbox', { name: 'Question 2' }) }).click()
  await page.getByRole('button', { name: 'Take 4 questions into the plan' }).waitFor()
  await shot('find')
  await stepByStep('ORN 130-01')
  await page.getByRole('link', { name: 'Open the grade rules' }).click()
  await page.getByRole('button', { name: 'Make them 100' }).click()
  await page.getByText('The weights make 100.').waitFor()
  await page
    .getByRole('button', { name: /^Show 2 items/ })
    .first()
    .click()
  await shot('grade-rules')
  // Run, then edited on both sides: what a second run proposes.
  await page.getByRole('link', { name: /^Run/ }).click()
  await page.getByText('I have seen what changes').click()
  await page.getByRole('button', { name: /^Run into/ }).click()
  await page.getByText('The audit found nothing').waitFor()
  await editedOnBothSides()
  const known = await page.request.get(`${app.url}/api/v1/courses`)
  const { courses } = (await known.json()) as {
    courses: { id: string; code: string; term: { name: string } }[]
  }
  const bird = (term: string) => courses.find(each => each.code === 'ORN 130' && each.term.name === term)?.id
  const data = { sources: [bird('Autumn 2026')], target: bird('Spring 2027') }
  const begun = await page.request.post(`${app.url}/api/v1/plans`, { data })
  await page.goto(`${app.url}/plans/${((await begun.json()) as { id: string }).id}/carry`)
  await page.locator('.place-line', { hasText: 'Binoculars' }).click()
  await page.getByRole('button', { name: 'Compare the text by passages' }).click()
  await page.getByText('changed in both').waitFor()
  await shot('again')
  const bread = courses.find(each => each.code === 'BKG 115')?.id
  const other = { sources: [bread], target: bird('Spring 2027') }
  const online = await page.request.post(`${app.url}/api/v1/plans`, { data: other })
  await page.goto(`${app.url}/plans/${((await online.json()) as { id: string }).id}/worth`)
  await page.getByRole('heading', { name: 'Of another year' }).waitFor()
  await shot('worth')
  await signInAs('corrigall', 'fog-signal', 'P. Sorrel')
  const lights = (term: string) =>
    courses.find(each => each.code === 'LTH 220' && each.term.name === term)?.id
  const own = (await (await page.request.get(`${app.url}/api/v1/courses`)).json()) as {
    courses: typeof courses
  }
  courses.push(...own.courses)
  const traced = await page.request.post(`${app.url}/api/v1/plans`, {
    data: { sources: [lights('Autumn 2026')], target: lights('Spring 2027') },
  })
  await page.goto(`${app.url}/plans/${((await traced.json()) as { id: string }).id}/clear`)
  await page.getByText('to settle').first().waitFor()
  await page.keyboard.press('n')
  await page.getByText('a family name alone').waitFor()
  await shot('clear')
  await signInAs('ellwood', 'chart-datum', 'H. Corrigall')
  await bring('closures.csv', closureTable(), 'What its columns mean')
} finally {
  await browser.close()
  await app.stop()
  stopServer()
}
