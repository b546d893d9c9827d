import { open, step } from './shot'
async function main() {
  const { page, browser, shot } = await open('sorrel', 'warm-proof')
  await step(page, 'WVG 201')
  await page.getByRole('treeitem', { name: /How close the threads stand/ }).first().click()
  await page.waitForTimeout(800)
  await shot('l1')
  const sel = page.getByRole('combobox', { name: 'How much of its text comes' })
  await sel.press('Enter'); await page.waitForTimeout(900); await shot('l2')
  await page.getByRole('option', { name: /A first square/ }).click()
  await page.waitForTimeout(500)
  await page.getByRole('combobox', { name: 'What else goes into this place' }).press('Enter'); await page.waitForTimeout(400)
  await shot('l3')
  await browser.close()
}
void main()
