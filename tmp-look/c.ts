import { open } from './shot'
import { connect } from '../server/db/connection'
import { editText } from '../tests/support/edits'
import { roll } from '../tests/e2e/support'
import { readFileSync } from 'node:fs'
async function main() {
  const { page, browser, app, shot } = await open('sorrel', 'warm-proof', { width: 1280, height: Number(process.env.H ?? 800) }, !!process.env.DARK)
  const rows = (await (await page.request.get(app.url + '/api/v1/courses')).json()).courses
  const id = (term: string) => rows.find((c: any) => c.code === 'ORN 130' && c.term.name === term).id
  const [old, shell] = [id('Autumn 2026'), id('Spring 2027')]
  const post = async (path: string, data: unknown) => (await page.request.post(app.url + '/api/v1' + path, { data })).json()
  if (!process.env.AGAIN) {
    const plan = (await post('/plans', { sources: [old], target: shell })).id
    const fp = (await (await page.request.get(app.url + `/api/v1/plans/${plan}/effect`)).json()).fingerprint
    console.log(await post(`/plans/${plan}/run`, { fingerprint: fp }))
    const db = connect({ host: app.env.DB_HOST, port: Number(app.env.DB_PORT), user: app.env.DB_USER, password: app.env.DB_PASSWORD, database: app.database })
    await editText(db, old, 'Routes and weather', h => { console.log(h); return h.replace('</h1>', '</h1><p>Take the early ferry.</p>').replace('</body>', '<h2>Where to stand</h2><p>Behind the hedge.</p></body>') })
    await editText(db, shell, 'Routes and weather', h => h.replace('</body>', '<p>I will be at the gate at six.</p></body>'))
    await db.destroy()
  }
  await page.goto(app.url)
  const plan = (await post('/plans', { sources: [old], target: shell })).id
  await page.goto(`${app.url}/plans/${plan}/carry`)
  await page.waitForTimeout(1500)
  await page.getByRole('treeitem', { name: /Routes and weather/ }).first().click()
  await page.waitForTimeout(600)
  await page.getByRole('button', { name: 'Compare the text by passages' }).click()
  await page.waitForTimeout(800)
  await shot('l1')
  await page.getByRole('radio', { name: 'Passage 2: take the old course’s' }).click({ force: true }).catch(e => console.log(e.message))
  await page.waitForTimeout(800)
  await shot('l2')
  await browser.close()
}
void main()
