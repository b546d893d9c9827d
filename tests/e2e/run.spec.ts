import type { Page } from '@playwright/test'
import { present } from '../../core/present'
import { newId } from '../../server/db/rows'
import { base, begin, courseId, expect, inDatabase, isRun, mailbox, roll, signIn, test } from './support'

// Runs off the page: left and come back to, stopped, undone and put back.

interface Planned {
  plan: string
  shell: string
}
async function atRun(page: Page): Promise<Planned> {
  await signIn(page)
  const shell = await courseId(page.request, 'HYD 240-01', 'Spring 2027')
  const plan = await begin(page.request, await courseId(page.request, 'HYD 240-01', 'Autumn 2026'), shell)
  await page.goto(`${base()}/plans/${plan}/run`)
  return { plan, shell }
}
async function pressRun(page: Page): Promise<void> {
  await page.getByText('I have seen what changes in HYD 240-01').click()
  await page.getByRole('button', { name: 'Run into HYD 240-01' }).click()
}
/** Keeps a run into a shell at its last write while something is done: as a long copy would. */
async function whileWriting(shell: string, work: () => Promise<void>): Promise<void> {
  await inDatabase(async db => {
    const held = await db.transaction()
    // The run wants to write this row too, and waits.
    await held.raw("INSERT INTO carried_bases (course_id, bases) VALUES (?, '')", [shell])
    try {
      await work()
    } finally {
      await held.rollback()
    }
  })
}
const itemsIn = async (page: Page, shell: string): Promise<number> => {
  const reply = await page.request.get(`${base()}/api/v1/courses/${shell}`)
  return ((await reply.json()) as { course: { items: number } }).course.items
}
const firstRow = (page: Page) => page.getByRole('article', { name: /^HYD 240-01/ }).first()

test('one leaves the page of a run and comes back; others see how far it is; a mail says that it is done', async ({
  page,
}) => {
  const { plan, shell } = await atRun(page)
  await whileWriting(shell, async () => {
    await pressRun(page)
    await expect(page.getByRole('heading', { name: 'Running into HYD 240-01' })).toBeVisible()
    await expect(page.getByRole('progressbar', { name: 'How far the run is' })).toBeVisible()
    await expect(page.getByText(/^Writing: [\d,]+ of [\d,]+ things\.$/)).toBeVisible()
    await expect(page.getByText('mails you when it is done')).toBeVisible()
    await page.goto(base())
    await expect(firstRow(page)).toContainText('I. Marchetti runs into it since 20:00')
    await expect(firstRow(page)).toContainText('Writing:')
    await page.goto(`${base()}/courses/${shell}?view=read`)
    await expect(page.getByText('runs into it since')).toBeVisible()
    expect(await itemsIn(page, shell)).toBe(0)
    await page.getByRole('link', { name: 'Show the run' }).click()
    await expect(page.getByRole('heading', { name: 'Running into HYD 240-01' })).toBeVisible()
    // Whoever presses again in another window has asked once.
    expect(
      (
        await page.request.post(`${base()}/api/v1/plans/${plan}/run`, { data: { fingerprint: 'x' } })
      ).status(),
    ).toBe(200)
  })
  await expect(page.getByRole('heading', { name: 'HYD 240-01 is filled.' })).toBeVisible()
  await isRun(page.request, plan)
  expect(await itemsIn(page, shell)).toBe(98)
  await expect
    .poll(async () => JSON.stringify(await (await fetch(`${mailbox()}/letters.json`)).json()), {
      timeout: 20_000,
    })
    .toContain('HYD 240-01 is filled')
  await page.goto(base())
  await expect(firstRow(page)).toContainText('Rolled')
})

test('a run is stopped before it is written, and asked for again', async ({ page }) => {
  const { shell } = await atRun(page)
  await whileWriting(shell, async () => {
    await pressRun(page)
    await page.getByRole('button', { name: 'Stop this run' }).click()
    await expect(page.getByRole('heading', { name: 'Somebody stopped this run' })).toBeVisible()
  })
  await expect(page.getByText('Adds 98 items in 7 units.')).toBeVisible()
  expect(await itemsIn(page, shell)).toBe(0)
  await pressRun(page)
  await expect(page.getByRole('heading', { name: 'HYD 240-01 is filled.' })).toBeVisible()
  expect(await itemsIn(page, shell)).toBe(98)
})

test('a run is undone and put back; students’ work is named and kept aside, or nothing is undone', async ({
  page,
}) => {
  const { plan, shell } = await atRun(page)
  await pressRun(page)
  await page.getByRole('link', { name: 'Undo this run' }).click()
  await expect(page.getByText('Once the run is undone it holds nothing, as before.')).toBeVisible()
  await expect(page.getByText('Nobody changed the course')).toBeVisible()
  await page.getByRole('button', { name: 'Undo the run into HYD 240-01' }).click()
  await expect(page.getByRole('heading', { name: 'This plan was run, and the run was undone' })).toBeVisible()
  expect(await itemsIn(page, shell)).toBe(0)
  await page.getByRole('link', { name: 'put that run back' }).click()
  await page.getByRole('button', { name: 'Put back the run into HYD 240-01' }).click()
  await expect(page.getByRole('heading', { name: 'HYD 240-01 is filled.' })).toBeVisible()
  expect(await itemsIn(page, shell)).toBe(98)
  // A student finishes something.
  await inDatabase(async db => {
    const student = present(await db('enrolments').where({ course_id: shell, role: 'student' }).first())
    const item = present(await db('items').where({ course_id: shell, title: 'Lab sheet 1' }).first())
    await db('submissions').insert({
      id: newId(),
      enrolment_id: student.id,
      item_lineage: item.lineage,
      submitted_at: '2027-01-05 22:00:00.000',
    })
  })
  await page.getByRole('link', { name: 'Undo this run' }).click()
  const button = page.getByRole('button', { name: 'Undo the run into HYD 240-01' })
  await expect(page.getByText('1 item that goes has students’ work')).toBeVisible()
  await expect(page.getByText('Lab sheet 1: 1 submission')).toBeVisible()
  await expect(button).toBeDisabled()
  await page.getByText('Keep their work aside for 90 days').click()
  await button.click()
  await expect(page.getByRole('heading', { name: 'This plan was run, and the run was undone' })).toBeVisible()
  await page.goto(`${base()}/courses/${shell}?view=read`)
  await expect(page.getByText('1 record')).toBeVisible()
  expect(await itemsIn(page, shell)).toBe(0)
  await page.goto(`${base()}/plans/${plan}/run`)
  await expect(page.getByText('Adds 98 items in 7 units.')).toBeVisible()
})

test('the record tells what was written, why, and what stayed behind, and is kept as JSON', async ({
  page,
}) => {
  await signIn(page)
  const shell = await courseId(page.request, 'HYD 240-01', 'Spring 2027')
  await roll(page.request, await courseId(page.request, 'HYD 240-01', 'Autumn 2026'), shell)
  await page.goto(`${base()}/courses/${shell}?view=read`)
  await page.getByRole('link', { name: 'Read the record' }).click()
  await expect(page.getByRole('row', { name: /Lab sheet 1/ }).first()).toContainText('Lab sheets')
  await page.getByText('Show why each date is where it is').click()
  await expect(page.getByText(/teaching week/).first()).toBeVisible()
  const download = page.waitForEvent('download')
  await page.getByRole('link', { name: 'JSON' }).click()
  expect((await download).suggestedFilename()).toBe('record HYD 240-01 Spring 2027.json')
})
