import { open, step } from './shot'
async function main() {
  const { page, browser, shot } = await open('sorrel', 'warm-proof')
  await step(page, 'WVG 201')
  await page.getByRole('treeitem', { name: /Reading a draft/ }).first().click()
  await page.getByRole('combobox', { name: 'What else goes into this place' }).press('Enter'); await page.waitForTimeout(400)
  await page.getByRole('option', { name: /What is it for/ }).click(); await page.waitForTimeout(200)
  await page.keyboard.press('Escape')
  await page.waitForTimeout(600); await shot('l1')
  await page.getByRole('treeitem', { name: /What is it for/ }).first().click(); await page.waitForTimeout(600); await shot('l2')
  await page.getByRole('treeitem', { name: /Plain weave/ }).first().click(); await page.waitForTimeout(600)
  await shot('l3')
  await browser.close()
}
void main()
