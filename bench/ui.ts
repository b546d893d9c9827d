// npm run bench:ui : the Date stage with 2 000 items, 6 000 dates, in Chromium on the built application.
import type { CDPSession, Page } from '@playwright/test'
import { median, withLargePlan } from './large-plan'

const line = (what: string, is: string): void => console.log(`${what.padEnd(58)} ${is}`)
const ms = (value: number): string => `${value.toFixed(0)} ms`
const spread = (values: number[]): string =>
  `${ms(median(values))} (median of ${values.length}, worst ${ms(Math.max(...values))})`

/** From asking for the stage until its ledger and its crossing are painted. */
async function firstPaint(page: Page): Promise<number[]> {
  const times: number[] = []
  for (let round = 0; round < 5; round++) {
    await page.keyboard.press('2')
    await page.locator('.place-line').first().waitFor()
    times.push(
      await page.evaluate(async () => {
        const start = performance.now()
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '4', bubbles: true }))
        const isThere = () =>
          document.querySelector('.ledger [data-field=due]') && document.querySelector('.crossing svg path')
        while (!isThere()) await new Promise(requestAnimationFrame)
        await new Promise(requestAnimationFrame)
        return performance.now() - start
      }),
    )
  }
  return times
}
/** From choosing another rule to the frame in which the ledger shows other dates. */
async function ruleToLedger(page: Page): Promise<number[]> {
  const times: number[] = []
  for (let round = 0; round < 16; round++)
    times.push(
      await page.evaluate(
        async text => {
          const due = () => document.querySelector('.ledger [data-field=due]')!.textContent
          const before = due()
          const radio = [...document.querySelectorAll<HTMLElement>('.el-radio')].find(
            each => each.textContent.trim() === text,
          )!
          const start = performance.now()
          radio.click()
          while (due() === before && performance.now() - start < 5000)
            await new Promise(requestAnimationFrame)
          const shown = performance.now() - start
          await new Promise(resolve => setTimeout(resolve, 500))
          return shown
        },
        ['No dates', 'Same week and weekday'][round % 2]!,
      ),
    )
  return times
}
/** Frames a second while the pointer drags something along the new term's line, one move a frame. */
const frames = (page: Page, from: { x: number; y: number }): Promise<number> =>
  page.evaluate(async ({ x, y }) => {
    const tell = (type: string, at: number, target: EventTarget) =>
      target.dispatchEvent(
        new PointerEvent(type, { bubbles: true, clientX: at, clientY: y, button: 0, pointerId: 1 }),
      )
    tell('pointerdown', x, document.elementFromPoint(x, y)!)
    const [start, count] = [performance.now(), 120]
    for (let n = 0; n < count; n++) {
      tell('pointermove', x + 4 * (n % 100), document)
      await new Promise(requestAnimationFrame)
    }
    const rate = (1000 * count) / (performance.now() - start)
    tell('pointercancel', x, document)
    return rate
  }, from)
/** From letting go after a sweep over the whole of the lower line to the frame that shows all of it chosen. */
const sweep = (page: Page): Promise<number> =>
  page.evaluate(async () => {
    const box = document.querySelector('.crossing svg')!.getBoundingClientRect()
    const y = box.top + 176
    const tell = (type: string, at: number, target: EventTarget) =>
      target.dispatchEvent(
        new PointerEvent(type, { bubbles: true, clientX: at, clientY: y, button: 0, pointerId: 1 }),
      )
    tell('pointerdown', box.left + 104, document.querySelector('.crossing svg .ground')!)
    tell('pointermove', box.right, document)
    await new Promise(requestAnimationFrame)
    const start = performance.now()
    tell('pointerup', box.right, document)
    while (!document.querySelector('[aria-label="Chosen items"]')) await new Promise(requestAnimationFrame)
    return performance.now() - start
  })
/** From a letter in the field that finds items to the frame that shows what is found. */
async function typing(page: Page): Promise<number[]> {
  const times: number[] = []
  const field = page.getByLabel('Find items by their words')
  for (const text of ['W', 'Wo', 'Wor', 'Work', 'Work 1', 'Work 12', 'Work 123', '', 'Unit 1', '']) {
    times.push(
      await field.evaluate(async (element, typed) => {
        const input = element as HTMLInputElement
        const start = performance.now()
        input.value = typed
        input.dispatchEvent(new InputEvent('input', { bubbles: true }))
        await new Promise(requestAnimationFrame)
        await new Promise(resolve => setTimeout(resolve, 0))
        return performance.now() - start
      }, text),
    )
    await page.waitForTimeout(150)
  }
  return times
}
/** Bytes of the page's heap, after the collector has been through. */
async function heap(session: CDPSession): Promise<number> {
  await session.send('HeapProfiler.collectGarbage')
  const { usedSize } = await session.send('Runtime.getHeapUsage')
  return usedSize
}
/** A thousand moves by a day and back, each a step that can be gone back. */
async function changes(page: Page, count: number): Promise<void> {
  await page.evaluate(async n => {
    for (let at = 0; at < n; at++) {
      document.body.dispatchEvent(
        new KeyboardEvent('keydown', { key: at % 2 === 0 ? ']' : '[', bubbles: true }),
      )
      await new Promise(requestAnimationFrame)
    }
  }, count)
  await page.waitForTimeout(1500)
}

await withLargePlan(async page => {
  line('first paint of the stage (aim 1 000 ms)', spread(await firstPaint(page)))
  await page.locator('.ledger [data-field=due]').first().waitFor()
  line('rule to painted ledger (aim 50 ms)', spread(await ruleToLedger(page)))
  const box = (await page.locator('.crossing svg').boundingBox())!
  line('letter to found items (aim 30 ms)', spread(await typing(page)))
  line(
    'sweeping, frames a second (aim 55)',
    (await frames(page, { x: box.x + 130, y: box.y + 176 })).toFixed(0),
  )
  for (let n = 0; n < 8; n++) await page.keyboard.press('+')
  const mark = (await page.locator('.thread .end').first().boundingBox())!
  const middle = { x: mark.x + mark.width / 2, y: mark.y + mark.height / 2 }
  line('dragging a mark, frames a second (aim 55)', (await frames(page, middle)).toFixed(0))
  await page.keyboard.press('0')
  await page.waitForTimeout(300)
  const swept: number[] = []
  for (let round = 0; round < 7; round++) {
    swept.push(await sweep(page))
    await page.keyboard.press('Escape')
    await page.waitForTimeout(300)
  }
  line('a sweep over all marks to the chosen rows (aim 50 ms)', spread(swept))
  await page.locator('.ledger-row').first().click()
  const session = await page.context().newCDPSession(page)
  // What is kept of steps and computed once is there after some hundred of them.
  await changes(page, 400)
  const before = await heap(session)
  await changes(page, 1000)
  const after = await heap(session)
  const MiB = 1024 * 1024
  line(
    'heap before and after 1 000 changes (aim: no growth)',
    `${(before / MiB).toFixed(1)} and ${(after / MiB).toFixed(1)} MiB`,
  )
})
