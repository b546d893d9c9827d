// npm run bench:page : how soon Carry paints its ledger and takes a unit, and the Date stage shows new dates, with 2 000 items, in Chromium on the built application.
import type { Page } from '@playwright/test'
import { median, withLargePlan } from './large-plan'

/** Milliseconds from asking for Carry (key 2) to the frame in which its ledger stands, and from ticking a unit to the frame that shows it. */
async function carry(page: Page): Promise<string> {
  const painted: number[] = []
  for (let round = 0; round < 5; round++) {
    await page.keyboard.press('4')
    await page.locator('.ledger [data-field=due]').first().waitFor()
    painted.push(
      await page.evaluate(async () => {
        const start = performance.now()
        document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '2', bubbles: true }))
        while (!document.querySelector('.place-line')) await new Promise(requestAnimationFrame)
        await new Promise(requestAnimationFrame)
        return performance.now() - start
      }),
    )
  }
  // From the press until the page holds the new counts; painting them takes the frame that follows.
  const ticked = await page.evaluate(async () => {
    const times: number[] = []
    for (let round = 0; round < 10; round++) {
      const unit = document.querySelector('.place-line.unit')!
      const before = unit.querySelector('.small')!.textContent
      const start = performance.now()
      unit.querySelector<HTMLElement>('.el-checkbox')!.click()
      for (let turn = 0; turn < 200 && unit.querySelector('.small')!.textContent === before; turn++)
        await null
      while (unit.querySelector('.small')!.textContent === before && performance.now() - start < 5000)
        await new Promise(requestAnimationFrame)
      times.push(performance.now() - start)
      await new Promise(resolve => setTimeout(resolve, 400))
    }
    return times
  })
  const worst = Math.max(...ticked).toFixed(0)
  return `Carry with 2 000 items: ledger painted ${median(painted).toFixed(0)} ms after it was asked for (median of 5, worst ${Math.max(...painted).toFixed(0)} ms); a unit of 100 chosen in ${median(ticked).toFixed(0)} ms (median of 10, worst ${worst} ms)`
}
/** Milliseconds from pressing a method to the frame in which the ledger shows other dates, and the longest the page was busy meanwhile. */
const change = (page: Page, label: string): Promise<{ shown: number; busy: number }> =>
  page.evaluate(async text => {
    const before = document.querySelector('.ledger [data-field=due]')!.textContent
    let busy = 0
    const watcher = new PerformanceObserver(list => {
      for (const entry of list.getEntries()) busy = Math.max(busy, entry.duration)
    })
    watcher.observe({ type: 'longtask' })
    const radio = [...document.querySelectorAll('.el-radio')].find(each => each.textContent.trim() === text)!
    const start = performance.now()
    ;(radio as HTMLElement).click()
    while (
      document.querySelector('.ledger [data-field=due]')!.textContent === before &&
      performance.now() - start < 5000
    )
      await new Promise(requestAnimationFrame)
    const shown = performance.now() - start
    await new Promise(resolve => setTimeout(resolve, 300))
    watcher.disconnect()
    return { shown, busy }
  }, label)

await withLargePlan(async page => {
  console.log(await carry(page))
  await page.keyboard.press('4')
  await page.locator('.ledger [data-field=due]').first().waitFor()
  const results: { shown: number; busy: number }[] = []
  for (let round = 0; round < 10; round++)
    for (const label of ['No dates', 'Same week and weekday']) results.push(await change(page, label))
  console.log(
    `2 000 items, 6 000 dates: new dates shown ${median(results.map(each => each.shown)).toFixed(0)} ms after the rule is changed (median of ${results.length}, worst ${Math.max(...results.map(each => each.shown)).toFixed(0)} ms); longest the page was busy: median ${median(results.map(each => each.busy)).toFixed(0)} ms`,
  )
})
