// npm run screenshots : makes docs/screenshots from the demo, on a database and a server of its own. Wants a build (./start makes one).
import { mkdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { chromium } from '@playwright/test'
import { startApp } from '../tests/support/app'
import { useServer } from '../tests/support/database'

const folder = fileURLToPath(new URL('../docs/screenshots/', import.meta.url))
mkdirSync(folder, { recursive: true })
const stopServer = useServer()
const app = await startApp('northtide_screenshots')
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'] })
try {
  const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 }, timezoneId: 'America/Halifax', locale: 'en-CA' })).newPage()
  const shot = async (name: string): Promise<void> => {
    await page.mouse.move(640, 790)
    await page.waitForTimeout(500)
    await page.screenshot({ path: `${folder}${name}.png` })
    console.error(`${name}.png`)
  }
  await page.goto(`${app.url}/sign-in`)
  await shot('sign-in')
  await page.getByLabel('Name').fill('marchetti')
  await page.getByLabel('Password').fill('slack-water')
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('heading', { name: 'Shells' }).waitFor()
  await shot('shells')
  await page.getByRole('button', { name: 'Plan from this' }).first().click()
  await page.getByText('Rolls from').waitFor()
  await shot('pair')
  for (const [name, ready] of [['carry', 'What comes across'], ['clear', 'Nothing about students crosses.'], ['date', 'How dates cross']] as const) {
    await page.getByRole('link', { name: new RegExp(`^On to ${name}`, 'i') }).click()
    await page.getByRole('heading', { name: ready }).waitFor()
    if (name === 'date') {
      await page.locator('.thread', { hasText: 'Soundings project' }).dispatchEvent('click')
      await page.locator('.note', { hasText: 'Soundings project' }).waitFor()
    }
    await shot(name)
  }
  await page.getByRole('link', { name: /^On to Run/ }).click()
  await page.getByText('Adds 98 items').waitFor()
  await page.getByText('I have seen what changes').click()
  await shot('run')
  await page.getByRole('button', { name: /^Run into/ }).click()
  await page.getByText('The audit found nothing').waitFor()
  await shot('done')
  await page.getByRole('link', { name: 'Read the record of the run' }).click()
  await page.getByRole('heading', { name: /Audit/ }).waitFor()
  await shot('record')
  await page.getByRole('link', { name: 'the shell' }).click()
  await page.getByText('Students’ work here').waitFor()
  await shot('rolled-shell')
  await page.getByRole('link', { name: 'The two bulges' }).click()
  await page.locator('.content img').waitFor()
  await shot('page')
}
finally {
  await browser.close()
  await app.stop()
  stopServer()
}
