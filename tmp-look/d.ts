import { open, step } from './shot'
async function main() {
  { const { page, browser, shot, app } = await open('sorrel', 'warm-proof', { width: 1280, height: 800 }, true)
  await step(page, 'WVG 201')
  await page.getByRole('treeitem', { name: /How close the threads stand/ }).first().click()
  await page.waitForTimeout(700); await shot('n1')
  await page.getByRole('link', { name: 'Open the grade rules' }).click(); await page.waitForTimeout(900)
  await page.goto(app.url); await step(page, 'ORN 130'); await page.getByRole('link', { name: 'Open the grade rules' }).click(); await page.waitForTimeout(1000); await shot('n2')
  await browser.close() }
  { const { page, browser, shot, app } = await open('sorrel', 'warm-proof', { width: 390, height: 800 })
  await step(page, 'WVG 201')
  await page.waitForTimeout(500); await shot('m1')
  await page.getByRole('treeitem', { name: /How close the threads stand/ }).first().click()
  await page.waitForTimeout(500); await page.getByRole('region', { name: 'Selected' }).scrollIntoViewIfNeeded(); await page.waitForTimeout(400); await shot('m2')
  await page.goto(page.url().replace('/carry', '/grades')); await page.waitForTimeout(1200); await shot('m3')
  await browser.close() }
  { const { page, browser, shot, app } = await open('sorrel', 'warm-proof')
  const rows = (await (await page.request.get(app.url + '/api/v1/courses')).json()).courses
  const id = (code: string, term: string) => rows.find((c: any) => c.code === code && c.term.name === term).id
  const plan = (await (await page.request.post(app.url + '/api/v1/plans', { data: { sources: [id('WVG 201', 'Autumn 2026'), id('BKG 115', 'Autumn 2026')], target: id('WVG 201', 'Spring 2027') } })).json()).id
  await page.goto(`${app.url}/plans/${plan}/carry`); await page.waitForTimeout(1200)
  await page.getByRole('button', { name: 'Fold all units' }).click(); await page.waitForTimeout(400); await shot('s1')
  // a save that fails
  await page.route('**/api/v1/plans/*', route => route.request().method() === 'PUT' ? route.abort() : route.continue())
  await page.goto(`${app.url}/plans/${plan}/grades`); await page.waitForTimeout(900)
  await page.getByRole('button', { name: 'Make them 100' }).click().catch(() => {})
  await page.waitForTimeout(2500); await shot('s2')
  await browser.close() }
}
void main()
