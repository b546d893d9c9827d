import { describe, expect, it } from 'vitest'
import {
  itemXml as item,
  manifestOf as manifest,
  memoryArchive,
  resourceXml as resource,
} from '../../../tests/support/archives'
import { lineageLink, lineageOf } from '../../course/lineage'
import { bytesOf, itemsInOrder, type CourseNode, type ItemNode } from '../../course/model'
import { readLimits } from '../limits'
import { outlineOf, type OutlineEntry } from '../report'
import { pathsMeant, resolvePath } from './paths'
import { readCartridge } from './read'

// Made by hand after the 1EdTech Common Cartridge 1.0 to 1.3 and QTI 1.2 profiles (element names from memory).
type Files = Record<string, string | Uint8Array>
const read = (files: Files, limits = readLimits) =>
  readCartridge(memoryArchive('course.imscc', files), { courseKey: 'class-1', limits })
const outlined = (entries: readonly OutlineEntry[]): unknown[] =>
  entries.map(entry => [entry.kind, entry.title, ...(entry.children ? [outlined(entry.children)] : [])])
const outline = async (files: Files) => outlined(outlineOf(await read(files)).outline)
const itemsOf = (nodes: readonly CourseNode[]): ItemNode[] =>
  [...itemsInOrder(nodes)].map(entry => entry.item)
const text = async (node: ItemNode | undefined): Promise<string> =>
  new TextDecoder().decode(await bytesOf(node!.body!))
const link = (id: string): string => lineageLink(lineageOf('class-1', id))
const said = (findings: readonly { severity: string; where: string; message: string }[]) =>
  findings.map(finding => `${finding.severity}: ${finding.where}: ${finding.message}`)

describe('structure', () => {
  it('reads the tree in its order and nesting: units, items, headings, empty units', async () => {
    const { content, findings } = await read({
      'imsmanifest.xml': manifest(
        item(
          'u1',
          'Week 1',
          item('a', 'Read', '', 'ra') +
            item('h', 'Then') +
            item('sub', 'Inner', item('b', 'Write', '', 'rb')),
        ) +
          item('u2', 'Empty') +
          item('c', 'Loose', '', 'rc'),
        resource('rc', 'webcontent', 'c.pdf') +
          resource('ra', 'webcontent', 'a.html') +
          resource('rb', 'webcontent', 'b.html'),
      ),
      'a.html': '<p>A</p>',
      'b.html': '<p>B</p>',
      'c.pdf': '%PDF',
    })
    expect(outlined(outlineOf({ content, aside: new Set() }).outline)).toEqual([
      [
        'unit',
        'Week 1',
        [
          ['page', 'Read'],
          ['heading', 'Then'],
          ['unit', 'Inner', [['page', 'Write']]],
        ],
      ],
      ['unit', 'Empty'],
      ['file', 'Loose'],
    ])
    expect(findings).toEqual([])
    expect(content.nodes[0]!.lineage).toBe(lineageOf('class-1', 'u1'))
  })
  it.each(['1.0.0', '1.1.0', '1.2.0', '1.3.0'])(
    'reads version %s in its own namespace without a finding',
    async version => {
      const minor = version[2]
      const files = {
        'imsmanifest.xml': manifest(
          item('u', 'U', item('l', 'Link', '', 'rl')),
          resource('rl', `imswl_xmlv1p${minor}`, 'l.xml'),
          version,
        ),
        'l.xml': `<wl:webLink xmlns:wl="http://www.imsglobal.org/xsd/imswl_v1p${minor}"><title>L</title><url href="https://a.example/"/></wl:webLink>`,
      }
      const { version: read_, findings } = await read(files)
      expect([read_, findings]).toEqual([version.slice(0, 3), []])
      expect(await outline(files)).toEqual([['unit', 'U', [['weblink', 'Link']]]])
    },
  )
  it('reads by the names of elements where version and namespace disagree or are missing, and says so', async () => {
    const odd = manifest(item('u', 'U'), '').replace('imsccv1p3/imscp', 'imsccv1p1/imscp')
    expect(said((await read({ 'imsmanifest.xml': odd })).findings)).toEqual([
      'warning: imsmanifest.xml: says it is version 1.3 and has the namespace of 1.1; it was read as 1.3',
    ])
    expect(
      (
        await read({
          'imsmanifest.xml': manifest(item('u', 'U'), '').replace('<schemaversion>1.3.0</schemaversion>', ''),
        })
      ).version,
    ).toBe('1.3')
    await expect(read({ 'imsmanifest.xml': manifest('', '', '2.0') })).rejects.toThrow(
      'is Common Cartridge 2.0; versions 1.0 to 1.3 are read here',
    )
    await expect(
      read({ 'imsmanifest.xml': manifest('', '').replace('IMS Common Cartridge', 'Other Thing') }),
    ).rejects.toThrow(/says it is “Other Thing”/)
  })
  it('takes title and language from the LOM, titles in any script, and does not mistake an extension’s elements for its own', async () => {
    const lom =
      '<lom:lom><lom:general><lom:title><lom:string language="en">Tides</lom:string><lom:string language="fr">Marées</lom:string></lom:title><lom:language>fr</lom:language></lom:general></lom:lom>'
    const { content } = await read({
      'imsmanifest.xml': manifest(
        item(
          'u',
          '潮汐 &amp; مدّ',
          '<x:item xmlns:x="urn:other" identifier="no"><x:title>No</x:title></x:item>',
        ) + item('v', '\n  Two\n lines '),
        '',
        '1.3.0',
        lom,
      ),
    })
    expect([content.title, content.language, content.nodes.map(node => node.title)]).toEqual([
      'Marées',
      'fr',
      ['潮汐 & مدّ', 'Two lines'],
    ])
  })
  it('keeps what nothing refers to and lists it; what something refers to stands aside', async () => {
    const files = {
      'imsmanifest.xml': manifest(
        item('u', 'U', item('a', 'A', '', 'ra')),
        resource('ra', 'webcontent', 'a.html', '<file href="style.css"/><dependency identifierref="rp"/>') +
          resource('rp', 'webcontent', 'p.png') +
          resource('rq', 'webcontent', 'q.png') +
          resource('rn', 'webcontent', 'never.pdf') +
          resource('rb', 'imsqti_xmlv1p2/imscc_xmlv1p3/question-bank', 'bank.xml'),
      ),
      'a.html': '<img src="q.png">',
      'style.css': '',
      'p.png': 'p',
      'q.png': 'q',
      'never.pdf': 'n',
      'stray.txt': 's',
      'bank.xml':
        '<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><objectbank ident="b"><item ident="1"><presentation><response_lid ident="r"><render_choice/></response_lid></presentation></item></objectbank></questestinterop>',
    }
    const { content, aside, findings } = await read(files)
    expect(await outline(files)).toEqual([
      ['unit', 'U', [['page', 'A']]],
      ['file', 'never.pdf'],
      ['bank', 'bank.xml'],
    ])
    expect(
      itemsOf(content.nodes)
        .filter(node => aside.has(node.lineage))
        .map(node => node.title),
    ).toEqual(['p.png', 'q.png', 'style.css'])
    expect(itemsOf(content.nodes).find(node => node.title === 'A')!.settings.needs).toEqual([
      lineageOf('class-1', 'rp'),
    ])
    expect(said(findings.filter(finding => !finding.code.startsWith('question-')))).toEqual([
      'note: never.pdf: “never.pdf” is in no item and nothing leads to it; it was kept, after the units',
      'note: bank.xml: “bank.xml” is in no item and nothing leads to it; it was kept, after the units',
      'note: stray.txt: is not listed in the manifest and nothing leads to it; it stays in the package that is kept',
    ])
  })
  it('keeps use, audience and visibility; takes the richer of two variants', async () => {
    const staff =
      '<metadata><lom:lom><lom:educational><lom:intendedEndUserRole><lom:value>Instructor</lom:value></lom:intendedEndUserRole></lom:educational></lom:lom></metadata>'
    const { content } = await read({
      'imsmanifest.xml': manifest(
        item('a', 'Plan', '', 'ra') +
          item('b', 'Key', '', 'rb') +
          item('c', 'Hid', '', 'rb').replace('<item ', '<item isvisible="false" ') +
          item('w', 'Essay', '', 'rw'),
        resource('ra', 'webcontent', 'a.html').replace('<resource ', '<resource intendeduse="lessonplan" ') +
          resource('rb', 'webcontent', 'b.html', staff) +
          resource(
            'rw',
            'webcontent',
            'w.html',
            '<cpx:variant xmlns:cpx="http://www.imsglobal.org/xsd/imsccv1p3/imscp_extensionv1p2" identifier="v" identifierref="rx"/>',
          ) +
          resource('rx', 'assignment_xmlv1p0', 'x.xml'),
      ),
      'a.html': 'a',
      'b.html': 'b',
      'w.html': 'w',
      'x.xml':
        '<assignment xmlns="http://www.imsglobal.org/xsd/imscc_extensions/assignment"><title>W</title></assignment>',
    })
    const [plan, key, hid, essay] = itemsOf(content.nodes)
    expect([plan!.settings.intendedUse, key!.state, key!.settings.audience, hid!.state, essay!.kind]).toEqual(
      ['lessonplan', 'hidden', 'staff', 'hidden', 'assignment'],
    )
  })
  it('names what is missing or twice, and reads the rest', async () => {
    const files = {
      'imsmanifest.xml': manifest(
        item(
          'u',
          'U',
          item('a', 'A', '', 'nowhere') +
            item('b', 'B', '', 'rb') +
            item('b', 'B again', '', 'rb') +
            item('c', 'C', '', 'rc'),
        ),
        resource('rb', 'webcontent', 'b.html', '<dependency identifierref="none"/>') +
          resource('rb', 'webcontent', 'b.html') +
          resource('rz', 'strange/type', 'z.bin') +
          resource('rc', 'imsdt_xmlv1p3', 'c.xml') +
          resource('rd', 'webcontent', 'https://a.example/x.pdf'),
      ),
      'z.bin': 'z',
      'c.xml': '<topic><title>C</topic>',
    }
    expect(await outline(files)).toEqual([
      [
        'unit',
        'U',
        [
          ['heading', 'A'],
          ['file', 'B'],
          ['file', 'B again'],
          ['file', 'C'],
        ],
      ],
      ['file', 'z.bin'],
      ['file', 'rd'],
    ])
    expect(said((await read(files)).findings).map(line => line.replace(/line \d+/, 'line N'))).toEqual([
      'warning: imsmanifest.xml, line N: “B again” has the identifier b, which another item has too; both stay where they are, this one under a name of its own',
      'error: imsmanifest.xml, line N: a resource has the identifier rb, which another has too; it was left out',
      'warning: imsmanifest.xml, line N: the resource rd names "https://a.example/x.pdf", which is not in the package; nothing is fetched, it was left out',
      'error: imsmanifest.xml, line N: “A” points to the resource nowhere, which the package does not list; it came as a heading',
      'error: imsmanifest.xml, line N: the resource rb needs none, which the package does not list',
      'error: c.xml: line N: is not well-formed XML (unexpected close tag.); it came as a file',
      'error: imsmanifest.xml, line N: the package does not hold b.html, the file of the resource rb',
      'error: imsmanifest.xml, line N: the package does not hold b.html, the file of the resource rb',
      'warning: z.bin: a resource of the type strange/type is not read; it came as a file',
      'note: z.bin: “z.bin” is in no item and nothing leads to it; it was kept, after the units',
      'error: imsmanifest.xml, line N: the package does not hold any file of the resource rd',
      'note: imsmanifest.xml, line N: “rd” is in no item and nothing leads to it; it was kept, after the units',
    ])
  })
  it('keeps both of two items with one identifier, each where it stands with all that is in it', async () => {
    const files = {
      'imsmanifest.xml': manifest(
        item('u', 'One', item('a', 'A', '', 'ra')) +
          item('u', 'Two', item('a', 'B', '', 'rb') + item('', 'C', '', 'rb')),
        resource('ra', 'webcontent', 'a.html') + resource('rb', 'webcontent', 'b.html'),
      ),
      'a.html': '<p>A</p>',
      'b.html': '<p>B</p>',
    }
    const { content } = await read(files)
    expect(await outline(files)).toEqual([
      ['unit', 'One', [['page', 'A']]],
      [
        'unit',
        'Two',
        [
          ['page', 'B'],
          ['page', 'C'],
        ],
      ],
    ])
    const lineages = [...content.nodes, ...itemsOf(content.nodes)].map(node => node.lineage)
    expect(new Set(lineages).size).toBe(lineages.length)
    // A second reading gives every item the name it had, so that a roll again finds them.
    const again = await read(files)
    expect(itemsOf(again.content.nodes).map(node => node.lineage)).toEqual(
      itemsOf(content.nodes).map(node => node.lineage),
    )
  })
  it('says of each question what it lacks', async () => {
    const question = (
      ident: string,
      profile: string,
      weight: string,
      choices: string,
      processing: string,
    ): string =>
      `<item ident="${ident}" title="${ident}"><itemmetadata><qtimetadata>${profile}<qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>${weight}</fieldentry></qtimetadatafield></qtimetadata></itemmetadata><presentation><response_lid ident="r"><render_choice>${choices}</render_choice></response_lid></presentation>${processing}</item>`
    const profile = (name: string): string =>
      `<qtimetadatafield><fieldlabel>cc_profile</fieldlabel><fieldentry>${name}</fieldentry></qtimetadatafield>`
    const choice = '<response_label ident="a"><material><mattext>A</mattext></material></response_label>'
    const right =
      '<resprocessing><outcomes><decvar/></outcomes><respcondition><conditionvar><varequal respident="r">a</varequal></conditionvar><setvar action="Set">100</setvar></respcondition></resprocessing>'
    const sound = profile('cc.multiple_choice.v0p1')
    const { findings } = await read({
      'imsmanifest.xml': manifest(
        item('q', 'Q', '', 'rq'),
        resource('rq', 'imsqti_xmlv1p2/imscc_xmlv1p3/assessment', 'q.xml'),
      ),
      'q.xml': `<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="q" title="Q"><section ident="s">${[
        question('sound', sound, '2', choice, right),
        question('strange', profile('cc.riddle.v9'), '2', choice, right),
        question('bare', sound, '2', '', right),
        question('open', sound, '2', choice, ''),
        question('heavy', sound, 'a lot', choice, right),
      ].join('')}</section></assessment></questestinterop>`,
    })
    expect(said(findings)).toEqual([
      'note: q.xml: question 2 (“strange”) names the profile "cc.riddle.v9", which Common Cartridge does not have; it was taken for what it looks like',
      'warning: q.xml: question 3 (“bare”) offers no choices',
      'warning: q.xml: question 4 (“open”) has no right answer',
      'warning: q.xml: question 5 (“heavy”) has the weight "a lot", which is no number; it counts one point',
    ])
  })
  it('says where a topic is in another namespace, and where bytes are not what a file says of them', async () => {
    const latin = (text: string): Uint8Array => Uint8Array.from(text, letter => letter.charCodeAt(0))
    const { content, findings } = await read({
      'imsmanifest.xml': manifest(
        item('t', 'T', '', 'rt') +
          item('p', 'P', '', 'rp') +
          item('l', 'L', '', 'rl') +
          item('x', 'X', '', 'rx'),
        resource('rt', 'imsdt_xmlv1p3', 't.xml') +
          resource('rp', 'webcontent', 'p.html') +
          resource('rl', 'webcontent', 'l.html') +
          resource('rx', 'imsdt_xmlv1p3', 'x.xml'),
      ),
      't.xml':
        '<topic xmlns="urn:elsewhere"><title>T</title><text texttype="text/plain">Hello</text></topic>',
      'p.html': '<meta charset="iso-8859-1"><p>Ebbe und Flut für alle</p>',
      'l.html': latin('<meta charset="utf-8"><p>für alle</p>'),
      'x.xml':
        '<?xml version="1.0" encoding="iso-8859-1"?><topic xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3"><title>Für</title><text texttype="text/plain">für</text></topic>',
    })
    expect(said(findings)).toEqual([
      'warning: t.xml: is a topic in the namespace "urn:elsewhere", which is not that of topics; it was read by the names of its elements',
      'warning: p.html: says it is in iso-8859-1, and its bytes are UTF-8; it was read as UTF-8',
      'warning: l.html: says it is in utf-8, and its bytes are windows-1252; it was read as windows-1252',
      'warning: x.xml: says it is in iso-8859-1, and its bytes are UTF-8; it was read as UTF-8',
    ])
    const [topic, , latinPage, document] = itemsOf(content.nodes)
    expect([topic?.kind, await text(document), await text(latinPage)]).toEqual([
      'discussion',
      '<p>für</p>',
      '<meta charset="utf-8"><p>für alle</p>',
    ])
  })
  it('refuses what is no such package, or nests, titles and types beyond what anybody writes', async () => {
    const deep = (n: number): string => (n === 0 ? '' : item(`d${n}`, 'D', deep(n - 1)))
    await expect(read({ 'a.txt': 'a' })).rejects.toThrow(/holds no imsmanifest.xml/)
    await expect(read({ 'imsmanifest.xml': '<manifest><broken></manifest>' })).rejects.toThrow(
      /line 1: is not well-formed/,
    )
    await expect(read({ 'imsmanifest.xml': '<!DOCTYPE m [<!ENTITY a "b">]><manifest/>' })).rejects.toThrow(
      /document type declaration/,
    )
    await expect(read({ 'imsmanifest.xml': manifest(deep(102), '') })).rejects.toThrow(
      /nest more than 100 deep/,
    )
    await expect(read({ 'imsmanifest.xml': manifest(item('u', 'x'.repeat(10_001)), '') })).rejects.toThrow(
      /title of 10001 characters/,
    )
    await expect(
      read({
        'imsmanifest.xml': manifest(item('a', 'A', '', 'ra'), resource('ra', 'imsdt_xmlv1p3', 'a.xml')),
        'a.xml': '<!DOCTYPE t SYSTEM "file:///etc/passwd"><topic/>',
      }),
    ).rejects.toThrow(/a.xml: .*document type declaration/)
    for (const href of [
      '../../etc/passwd',
      '%2e%2e/x',
      '/etc/passwd',
      'C:\\x',
      'file:///etc/passwd',
      '..\\x',
    ])
      await expect(
        read({ 'imsmanifest.xml': manifest('', resource('rd', 'webcontent', href)) }),
        href,
      ).rejects.toThrow(/lies outside the package/)
    const { content, findings } = await read({ 'imsmanifest.xml': manifest(item('u', 'x'.repeat(900)), '') })
    expect([content.nodes[0]!.title.length, findings[0]!.message]).toEqual([
      500,
      expect.stringContaining('900 characters and was cut'),
    ])
  })
  it('reads UTF-16 and declared encodings, refuses bytes that are not what they say', async () => {
    const utf16 = (xml: string): Uint8Array =>
      new Uint8Array([
        0xff,
        0xfe,
        ...new Uint8Array(new Uint16Array([...xml].map(letter => letter.charCodeAt(0))).buffer),
      ])
    expect(
      (
        await read({
          'imsmanifest.xml': utf16(
            manifest(item('u', 'Été'), '').replace(
              '<?xml version="1.0"?>',
              '<?xml version="1.0" encoding="UTF-16"?>',
            ),
          ),
        })
      ).content.nodes[0]!.title,
    ).toBe('Été')
    const latin = Uint8Array.from(
      manifest(item('u', 'Été'), '').replace(
        '<?xml version="1.0"?>',
        '<?xml version="1.0" encoding="ISO-8859-1"?>',
      ),
      letter => letter.charCodeAt(0),
    )
    expect((await read({ 'imsmanifest.xml': latin })).content.nodes[0]!.title).toBe('Été')
    await expect(
      read({
        'imsmanifest.xml': Uint8Array.from(manifest(item('u', 'Été'), ''), letter => letter.charCodeAt(0)),
      }),
    ).rejects.toThrow(/not UTF-8/)
    const { content, findings } = await read({
      'imsmanifest.xml': manifest(item('a', 'A', '', 'ra'), resource('ra', 'webcontent', 'a.html')),
      'a.html': Uint8Array.from('<p>Été \x93x\x94</p>', letter => letter.charCodeAt(0)),
    })
    expect([await text(itemsOf(content.nodes)[0]), findings[0]!.message]).toEqual([
      '<p>Été “x”</p>',
      'is not UTF-8. It was read as windows-1252: check accented letters',
    ])
  })
  it('reads a package whose folder was packed with it, and several items without a root', async () => {
    const files = {
      'course/imsmanifest.xml': manifest(item('a', 'A', '', 'ra'), resource('ra', 'webcontent', 'a.html'))
        .replace('<item identifier="root">', '')
        .replace('</item></organization>', `${item('b', 'B')}</organization>`),
      'course/a.html': 'A',
    }
    expect(await outline(files)).toEqual([
      ['page', 'A'],
      ['unit', 'B'],
    ])
  })
})

describe('resources', () => {
  const one = async (type: string, xml: string, more: Files = {}, resources = '') => {
    const { content, findings } = await read({
      'imsmanifest.xml': manifest(item('i', 'I', '', 'r'), resource('r', type, 'sub/r.xml') + resources),
      'sub/r.xml': xml,
      ...more,
    })
    return { item: itemsOf(content.nodes)[0]!, findings, content }
  }
  it('web links, with their target', async () => {
    const { item: node } = await one(
      'imswl_xmlv1p3',
      '<webLink xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imswl_v1p3"><title>L</title><url href="https://a.example/?x=1&amp;y=2" target="_blank" windowFeatures="width=10"/></webLink>',
    )
    expect(node.settings).toEqual({
      url: 'https://a.example/?x=1&y=2',
      target: '_blank',
      windowFeatures: 'width=10',
    })
    expect(
      (await one('imswl_xmlv1p3', '<webLink><url href="javascript:alert(1)"/></webLink>')).findings[0]!
        .message,
    ).toMatch(/not an http or https address/)
  })
  it('topics, with attachments', async () => {
    const xml =
      '<topic xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3"><title>T</title><text texttype="text/plain">1 &lt; 2\n\nNext</text><attachments><attachment href="../f/a%20b.pdf"/><attachment href="../f/none.pdf"/></attachments></topic>'
    const { item: node, findings } = await one(
      'imsdt_xmlv1p3',
      xml,
      { 'f/a b.pdf': 'x' },
      resource('rf', 'webcontent', 'f/a%20b.pdf'),
    )
    expect([node.kind, await text(node), node.settings.attachments]).toEqual([
      'discussion',
      '<p>1 &lt; 2</p>\n<p>Next</p>',
      [link('rf')],
    ])
    expect(said(findings)).toEqual([
      'warning: sub/r.xml: attaches ../f/none.pdf, which the package does not hold',
    ])
  })
  it('assignments, with points, formats and instructor text', async () => {
    const xml =
      '<assignment xmlns="http://www.imsglobal.org/xsd/imscc_extensions/assignment" identifier="w"><title>W</title><text texttype="text/html">&lt;p&gt;Write.&lt;/p&gt;</text><instructor_text texttype="text/html">&lt;p&gt;See &lt;a href="$IMS-CC-FILEBASE$/k.html"&gt;key&lt;/a&gt;&lt;/p&gt;</instructor_text><gradable points_possible="12.5">true</gradable><submission_formats><format type="file"/><format type="html"/></submission_formats></assignment>'
    const { item: node } = await one(
      'assignment_xmlv1p0',
      xml,
      { 'k.html': 'k' },
      resource('rk', 'webcontent', 'k.html'),
    )
    expect([node.points, await text(node), node.settings.formats, node.settings.instructorText]).toEqual([
      125_000,
      '<p>Write.</p>',
      ['file', 'html'],
      `<p>See <a href="${link('rk')}">key</a></p>`,
    ])
  })
  it('LTI links, with every parameter', async () => {
    const xml = `<cartridge_basiclti_link xmlns="http://www.imsglobal.org/xsd/imslticc_v1p3" xmlns:blti="http://www.imsglobal.org/xsd/imsbasiclti_v1p0" xmlns:lticm="http://www.imsglobal.org/xsd/imslticm_v1p0">
      <blti:title>Gauge</blti:title><blti:description>Read &amp; learn</blti:description><blti:custom><lticm:property name="class">2026a</lticm:property></blti:custom>
      <blti:extensions platform="p.example"><lticm:property name="privacy">public</lticm:property><lticm:options name="nav"><lticm:property name="on">true</lticm:property></lticm:options></blti:extensions>
      <blti:launch_url>http://t.example/l</blti:launch_url><blti:secure_launch_url>https://t.example/l</blti:secure_launch_url><blti:vendor><lticp:code xmlns:lticp="http://www.imsglobal.org/xsd/imslticp_v1p0">t</lticp:code></blti:vendor></cartridge_basiclti_link>`
    const { item: node } = await one('imsbasiclti_xmlv1p0', xml)
    expect([node.kind, node.settings]).toEqual([
      'tool',
      {
        launchUrl: 'http://t.example/l',
        secureLaunchUrl: 'https://t.example/l',
        custom: [{ name: 'class', value: '2026a' }],
        vendor: { code: 't' },
        extensions: [
          {
            platform: 'p.example',
            properties: [{ name: 'privacy', value: 'public' }],
            options: [{ name: 'nav', properties: [{ name: 'on', value: 'true' }] }],
          },
        ],
      },
    ])
  })
  it('assessments: kept whole but for their links, points summed', async () => {
    const qti = `<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="q" title="Check"><qtimetadata><qtimetadatafield><fieldlabel>cc_maxattempts</fieldlabel><fieldentry>3</fieldentry></qtimetadatafield></qtimetadata><section ident="s">
      <item ident="1"><itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_weighting</fieldlabel><fieldentry>2.5</fieldentry></qtimetadatafield></qtimetadata></itemmetadata><presentation><material><mattext texttype="text/html">&lt;img src="$IMS-CC-FILEBASE$p.png"&gt; A &amp;amp; B</mattext><mattext>plain &lt;img src="p.png"&gt;</mattext></material></presentation></item><item ident="2"/></section></assessment></questestinterop>`
    const { item: node } = await one(
      'imsqti_xmlv1p2/imscc_xmlv1p3/assessment',
      qti,
      { 'p.png': 'x' },
      resource('rp', 'webcontent', 'p.png'),
    )
    expect([node.points, node.settings.questions, node.settings.attempts]).toEqual([35_000, 2, '3'])
    expect(await text(node)).toBe(
      qti.replace(
        '&lt;img src="$IMS-CC-FILEBASE$p.png"&gt; A &amp;amp; B',
        `&lt;img src="${link('rp')}"&gt; A &amp;amp; B`,
      ),
    )
  })
})

describe('links', () => {
  it('turns links inside the package into lineage links, touching nothing else, and says what is missing', async () => {
    const html =
      '<p>See <a class="x" href="../b%20c.html#two">b</a>, <a href="../b c.html">b</a>, <a href="../B%20C.HTML">b</a>, <a href=\'$IMS-CC-FILEBASE$/img/p.png\'>p</a>, <a href="https://out.example/">out</a>, <a href="gone.html">gone</a>, <a href="../loose.txt">l</a> &amp; so on'
    const { content, findings } = await read({
      'imsmanifest.xml': manifest(
        item('u', 'U', item('a', 'A', '', 'ra') + item('b', 'B', '', 'rb')),
        resource('ra', 'webcontent', 'pages/a.html') +
          resource('rb', 'webcontent', 'b%20c.html') +
          resource('rp', 'webcontent', 'img/p.png'),
      ),
      'pages/a.html': html,
      'b c.html': '<p>B</p>',
      'img/p.png': 'png',
      'loose.txt': 'l',
    })
    const page = itemsOf(content.nodes)[0]!
    expect(await text(page)).toBe(
      html
        .replace('../b%20c.html#two', `${link('b')}#two`)
        .replace('../b c.html', link('b'))
        .replace('../B%20C.HTML', link('b'))
        .replace('$IMS-CC-FILEBASE$/img/p.png', link('rp'))
        .replace('../loose.txt', link('file:loose.txt')),
    )
    expect(said(findings)).toEqual([
      'warning: pages/a.html: links to gone.html, which the package does not hold',
      'warning: loose.txt: is not listed in the manifest; it was kept, because a page leads to it',
    ])
    expect(content.nodes.slice(1).map(node => node.title)).toEqual(['p.png', 'loose.txt'])
  })
  it('resolves paths as packages write them', () => {
    expect([
      resolvePath('a/b', '../c.html'),
      resolvePath('', './x%20y.html'),
      resolvePath('a', '../../up'),
      resolvePath('a', '100%.html'),
      resolvePath('', 'a\\b.html'),
    ]).toEqual(['a/c.html', 'x y.html', null, 'a/100%.html', 'a/b.html'])
    expect([
      pathsMeant('a/b.html', 'mailto:x'),
      pathsMeant('a/b.html', '#x'),
      pathsMeant('a/b.html', '//h/x'),
      pathsMeant('a/b.html', '$ims-cc-filebase$../c.html?d#e'),
    ]).toEqual([null, null, null, { paths: ['c.html'], rest: '?d#e' }])
  })
})
