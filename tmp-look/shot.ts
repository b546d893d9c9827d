import { readFileSync } from 'node:fs'
import { chromium } from '@playwright/test'
export async function open(login: string, password: string, size = { width: 1280, height: 800 }, dark = false) {
  const app = JSON.parse(readFileSync('/tmp/look.url', 'utf8'))
  const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu'] })
  const context = await browser.newContext({ viewport: size, timezoneId: 'America/Halifax', locale: 'en-CA', colorScheme: dark ? 'dark' : 'light' })
  const page = await context.newPage()
  page.on('console', m => { if (m.type() === 'error') console.log('console', m.text()) })
  page.on('pageerror', e => console.log('pageerror', e.message))
  await page.request.post(app.url + '/api/v1/session', { data: { login, password } })
  await page.goto(app.url)
  return { page, browser, app, shot: (name: string) => page.screenshot({ path: `/tmp/${name}.png` }) }
}
export async function step(page: any, code: string) {
  const base = new URL(page.url()).origin
  const rows = (await (await page.request.get(base + '/api/v1/courses')).json()).courses
  const id = (term: string) => rows.find((c: any) => c.code === code && c.term.name === term).id
  const plan = (await (await page.request.post(base + '/api/v1/plans', { data: { sources: [id('Autumn 2026')], target: id('Spring 2027') } })).json()).id
  await page.goto(`${base}/plans/${plan}/carry`)
  await page.waitForTimeout(1200)
}
