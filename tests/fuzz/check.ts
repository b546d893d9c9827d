import { parse, type DefaultTreeAdapterTypes as Tree } from 'parse5'
import { isDate } from '../../core/calendar/day'
import { bytesOf, type CourseNode } from '../../core/course/model'
import { readCartridge } from '../../core/formats/cartridge/read'
import { readLimits } from '../../core/formats/limits'
import type { OutlineEntry } from '../../core/formats/report'
import { readFile } from '../../server/exchange/files/read'
import { bufferSource, openZip } from '../../server/exchange/files/zip'
import { shownHtml } from '../../server/courses/shown/html'
import type { Input } from './inputs'

/** Limits as for a small file, so that reaching them is tried too. */
export const fuzzLimits = {
  ...readLimits,
  entries: 200,
  unpackedBytes: 4 << 20,
  xmlBytes: 1 << 20,
  pageBytes: 1 << 20,
  nesting: 12,
  xmlDepth: 60,
  titleLength: 2000,
  rows: 2000,
  textBytes: 2 << 20,
  events: 5000,
  occurrences: 500,
  findings: 20,
}

function must(holds: boolean, what: string): void {
  if (!holds) throw new Error(`broken promise: ${what}`)
}

/** Reads an input as the application would and checks what may be relied on whatever the file. @throws where a promise is broken. */
export async function tryInput(input: Input): Promise<'read' | 'refused' | 'shown'> {
  if ('html' in input) {
    checkShown(shownHtml(input.html, course, new Map()))
    return 'shown'
  }
  const source = bufferSource(input.bytes)
  const report = await readFile(input.name, source, { limits: fuzzLimits })
  must(report.outcome === 'read' || report.outcome === 'refused', 'an outcome')
  for (const finding of report.findings)
    must(
      ['error', 'warning', 'note'].includes(finding.severity) &&
        finding.where !== '' &&
        finding.message !== '' &&
        !/\bundefined\b|\[object /.test(finding.where),
      `a finding that says where and what: ${JSON.stringify(finding)}`,
    )
  if (report.outcome === 'refused')
    must(
      report.findings.some(finding => finding.severity === 'error') &&
        report.events.length === 0 &&
        report.outline.length === 0,
      'a refusal with its reason, and nothing else',
    )
  for (const event of report.events)
    must(
      isDate(event.firstDay) &&
        isDate(event.lastDay) &&
        event.firstDay <= event.lastDay &&
        event.title !== '' &&
        event.title.length <= 500,
      `an event with days in order and a name: ${JSON.stringify(event)}`,
    )
  must(
    Object.values(report.counts).every(count => Number.isSafeInteger(count) && count >= 0),
    'counts that count',
  )
  must(JSON.parse(JSON.stringify(report)) !== null, 'a report that can be written down')
  checkOutline(report.outline, 0)
  if (report.outcome === 'read' && report.format === 'common-cartridge') await checkCourse(input)
  return report.outcome
}

function checkOutline(entries: readonly OutlineEntry[], depth: number): void {
  must(depth <= fuzzLimits.nesting + 1, 'an outline no deeper than the limit')
  for (const entry of entries) {
    must(
      typeof entry.title === 'string' && entry.title.length <= 500 && !/[\0\r\n]/.test(entry.title),
      `a title of one line: ${JSON.stringify(entry.title)}`,
    )
    checkOutline(entry.children ?? [], depth + 1)
  }
}

const course = '0191a4c0-0000-7000-8000-000000000001'
/** What is stored of a package: every body can be read, twice alike; no key stands twice; what is shown of it is harmless. */
async function checkCourse(input: { name: string; bytes: Buffer }): Promise<void> {
  const { content } = await readCartridge(await openZip(input.name, bufferSource(input.bytes), fuzzLimits), {
    courseKey: 'k',
    limits: fuzzLimits,
  })
  const seen = new Map<string, string | null>()
  const walk = async (nodes: readonly CourseNode[]): Promise<void> => {
    for (const node of nodes) {
      must(!seen.has(node.lineage), `the key ${node.lineage} stands once`)
      seen.set(node.lineage, node.type === 'item' ? node.kind : null)
      if (node.type === 'item' && node.body) {
        const bytes = await bytesOf(node.body)
        must(
          Buffer.from(bytes).equals(Buffer.from(await bytesOf(node.body))),
          'a body that is the same each time',
        )
        if (node.body.mediaType === 'text/html')
          checkShown(shownHtml(new TextDecoder().decode(bytes), course, seen))
      }
      if (node.type === 'item')
        must(node.points === null || Number.isSafeInteger(node.points), 'points that are a number')
      await walk(node.children)
    }
  }
  await walk(content.nodes)
}

const elements = new Set(
  'html head body address article aside footer header h1 h2 h3 h4 h5 h6 hgroup main nav section blockquote dd div dl dt figcaption figure hr li menu ol p pre ul a abbr b bdi bdo br cite code data dfn em i kbd mark q rb rp rt rtc ruby s samp small span strong sub sup time u var wbr caption col colgroup table tbody td tfoot th thead tr img del ins details summary video audio source'.split(
    ' ',
  ),
)
const attributes = new Set(
  'href title target rel class src alt width height controls type scope colspan rowspan start id lang dir'.split(
    ' ',
  ),
)
/** What is shown, parsed as a browser does (parse5, the HTML standard's own algorithm): no element, attribute or address but those allowed. */
function checkShown(shown: string): void {
  const walk = (node: Tree.Node): void => {
    if ('tagName' in node) {
      must(
        elements.has(node.tagName) && node.namespaceURI === 'http://www.w3.org/1999/xhtml',
        `the element ${node.tagName} is not shown`,
      )
      for (const { name, value } of node.attrs) {
        must(attributes.has(name), `the attribute ${name} is not shown`)
        if (name === 'src')
          must(value.startsWith(`/api/v1/courses/${course}/items/`), `nothing is loaded from ${value}`)
        if (name === 'href')
          must(/^(https?:|mailto:|#|\/courses\/|\/api\/v1\/courses\/)/i.test(value), `no link to ${value}`)
        if (name === 'id') must(value.startsWith('part-'), `the name ${value} is kept apart`)
      }
    }
    if ('childNodes' in node) node.childNodes.forEach(walk)
  }
  walk(parse(`<!doctype html><body>${shown}`))
}
