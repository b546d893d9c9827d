import fc from 'fast-check'
import { itemXml, manifestOf, resourceXml, zipOf, zipOfFiles, type ZipEntry } from '../support/archives'
import { cartridgeFiles, pages, rosterFiles, wholeFiles } from './seeds'

/** What is given to a reader: a file, or a page to show. */
export type Input = { name: string; bytes: Buffer } | { html: string }
export const targets = [
  'zip',
  'icalendar',
  'table',
  'package',
  'entries',
  'tree',
  'questions',
  'roster',
  'calendar',
  'sheet',
  'html',
] as const
export type Target = (typeof targets)[number]

const words: Record<string, string[]> = {
  xml: [
    '<!DOCTYPE a [<!ENTITY b "c">]>',
    '&b;',
    '&#0;',
    '&#x110000;',
    ']]>',
    '<![CDATA[',
    '<?xml version="1.1" encoding="UTF-16"?>',
    '<!--',
    '-->',
    '../',
    '..\\',
    '/etc/passwd',
    'file:///',
    '$IMS-CC-FILEBASE$',
    '%00',
    '%2e%2e%2f',
    '<item identifier="x">',
    '</item>',
    '<resource identifier="r1" href="',
    ' xmlns=""',
    'xml:base="../"',
    ' identifierref="r1"',
    '<file href="imsmanifest.xml"/>',
    '<dependency identifierref="r1"/>',
    '\0',
    '\uFEFF',
    '\uFFFE',
    '\u202E',
    '<a'.repeat(50),
    '1e309',
    '-0',
    'NaN',
    'imsccv1p1',
    '1.2.0',
  ],
  calendar: [
    'FREQ=SECONDLY',
    'FREQ=MINUTELY;BYSECOND=59',
    'INTERVAL=0',
    'INTERVAL=999999999',
    'COUNT=999999999',
    'UNTIL=99991231',
    'BYDAY=53MO',
    'BYMONTH=13',
    'BYMONTHDAY=31;BYMONTH=2',
    'BYYEARDAY=366',
    'BYWEEKNO=53',
    'BYSETPOS=-366',
    'BYHOUR=0,1,2,3,4,5,6,7,8,9,10,11,12,13,14,15,16,17,18,19,20,21,22,23',
    'DURATION:P99999999W',
    'DURATION:-P1D',
    'DTSTART:00000101',
    'DTSTART:99991231T235960Z',
    'DTSTART;TZID=Nowhere:20270101T000000',
    'RDATE:20270101,20270102',
    'EXDATE:',
    '\r\nBEGIN:VEVENT\r\n',
    '\r\nEND:VEVENT\r\n',
    'BEGIN:VCALENDAR',
    'TZOFFSETTO:+9999',
    'TZOFFSETFROM:-0000',
    '\r\n ',
    '\t',
    '\\',
    '"',
    ';',
    ',',
    '\0',
    'RECURRENCE-ID:20270108T093000',
    'RRULE:',
  ],
  table: [
    '"',
    '""',
    '\r',
    '\n',
    ';',
    '\t',
    ',',
    "=cmd|' /C calc'!A0",
    '@',
    '\0',
    '\uFEFF',
    '29/02/2027',
    '31/12/9999',
    '0000-00-00',
    '1/2/03',
    '2027-02-30',
    '45000',
    '１５．２．２０２７',
    'tobedeleted',
    'active',
    'sourcedId',
    'next Friday',
    '12 months ago',
    'x'.repeat(300),
  ],
  html: [
    '<script>',
    '</script>',
    '<svg',
    '<math>',
    ' onerror=alert(1)',
    'javascript:',
    'data:text/html,',
    'java&#10;script:',
    '//outside.example/',
    '<style>',
    '</style>',
    '<!--',
    '-->',
    '<![CDATA[',
    ']]>',
    '<template>',
    '<noscript>',
    '<iframe srcdoc="',
    '<img src=x ',
    'style="background:url(//outside.example)"',
    '\0',
    '&colon;',
    '&NewLine;',
    '<a href="',
    '">',
    "'>",
    '<textarea>',
    '<title>',
    '<xmp>',
    '<plaintext>',
    '<form id=x>',
    '<select><option>',
    '<table><tr><td>',
    '<annotation-xml encoding="text/html">',
    '<foreignObject>',
    '<mglyph>',
    'course-item:',
    '<base href=//outside.example>',
  ],
}

interface Change {
  what: 'flip' | 'cut' | 'twice' | 'word' | 'bytes' | 'end' | 'swap'
  at: number
  length: number
  byte: number
  word: number
  bytes: Uint8Array
}
const change: fc.Arbitrary<Change> = fc.record({
  what: fc.constantFrom('flip', 'cut', 'twice', 'word', 'word', 'bytes', 'end', 'swap'),
  at: fc.noBias(fc.nat(1_000_000)).map(n => n / 1_000_000),
  length: fc.oneof(fc.nat(8), fc.nat(400)),
  byte: fc.nat(255),
  word: fc.nat(1000),
  bytes: fc.uint8Array({ maxLength: 12 }),
})
const changes = fc.array(change, { minLength: 1, maxLength: 6 })

function changed(bytes: Buffer, list: readonly Change[], dictionary: readonly string[]): Buffer {
  let now = bytes
  for (const { what, at, length, byte, word, bytes: fresh } of list) {
    const start = Math.min(now.length, Math.floor(at * (now.length + 1)))
    const before = now.subarray(0, start)
    const after = now.subarray(start)
    if (what === 'flip' && after.length > 0) {
      now = Buffer.from(now)
      now[start]! ^= byte || 1
    } else if (what === 'cut') now = Buffer.concat([before, after.subarray(length)])
    else if (what === 'twice') now = Buffer.concat([before, after.subarray(0, length), after])
    else if (what === 'word')
      now = Buffer.concat([before, Buffer.from(dictionary[word % dictionary.length]!), after])
    else if (what === 'bytes') now = Buffer.concat([before, fresh, after.subarray(fresh.length)])
    else if (what === 'end') now = start > now.length / 2 ? before : now
    else if (what === 'swap') now = Buffer.concat([after.subarray(length), before, after.subarray(0, length)])
  }
  return now
}
const mutated = (
  name: string,
  seeds: readonly Buffer[],
  dictionary: readonly string[],
): fc.Arbitrary<Input> =>
  fc
    .tuple(fc.constantFrom(...seeds), changes)
    .map(([seed, list]) => ({ name, bytes: changed(seed, list, dictionary) }))
/** A good archive of which one file, or its name, is changed. */
const mutatedArchive = (
  name: string,
  files: Record<string, string>,
  dictionary: readonly string[],
): fc.Arbitrary<Input> =>
  fc
    .tuple(fc.constantFrom(...Object.keys(files)), changes, fc.boolean(), fc.nat(20))
    .map(([path, list, tidy, rename]) => {
      const content = changed(Buffer.from(files[path]!), list, dictionary)
      const entries = Object.entries(files).map(([key, was]): [string, string | Buffer] => [
        key === path && rename === 0 ? changed(Buffer.from(key), list, dictionary).toString() : key,
        key === path ? (tidy ? content.toString() : content) : was,
      ])
      return { name, bytes: zipOf(entries.map(([entry, what]) => ({ name: entry, content: what }))) }
    })

const anyText = fc.oneof(
  fc.string({ maxLength: 12 }),
  fc.string({ unit: 'binary', maxLength: 8 }),
  fc.constantFrom(...words.xml!),
  fc.constantFrom('a.html', 'b/c.html', 'r1', 'r2', 'i1', 'Unit', ''),
)
const escaped = (text: string): string =>
  text
    .replace(/[\0-\x08\x0B\x0C\x0E-\x1F\uFFFE\uFFFF]|\p{Cs}/gu, '?')
    .replace(/[&<>"]/g, character => `&#${character.charCodeAt(0)};`)
const ref = fc.constantFrom('r0', 'r1', 'r2', 'r3', 'r4', 'rx', '')
interface Branch {
  id: string
  title: string
  ref: string
  inner: readonly Branch[]
}
const { branch } = fc.letrec<{ branch: Branch }>(tie => ({
  branch: fc.record({
    id: fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f', 'g', 'h', ''),
    title: anyText,
    ref,
    inner: fc.oneof(
      { depthSize: 'small' },
      fc.constant<readonly Branch[]>([]),
      fc.array(tie('branch'), { maxLength: 4 }),
    ),
  }),
}))
const branchXml = (node: Branch): string =>
  itemXml(node.id, escaped(node.title), node.inner.map(branchXml).join(''), node.ref)
const types = [
  'webcontent',
  'imsdt_xmlv1p1',
  'imsdt_xmlv1p3',
  'imswl_xmlv1p2',
  'imsqti_xmlv1p2/imscc_xmlv1p1/assessment',
  'imsqti_xmlv1p2/imscc_xmlv1p3/question-bank',
  'imsbasiclti_xmlv1p0',
  'assignment_xmlv1p0',
  'associatedcontent/imscc_xmlv1p1/learning-application-resource',
  'x',
  '',
]
const paths = Object.keys(cartridgeFiles)
/** Packages of any shape: trees, resources and what they name. */
const tree: fc.Arbitrary<Input> = fc
  .record({
    top: fc.array(branch, { maxLength: 5 }),
    version: fc.constantFrom('1.0.0', '1.1.0', '1.2.0', '1.3.0', '1.1.0', '1.2.0', '1.3.0', '1.3', '2.0', ''),
    resources: fc.array(
      fc.record({
        id: ref,
        type: fc.constantFrom(...types),
        href: fc.oneof(
          { weight: 6, arbitrary: fc.constantFrom(...paths) },
          { weight: 1, arbitrary: anyText },
        ),
        needs: ref,
        more: fc.oneof({ weight: 3, arbitrary: fc.constant('') }, { weight: 1, arbitrary: anyText }),
      }),
      { maxLength: 8 },
    ),
    page: fc.array(fc.oneof(anyText, fc.constantFrom(...pages)), { maxLength: 5 }),
    folder: fc.constantFrom('', '', '', 'inner/'),
  })
  .map(({ top, version, resources, page, folder }) => ({
    name: 'tree.imscc',
    bytes: zipOfFiles(
      Object.fromEntries(
        Object.entries({
          ...cartridgeFiles,
          'pages/one.html': page.join(''),
          'imsmanifest.xml': manifestOf(
            top.map(branchXml).join(''),
            resources
              .map(entry =>
                resourceXml(
                  entry.id,
                  entry.type,
                  escaped(entry.href),
                  `${entry.more && `<file href="${escaped(entry.more)}"/>`}${entry.needs && `<dependency identifierref="${entry.needs}"/>`}`,
                ),
              )
              .join(''),
            version,
          ),
        }).map(([path, content]) => [folder + path, content]),
      ),
    ),
  }))

const names = [
  'assessment',
  'objectbank',
  'section',
  'item',
  'presentation',
  'material',
  'mattext',
  'response_lid',
  'response_str',
  'render_choice',
  'render_fib',
  'response_label',
  'resprocessing',
  'outcomes',
  'decvar',
  'respcondition',
  'conditionvar',
  'varequal',
  'varsubstring',
  'and',
  'or',
  'not',
  'other',
  'setvar',
  'displayfeedback',
  'itemfeedback',
  'solution',
  'hint',
  'rubric',
  'flow',
  'flow_mat',
  'qtimetadata',
  'qtimetadatafield',
  'fieldlabel',
  'fieldentry',
  'itemmetadata',
  'flow_label',
  'matimage',
]
interface Element {
  name: string
  attributes: [string, string][]
  inner: (Element | string)[]
}
const { element } = fc.letrec<{ element: Element }>(tie => ({
  element: fc.record({
    name: fc.constantFrom(...names),
    attributes: fc.array(
      fc.tuple(
        fc.constantFrom(
          'ident',
          'title',
          'respident',
          'linkrefid',
          'rcardinality',
          'varname',
          'texttype',
          'case',
          'continue',
          'feedbacktype',
        ),
        fc.oneof(
          fc.constantFrom('a', 'b', 'r', 'SCORE', 'Yes', 'No', 'Multiple', 'text/html', 'Response'),
          anyText,
        ),
      ),
      { maxLength: 3 },
    ),
    inner: fc.array(fc.oneof({ depthSize: 'small' }, anyText, tie('element')), { maxLength: 4 }),
  }),
}))
const elementXml = (part: Element | string): string =>
  typeof part === 'string'
    ? escaped(part)
    : `<${part.name}${[...new Map(part.attributes)].map(([name, value]) => ` ${name}="${escaped(value)}"`).join('')}>${part.inner.map(elementXml).join('')}</${part.name}>`
/** Questions of any shape, below the elements that questions have. */
const questions: fc.Arbitrary<Input> = fc
  .tuple(
    fc.array(element, { maxLength: 6 }),
    fc.constantFrom('quiz.xml', 'bank.xml'),
    fc.constantFrom('item', 'section', 'assessment', 'resprocessing', 'presentation'),
  )
  .map(([parts, file, inside]) => ({
    name: 'questions.imscc',
    bytes: zipOfFiles({
      ...cartridgeFiles,
      [file]: cartridgeFiles[file]!.replace(
        new RegExp(`(<${inside}[^>]*>)`),
        (_, open: string) => open + parts.map(elementXml).join(''),
      ),
    }),
  }))

const entry: fc.Arbitrary<ZipEntry> = fc
  .record({
    name: fc.oneof(
      { weight: 4, arbitrary: fc.constantFrom(...paths) },
      { weight: 1, arbitrary: anyText },
      {
        weight: 1,
        arbitrary: fc.constantFrom(
          '../a',
          '/a',
          'C:\\a',
          'a/../../b',
          'a\\..\\..\\b',
          'pages',
          'pages/',
          'x\0y',
        ),
      },
    ),
    content: fc.oneof(
      { weight: 3, arbitrary: fc.constantFrom(...Object.values(cartridgeFiles)) },
      { weight: 1, arbitrary: anyText },
    ),
    method: fc.constantFrom(8, 8, 8, 0, 0, 9, 99),
    mode: fc.constantFrom(0, 0, 0, 0o100644, 0o120777, 0o040755, 0o020000),
  })
  .chain(made =>
    fc
      .record(
        {
          size: fc.nat(0xffffffff),
          sum: fc.nat(0xffffffff),
          flags: fc.constantFrom(0, 1, 8, 0x800, 0x2001),
          localName: anyText,
          over: fc.nat(3),
        },
        { requiredKeys: [] },
      )
      .chain(lies => fc.boolean().map(honest => (honest ? made : { ...made, ...lies }))),
  )
/** Archives that lie, entry by entry. */
const entries: fc.Arbitrary<Input> = fc
  .tuple(fc.array(entry, { minLength: 1, maxLength: 6 }), fc.constantFrom(0, 0, 0, 1, -1, 5000), fc.boolean())
  .map(([list, off, manifest]) => {
    const all = (
      manifest ? [{ name: 'imsmanifest.xml', content: cartridgeFiles['imsmanifest.xml']! }, ...list] : list
    ).map((one, at) => (one.over === undefined || one.over >= at ? { ...one, over: undefined } : one))
    return { name: 'entries.imscc', bytes: zipOf(all, Math.max(0, all.length + off)) }
  })

const numbers = fc.oneof(fc.integer({ min: -60, max: 400 }), fc.constantFrom(0, 1, 53, 366, 1e9, -1))
const list = (one: fc.Arbitrary<string | number>) =>
  fc.array(one, { minLength: 1, maxLength: 4 }).map(all => all.join(','))
const moment = fc.oneof(
  fc
    .tuple(
      fc.integer({ min: 1, max: 9999 }),
      fc.integer({ min: 0, max: 13 }),
      fc.integer({ min: 0, max: 32 }),
      fc.constantFrom('', 'T093000', 'T235959Z', 'T240000'),
    )
    .map(
      ([y, m, d, t]) =>
        `${String(y).padStart(4, '0')}${String(m).padStart(2, '0')}${String(d).padStart(2, '0')}${t}`,
    ),
  fc.constantFrom('20270108', '20270108T093000', '20270108T093000Z', ''),
)
const rule = fc
  .record(
    {
      FREQ: fc.constantFrom(
        'YEARLY',
        'MONTHLY',
        'WEEKLY',
        'DAILY',
        'HOURLY',
        'MINUTELY',
        'SECONDLY',
        'NEVER',
      ),
      INTERVAL: numbers,
      COUNT: numbers,
      UNTIL: moment,
      BYDAY: list(fc.constantFrom('MO', 'TU', '1FR', '-1SU', '5SA', '53WE', 'XX')),
      BYMONTHDAY: list(numbers),
      BYYEARDAY: list(numbers),
      BYWEEKNO: list(numbers),
      BYMONTH: list(fc.integer({ min: -1, max: 14 })),
      BYSETPOS: list(numbers),
      BYHOUR: list(fc.integer({ min: 0, max: 25 })),
      BYMINUTE: list(fc.integer({ min: 0, max: 61 })),
      BYSECOND: list(fc.integer({ min: 0, max: 61 })),
      WKST: fc.constantFrom('MO', 'SU', 'TH'),
    },
    { requiredKeys: ['FREQ'] },
  )
  .map(parts =>
    Object.entries(parts)
      .map(pair => pair.join('='))
      .join(';'),
  )
const zone = fc.constantFrom('', ';VALUE=DATE', ';TZID=Halifax', ';TZID=Nowhere', ';VALUE=DATE-TIME')
const eventLine = fc.oneof(
  fc.tuple(zone, moment).map(([p, v]) => `DTSTART${p}:${v}`),
  fc.tuple(zone, moment).map(([p, v]) => `DTEND${p}:${v}`),
  rule.map(v => `RRULE:${v}`),
  rule.map(v => `EXRULE:${v}`),
  fc.tuple(zone, list(moment)).map(([p, v]) => `EXDATE${p}:${v}`),
  fc.tuple(zone, list(moment)).map(([p, v]) => `RDATE${p}:${v}`),
  fc.constantFrom(
    'DURATION:P1D',
    'DURATION:PT36H',
    'DURATION:P3W',
    'DURATION:P1Y',
    'STATUS:CANCELLED',
    'UID:a',
    'UID:b',
    'RECURRENCE-ID:20270108T093000',
    'RECURRENCE-ID;RANGE=THISANDFUTURE:20270108',
  ),
  anyText.map(text => `SUMMARY:${text.replace(/[\r\n]/g, '')}`),
)
const component = fc.oneof(
  {
    weight: 5,
    arbitrary: fc.array(eventLine, { maxLength: 7 }).map(lines => ['BEGIN:VEVENT', ...lines, 'END:VEVENT']),
  },
  {
    weight: 1,
    arbitrary: fc
      .record({
        from: fc.constantFrom('-0400', '+0000', '+2359', '-1200', '0'),
        to: fc.constantFrom('-0300', '+1400', '-0000', 'x'),
        rule,
        start: moment,
      })
      .map(({ from, to, rule: text, start }) => [
        'BEGIN:VTIMEZONE',
        'TZID:Halifax',
        'BEGIN:STANDARD',
        `DTSTART:${start}`,
        `RRULE:${text}`,
        `TZOFFSETFROM:${from}`,
        `TZOFFSETTO:${to}`,
        'END:STANDARD',
        'END:VTIMEZONE',
      ]),
  },
)
/** Calendars of any shape. */
const calendar: fc.Arbitrary<Input> = fc.array(component, { maxLength: 5 }).map(parts => ({
  name: 'calendar.ics',
  bytes: Buffer.from(['BEGIN:VCALENDAR', 'VERSION:2.0', ...parts.flat(), 'END:VCALENDAR', ''].join('\r\n')),
}))

const cell = fc.oneof(
  fc.constantFrom(
    '2027-02-15',
    '15/2/2027',
    '2/15/27',
    '15 Feb 2027',
    '15.02.2027',
    'Break',
    '',
    '44000',
    'Feb 15-19, 2027',
    '15 – 19 February 2027',
    'Start',
    'End date',
    'Name',
  ),
  anyText,
  fc.constantFrom(...words.table!),
)
/** Tables of dates of any shape. */
const sheet: fc.Arbitrary<Input> = fc
  .tuple(
    fc.array(fc.array(cell, { maxLength: 5 }), { maxLength: 8 }),
    fc.constantFrom(',', ';', '\t'),
    fc.constantFrom('\n', '\r\n', '\r'),
  )
  .map(([rows, delimiter, end]) => ({
    name: 'sheet.csv',
    bytes: Buffer.from(
      rows
        .map(row =>
          row
            .map(value =>
              /["\r\n]/.test(value) || value.includes(delimiter) ? `"${value.replaceAll('"', '""')}"` : value,
            )
            .join(delimiter),
        )
        .join(end),
    ),
  }))

/** Pages put together from good and bad parts. */
const html: fc.Arbitrary<Input> = fc
  .array(
    fc.oneof(
      fc.constantFrom(...pages),
      fc.constantFrom(...words.html!),
      anyText,
      fc
        .tuple(fc.constantFrom(...pages), changes)
        .map(([page, list]) => changed(Buffer.from(page), list, words.html!).toString()),
    ),
    { minLength: 1, maxLength: 6 },
  )
  .map(parts => ({ html: parts.join('') }))

/** What each target is given. */
export function inputsOf(): Record<Target, fc.Arbitrary<Input>> {
  const whole = wholeFiles()
  return {
    zip: mutated('a.zip', whole.zip!, words.xml!),
    icalendar: mutated('a.ics', whole.icalendar!, words.calendar!),
    table: mutated('a.csv', whole.table!, words.table!),
    package: mutatedArchive('package.imscc', cartridgeFiles, words.xml!),
    roster: mutatedArchive('roster.zip', rosterFiles, words.table!),
    entries,
    tree,
    questions,
    calendar,
    sheet,
    html,
  }
}
/** The input of one number: the same on every machine. */
export const inputAt = (arbitrary: fc.Arbitrary<Input>, seed: number, index: number): Input =>
  fc.sample(arbitrary, { seed: (Math.imul(seed, 0x9e3779b1) + index) | 0, numRuns: 1 })[0]!
