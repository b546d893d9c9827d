import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { lineageLink, lineageOf } from '../../course/lineage'
import { itemsInOrder, type CourseNode } from '../../course/model'
import { FormatRefusal } from '../findings'
import { readCartridge, resolvePath } from './read'

// Made by hand after the 1EdTech Common Cartridge 1.3 and QTI 1.2 profiles (element names from memory).
const manifest = (items: string, resources: string, version = '1.3.0'): string => `<?xml version="1.0"?>
<manifest identifier="m" xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imscp_v1p1">
<metadata><schema>IMS Common Cartridge</schema><schemaversion>${version}</schemaversion></metadata>
<organizations><organization identifier="o" structure="rooted-hierarchy"><item identifier="root">${items}</item></organization></organizations>
<resources>${resources}</resources></manifest>`
const pack = (files: Record<string, string>): Uint8Array => zipSync(Object.fromEntries(Object.entries(files).map(([path, text]) => [path, strToU8(text)])))
const read = (files: Record<string, string>) => readCartridge('course.imscc', pack(files), 'class-1')
const item = (id: string, title: string, inner = '', reference = ''): string => `<item identifier="${id}"${reference && ` identifierref="${reference}"`}><title>${title}</title>${inner}</item>`
const resource = (id: string, type: string, href: string, more = ''): string => `<resource identifier="${id}" type="${type}" href="${href}"><file href="${href}"/>${more}</resource>`
const shape = (nodes: readonly CourseNode[]): unknown[] => nodes.map(node => [node.type === 'unit' ? 'unit' : node.kind, node.title, ...node.children.length ? [shape(node.children)] : []])
const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes)

describe('Common Cartridge', () => {
  it('reads the tree in its order and nesting: units, items, headings', () => {
    const { content, findings } = read({
      'imsmanifest.xml': manifest(
        item('u1', 'Week 1', item('a', 'Read', '', 'ra') + item('h', 'Then') + item('sub', 'Inner', item('b', 'Write', '', 'rb'))) + item('u2', 'Empty') + item('c', 'Loose', '', 'rc'),
        resource('rc', 'webcontent', 'c.pdf') + resource('ra', 'webcontent', 'a.html') + resource('rb', 'webcontent', 'b.html')),
      'a.html': '<p>A</p>', 'b.html': '<p>B</p>', 'c.pdf': '%PDF',
    })
    expect(shape(content.nodes)).toEqual([
      ['unit', 'Week 1', [['page', 'Read'], ['heading', 'Then'], ['unit', 'Inner', [['page', 'Write']]]]],
      ['unit', 'Empty'], ['file', 'Loose'],
    ])
    expect(findings).toEqual([])
    expect(content.nodes[0]!.lineage).toBe(lineageOf('class-1', 'u1'))
  })
  it('reads web links, topics, assignments and assessments with points, and keeps an assessment whole', () => {
    const qti = `<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="q" title="Check"><qtimetadata><qtimetadatafield><fieldlabel>cc_maxattempts</fieldlabel><fieldentry>3</fieldentry></qtimetadatafield></qtimetadata><section ident="s">
      <item ident="1"><itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>2.5</fieldentry></qtimetadatafield></qtimetadata></itemmetadata></item><item ident="2"/></section></assessment></questestinterop>`
    const { content } = read({
      'imsmanifest.xml': manifest(item('u', 'U', item('l', 'Link', '', 'rl') + item('t', 'Talk', '', 'rt') + item('q', 'Check', '', 'rq') + item('w', 'Essay', '', 'rw')),
        resource('rl', 'imswl_xmlv1p3', 'l.xml') + resource('rt', 'imsdt_xmlv1p3', 't.xml') + resource('rq', 'imsqti_xmlv1p2/imscc_xmlv1p3/assessment', 'q.xml') + resource('rw', 'assignment_xmlv1p0', 'w.xml')),
      'l.xml': '<webLink xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imswl_v1p3"><title>L</title><url href="https://a.example/?x=1&amp;y=2" target="_blank"/></webLink>',
      't.xml': '<topic xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3"><title>T</title><text texttype="text/plain">1 &lt; 2</text></topic>',
      'q.xml': qti,
      'w.xml': '<assignment xmlns="http://www.imsglobal.org/xsd/imscc_extensions/assignment" identifier="w"><title>W</title><text texttype="text/html">&lt;p&gt;Write.&lt;/p&gt;</text><gradable points_possible="12.5">true</gradable></assignment>',
    })
    const [link, talk, quiz, essay] = [...itemsInOrder(content.nodes)].map(entry => entry.item)
    expect(link!.settings).toEqual({ url: 'https://a.example/?x=1&y=2', target: '_blank' })
    expect([talk!.kind, text(talk!.body!.bytes)]).toEqual(['discussion', '<p>1 &lt; 2</p>'])
    expect([quiz!.points, quiz!.settings.questions, quiz!.settings.attempts, text(quiz!.body!.bytes)]).toEqual([35_000, 2, '3', qti])
    expect([essay!.points, text(essay!.body!.bytes)]).toEqual([125_000, '<p>Write.</p>'])
  })
  it('turns links inside the package into lineage links, touching nothing else, and says what is missing', () => {
    const html = '<p>See <a class="x" href="../b%20c.html#two">b</a>, <a href=\'$IMS-CC-FILEBASE$/img/p.png\'>p</a>, <a href="https://out.example/">out</a>, <a href="gone.html">gone</a> &amp; so on'
    const { content, findings } = read({
      'imsmanifest.xml': manifest(item('u', 'U', item('a', 'A', '', 'ra') + item('b', 'B', '', 'rb')), resource('ra', 'webcontent', 'pages/a.html') + resource('rb', 'webcontent', 'b%20c.html') + resource('rp', 'webcontent', 'img/p.png')),
      'pages/a.html': html, 'b c.html': '<p>B</p>', 'img/p.png': 'png',
    })
    const page = [...itemsInOrder(content.nodes)][0]!.item
    const link = (id: string): string => lineageLink(lineageOf('class-1', id))
    expect(text(page.body!.bytes)).toBe(html.replace('../b%20c.html#two', `${link('b')}#two`).replace('$IMS-CC-FILEBASE$/img/p.png', link('rp')))
    expect(findings.map(finding => [finding.where, finding.message])).toEqual([['pages/a.html', 'links to gone.html, which the package does not hold']])
    expect(shape(content.nodes).at(-1)).toEqual(['file', 'p.png'])
  })
  it('names what is missing or twice, and reads the rest', () => {
    const { content, findings } = read({
      'imsmanifest.xml': manifest(item('u', 'U', item('a', 'A', '', 'nowhere') + item('b', 'B', '', 'rb') + item('b', 'B again', '', 'rb')), resource('rb', 'webcontent', 'b.html') + resource('rz', 'strange/type', 'z.bin')),
      'z.bin': 'z',
    })
    expect(shape(content.nodes)).toEqual([['unit', 'U', [['heading', 'A'], ['file', 'B']]], ['file', 'z.bin']])
    expect(findings.map(finding => finding.severity)).toEqual(['error', 'error', 'error', 'warning'])
  })
  it('refuses by name and with the reason what is no such package', () => {
    const refusal = (bytes: Uint8Array): string => {
      try { readCartridge('course.imscc', bytes, 'c'); return 'was read' }
      catch (error) { expect(error).toBeInstanceOf(FormatRefusal); return (error as Error).message }
    }
    expect(refusal(strToU8('hello'))).toBe('course.imscc: is not a zip archive')
    expect(refusal(pack({ 'a.txt': 'a' }))).toMatch(/holds no imsmanifest.xml/)
    expect(refusal(pack({ 'imsmanifest.xml': manifest('', '', '2.0') }))).toMatch(/Common Cartridge 2.0; version 1.3 is read here/)
    expect(refusal(pack({ 'imsmanifest.xml': '<manifest><broken></manifest>' }))).toMatch(/not well-formed/)
    expect(refusal(pack({ 'imsmanifest.xml': '<!DOCTYPE m [<!ENTITY a "b">]><manifest/>' }))).toMatch(/document type declaration/)
    expect(refusal(pack({ '../imsmanifest.xml': '<manifest/>' }))).toMatch(/leads outside the archive/)
    expect(refusal(pack({ 'imsmanifest.xml': manifest('', '') }).slice(0, 200))).toMatch(/damaged/)
  })
  it('resolves paths as packages write them', () => {
    expect([resolvePath('a/b', '../c.html'), resolvePath('', './x%20y.html'), resolvePath('a', '../../up'), resolvePath('a', '100%.html')]).toEqual(['a/c.html', 'x y.html', null, 'a/100%.html'])
  })
})
