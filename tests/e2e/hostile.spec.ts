import { createServer, type AddressInfo } from 'node:net'
import { chromium, type Page } from '@playwright/test'
import { itemXml, manifestOf, resourceXml, zipOfFiles } from '../support/archives'
import { hostileHtml } from '../support/hostile-html'
import { base, expect, signIn, test } from './support'

const escaped = (text: string): string =>
  text.replace(/[&<>"]/g, character => `&#${character.charCodeAt(0)};`).replace(/[\0\x01\x0C]/g, '')
const pages = Object.entries(hostileHtml)
const svg =
  '<svg xmlns="http://www.w3.org/2000/svg" onload="alert(1)"><script>alert(1)</script><image href="https://outside.example/a.png"/></svg>'
/** A package whose every page, topic, question and assignment is hostile. */
function hostileCourse(): Buffer {
  const files: Record<string, string> = {
    'picture.svg': svg,
    'link.xml':
      '<webLink xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imswl_v1p3"><title>L</title><url href="javascript:alert(1)"/></webLink>',
  }
  const all = pages.map(([, html]) => escaped(html)).join('\n')
  pages.forEach(([, html], at) => {
    files[`p${at}.html`] = html
  })
  files['topic.xml'] =
    `<topic xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3"><title>T &lt;img src=x onerror=alert(1)&gt;</title><text texttype="text/html">${all}</text></topic>`
  files['essay.xml'] =
    `<assignment xmlns="http://www.imsglobal.org/xsd/imscc_extensions/assignment"><title>E</title><text texttype="text/html">${all}</text><instructor_text texttype="text/html">${all}</instructor_text></assignment>`
  const material = `<material><mattext texttype="text/html">${all}</mattext></material>`
  files['quiz.xml'] =
    `<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="a" title="Q"><section ident="s"><item ident="q"><presentation>${material}<response_lid ident="r" rcardinality="Single"><render_choice><response_label ident="a">${material}</response_label></render_choice></response_lid></presentation><itemfeedback ident="f">${material}</itemfeedback></item></section></assessment></questestinterop>`
  const items = [
    ...pages.map(([name], at) => [`i${at}`, escaped(name), `r${at}`, 'webcontent', `p${at}.html`]),
    ['is', 'Picture', 'rs', 'webcontent', 'picture.svg'],
    ['il', 'Link &lt;script&gt;alert(1)&lt;/script&gt;', 'rl', 'imswl_xmlv1p3', 'link.xml'],
    ['it', 'Topic', 'rt', 'imsdt_xmlv1p3', 'topic.xml'],
    ['ie', 'Essay', 're', 'assignment_xmlv1p0', 'essay.xml'],
    ['iq', 'Quiz', 'rq', 'imsqti_xmlv1p2/imscc_xmlv1p3/assessment', 'quiz.xml'],
  ] as [string, string, string, string, string][]
  return zipOfFiles({
    ...files,
    'imsmanifest.xml': manifestOf(
      items.map(([id, title, ref]) => itemXml(id, title, '', ref)).join(''),
      items.map(([, , ref, type, href]) => resourceXml(ref, type, href)).join(''),
    ),
  })
}
/** Notes what runs in a page, and what it asks for beyond its own server. */
async function watched(page: Page): Promise<{ ran: string[]; left: string[] }> {
  const seen = { ran: [] as string[], left: [] as string[] }
  await page.exposeFunction('noteRun', (what: string) => {
    seen.ran.push(what)
  })
  await page.addInitScript(() => {
    window.alert = () => {
      ;(window as unknown as { noteRun: (what: string) => void }).noteRun('alert')
    }
  })
  page.on('dialog', dialog => {
    seen.ran.push('dialog')
    void dialog.dismiss()
  })
  page.on('request', request => {
    if (
      !/^(data|blob|about):/.test(request.url()) &&
      new URL(request.url()).origin !== new URL(base()).origin
    )
      seen.left.push(request.url())
  })
  page.on('popup', popup => void popup.close())
  return seen
}
const press = async (page: Page, id: string): Promise<void> => {
  await page
    .locator(id)
    .first()
    .click({ timeout: 500, noWaitAfter: true, force: true })
    .catch(() => {})
}

/** Stands for every server outside: a browser of its own is led here, and whoever connects has left. */
async function listening(): Promise<{ port: number; met: () => number; close: () => void }> {
  let met = 0
  const server = createServer(socket => {
    met++
    socket.destroy()
  }).listen(0, '127.0.0.1')
  await new Promise(resolve => server.once('listening', resolve))
  return { port: (server.address() as AddressInfo).port, met: () => met, close: () => server.close() }
}

test('shown as they came, most pages of the corpus run something or call outside', async ({ page }) => {
  test.setTimeout(180_000)
  const seen = await watched(page)
  let html = ''
  await page.route(
    url => url.hostname === 'outside.example',
    route => route.abort(),
  )
  await page.route(`${base()}/raw`, route =>
    route.fulfill({ contentType: 'text/html', body: `<!doctype html><body>${html}` }),
  )
  const harmless: string[] = []
  for (const [name, next] of pages) {
    html = next
    seen.ran.length = seen.left.length = 0
    await page.goto(`${base()}/raw`, { waitUntil: 'load', timeout: 5000 }).catch(() => {})
    if (
      (await page
        .locator('#press')
        .count()
        .catch(() => 0)) > 0
    )
      await press(page, '#press')
    await page.waitForTimeout(30)
    if (seen.ran.length + seen.left.length === 0) harmless.push(name)
    await page.goto('about:blank').catch(() => {})
  }
  console.log(
    `${pages.length - harmless.length} of ${pages.length} bite when shown raw; not in this browser: ${harmless.join('; ')}`,
  )
  expect(pages.length - harmless.length).toBeGreaterThan(70)
})

test('in the application nothing of the corpus runs and no request leaves', async ({
  launchOptions,
  viewport,
}) => {
  test.setTimeout(240_000)
  const outside = await listening()
  const browser = await chromium.launch({
    ...launchOptions,
    args: [
      ...(launchOptions.args ?? []),
      `--host-resolver-rules=MAP outside.example 127.0.0.1:${outside.port}`,
    ],
  })
  const page = await browser.newPage({ viewport })
  const seen = await watched(page)
  const faults: string[] = []
  page.on('pageerror', error => faults.push(error.message))
  await signIn(page)
  const sent = await page.request.post(`${base()}/api/v1/uploads?name=hostile.imscc`, {
    data: hostileCourse(),
    headers: { 'content-type': 'application/octet-stream' },
  })
  const { id } = (await sent.json()) as { id: string }
  await page.goto(`${base()}/files/${id}`)
  await page.getByLabel('Code').fill('HOS 100')
  await page.getByLabel('Title').fill('Hostile <script>alert(1)</script>')
  await page.getByRole('button', { name: 'Keep as a course' }).click()
  await page.getByRole('link', { name: 'Open the course' }).click()
  await expect(page.getByRole('heading', { name: 'Hostile <script>alert(1)</script>' })).toBeVisible()
  await page.getByRole('link', { name: 'Contents, to read' }).click()
  await page.locator('[data-item] a').first().waitFor()
  const links = await page
    .locator('[data-item] a')
    .evaluateAll(all => all.map(link => (link as HTMLAnchorElement).href))
  expect(links.length).toBe(pages.length + 5)
  await page.goto(links[0]!)
  // The page has its router once it shows something.
  await page.locator('main[data-shown] h1').waitFor()
  for (const link of links) {
    // From item to item as readers go, within the application.
    await page.evaluate(
      path =>
        (window as unknown as { useNuxtApp: () => { $router: { push: (path: string) => Promise<unknown> } } })
          .useNuxtApp()
          .$router.push(path),
      new URL(link).pathname,
    )
    await page.locator(`main[data-shown="${link.split('/').at(-1)}"] h1`).waitFor()
    for (const id of ['#press', '#part-press', '.content [href]:not(.outside)'])
      if ((await page.locator(id).count()) > 0) await press(page, id)
    expect([seen.ran, seen.left], link).toEqual([[], []])
    if (new URL(page.url()).origin !== new URL(base()).origin) throw new Error(`left for ${page.url()}`)
  }
  // Files of the package opened by their own address: a page, and a picture that holds a script.
  for (const at of [0, links.length - 5]) {
    await page.goto(links[at]!.replace('/courses/', '/api/v1/courses/') + '/body').catch(() => {})
    await page.waitForTimeout(200)
  }
  expect([seen.ran, faults, outside.met()]).toEqual([[], [], 0])
  // Whoever leaves is met: shown raw, a picture does.
  await page.route(`${base()}/raw`, route =>
    route.fulfill({ contentType: 'text/html', body: hostileHtml['picture from outside']! }),
  )
  await page.goto(`${base()}/raw`)
  await expect.poll(outside.met).toBeGreaterThan(0)
  await browser.close()
  outside.close()
})
