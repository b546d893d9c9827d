import { strToU8, zipSync } from 'fflate'
import type { Work, WorkUnit } from './course'

/**
 * Lights and Fog Signals: a course in which last term's students stand in texts, files and settings, beside names that are only words. Every
 * one is listed in demo/traces.txt. All people are made up.
 */
export const lightsClass = 'lth220-01-2026a'
export const lightsShell = 'lth220-01-2027s'
const stamp = '2026-12-18T12:00:00Z'

export interface LightsStudent {
  id: string
  given: string
  middle: string
  family: string
  nickname: string
  number: string
  phone: string
}
const row = (n: number, given: string, family: string, middle = '', nickname = ''): LightsStudent => ({
  id: `lt-2026-${String(n).padStart(2, '0')}`,
  given,
  middle,
  family,
  nickname,
  number: `N04${170 + n * 7}`,
  phone: n % 2 ? `902-555-01${String(n).padStart(2, '0')}` : '',
})
/** Last term's: with accents, a hyphen, an apostrophe, two first names, a nickname, and names that are words. */
export const lightsStudents: readonly LightsStudent[] = [
  row(1, 'Zoë', 'Tarrant-Müller', '', 'Zozo'),
  row(2, 'Niamh', 'O’Carrow'),
  row(3, 'Will', 'Bay'),
  row(4, 'May', 'Stone'),
  row(5, 'Halvard', 'Ness', 'Erik'),
  row(6, 'Ingrith', 'Vane'),
  row(7, 'Perpetua', 'Lorne', '', 'Pip'),
  row(8, 'Maren', 'Holt'),
  row(9, 'Corwin', 'Sele'),
  row(10, 'Anna Maria', 'Quist'),
  row(11, 'Øystein', 'Brå'),
  row(12, 'Rosamund', 'Fairlie'),
  row(13, 'Jory', 'Penhallow'),
  row(14, 'Tegen', 'Carne'),
]
/** One of them takes the course again: on the new roster, too. */
export const lightsAgain = 'lt-2026-14'

const page = (id: string, title: string, html: string): Work => ({
  id,
  title,
  kind: 'page',
  page: { key: id, title, text: '' },
  html,
})
const file = (id: string, title: string, content: string | Uint8Array): Work => ({
  id,
  title,
  kind: 'file',
  raw: { ending: title.slice(title.lastIndexOf('.') + 1), content },
})
const task = (id: string, title: string, due: string, text: string): Work => ({
  id,
  title,
  kind: 'assignment',
  text,
  category: 'cat-watch',
  points: 20,
  opens: `${due.slice(0, 8)}01T08:00`,
  due: `${due}T23:59`,
})

const table = `name,number,lamp,seconds
${lightsStudents.map(({ given, family, number }, n) => `"${family}, ${given}",${number},${(n % 3) + 1},${4 + ((n * 7) % 9)}`).join('\r\n')}
`
const drawing = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 90" role="img"><title>The lamp room</title><desc>Drawn by Rosamund Fairlie for the open day</desc><rect width="200" height="90" fill="#F6F4EC"/><path d="M60 80 L80 20 L120 20 L140 80 Z" fill="none" stroke="#14263A"/><text x="82" y="14" font-size="9" fill="#14263A">lamp</text></svg>\n`

/** A text document with what programs keep in one: an author, a comment, and a name that is cut into pieces. */
function handout(): Uint8Array {
  const of = 'http://schemas.openxmlformats.org/'
  const head = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n'
  const type = 'application/vnd.openxmlformats-officedocument.wordprocessingml'
  const run = (text: string): string => `<w:r><w:t xml:space="preserve">${text}</w:t></w:r>`
  const parts = {
    '[Content_Types].xml': `<Types xmlns="${of}package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="${type}.document.main+xml"/><Override PartName="/word/comments.xml" ContentType="${type}.comments+xml"/><Override PartName="/docProps/core.xml" ContentType="application/vnd.openxmlformats-package.core-properties+xml"/></Types>`,
    '_rels/.rels': `<Relationships xmlns="${of}package/2006/relationships"><Relationship Id="r1" Type="${of}officeDocument/2006/relationships/officeDocument" Target="word/document.xml"/><Relationship Id="r2" Type="${of}package/2006/relationships/metadata/core-properties" Target="docProps/core.xml"/></Relationships>`,
    'word/document.xml': `<w:document xmlns:w="${of}wordprocessingml/2006/main"><w:body><w:p>${run('Wind the clockwork every four hours. The log of October was kept by Hal')}${run('vard Ness, who never missed a turn.')}</w:p><w:p>${run('Clean the lens from the top down.')}</w:p></w:body></w:document>`,
    'word/comments.xml': `<w:comments xmlns:w="${of}wordprocessingml/2006/main"><w:comment w:id="0" w:author="Jory Penhallow"><w:p>${run('Should this be five hours?')}</w:p></w:comment></w:comments>`,
    'docProps/core.xml': `<cp:coreProperties xmlns:cp="${of}package/2006/metadata/core-properties" xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:creator>Lorne, Perpetua</dc:creator></cp:coreProperties>`,
  }
  const files = Object.entries(parts).map(([path, inner]) => [path, strToU8(head + inner)])
  return zipSync(Object.fromEntries(files), { level: 9, mtime: stamp })
}
/** A picture of one point (ITU-T T.81), and who took it, as cameras write it down. */
function picture(): Uint8Array {
  const point = Buffer.from(
    '/9j/4AAQSkZJRgABAQEASABIAAD/2wBDAP//////////////////////////////////////////////////////////////////////////////////////wgALCAABAAEBAREA/8QAFBABAAAAAAAAAAAAAAAAAAAAAP/aAAgBAQABPxA=',
    'base64',
  )
  const said = strToU8('Photograph: Anna Maria Quist, fog hut, 12 October 2026')
  const block = new Uint8Array(said.length + 4)
  block.set([0xff, 0xfe, (said.length + 2) >> 8, (said.length + 2) & 0xff])
  block.set(said, 4)
  return new Uint8Array([...point.subarray(0, 2), ...block, ...point.subarray(2)])
}
/** Hand-ins of last term, kept as examples and named as hand-ins are. */
const logs = (): Uint8Array =>
  zipSync(
    {
      'logs/PenhallowJory_watch.txt': strToU8(
        'Watch from 20:00 to 24:00. Fog until 22:15, then clear. Kept by N04261.\n',
      ),
      'logs/how to read a log.txt': strToU8('A log says what was seen, and when.\n'),
    },
    { level: 9, mtime: stamp },
  )
/** The beginning of a sound recording (ISO/IEC 14496-12): nothing here can read what is said in it. */
const recording = (): Uint8Array =>
  Uint8Array.from([
    0,
    0,
    0,
    24,
    ...strToU8('ftypM4A '),
    0,
    0,
    2,
    0,
    ...strToU8('isomiso2'),
    ...Array.from({ length: 4000 }, (_, n) => (n * 37) % 251),
  ])
/** A PDF (ISO 32000-1) of one page with two lines. */
function leaflet(): Uint8Array {
  const text =
    'BT /F1 12 Tf 40 140 Td (The fog signal, a leaflet) Tj 0 -20 Td (Set by Øystein Brå, number N04247) Tj ET'
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 300 200] /Contents 4 0 R /Resources << /Font << /F1 5 0 R >> >> >>',
    `<< /Length ${text.length} >>\nstream\n${text}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica /Encoding /WinAnsiEncoding >>',
  ]
  let body = '%PDF-1.4\n'
  const places = objects.map((object, at) => {
    const from = body.length
    body += `${at + 1} 0 obj\n${object}\nendobj\n`
    return from
  })
  const from = body.length
  body += `xref\n0 ${objects.length + 1}\n0000000000 65535 f \n${places.map(place => `${String(place).padStart(10, '0')} 00000 n \n`).join('')}trailer\n<< /Size ${objects.length + 1} /Root 1 0 R >>\nstartxref\n${from}\n%%EOF\n`
  return Uint8Array.from(body, letter => letter.charCodeAt(0))
}

export const lightsUnits: readonly WorkUnit[] = [
  {
    id: 'l-keepers',
    title: 'Unit 1: Keepers and their lights',
    works: [
      page(
        'l-reach',
        'How to reach us',
        `<p>The hut stands on the ness above the bay. Take the stone path; it may be wet.</p>
<p>The key to the hut is with Zo&euml; Tarrant-M&uuml;ller until the end of term, and a spare one with <b>Niamh</b> O’Carrow.</p>
<p>Questions? Ring (902) 555 0109, or <a href="mailto:i.vane@port-ellery.example">write to Ingrith</a> or to i.vane@port-ellery.example.</p>
<!-- moved here by Jory Penhallow, N04261 -->`,
      ),
      page(
        'l-law',
        'Light dues and the law',
        `<h2>Holt and others against the Harbour Board, 1911</h2>
<p>Who must keep a light burning, and who pays? The Board lost. Holt Street is named after the captain, not the case.</p>
<p>A will is read after a death; a keeper’s log is read every morning. In May the days are long and a bay may lie in fog at noon.</p>`,
      ),
      page(
        'l-ness',
        'The light on the Ness',
        `<p>The Ness is the headland west of Port Ellery. From the Ness one sees eleven miles. Ness Light was lit in 1871.</p>
<p>As Corwin showed on the open day, a lamp without a lens is a candle.</p>`,
      ),
      page(
        'l-walk',
        'A walk along the shore',
        `<p>Leave the Ness on your left. Where stone gives way to sand the will of the tide is law. Will the fog lift? Look at the gulls.</p>
<p>Stone, sand, stone: count your steps to the bay.</p>`,
      ),
      file('l-drawing', 'lamp-room.svg', drawing),
      {
        id: 'l-talk',
        title: 'Which light do you know?',
        kind: 'discussion',
        text: 'Look at what Maren Holt wrote last year: it was the best answer so far. Then write of one you have seen.',
        due: '2026-09-21T23:59',
      },
    ],
  },
  {
    id: 'l-lamps',
    title: 'Unit 2: Lamps and lenses',
    works: [
      page(
        'l-lens',
        'How a lens turns',
        `<p>A bath of mercury carries three tons of glass. <img src="https://port-ellery.example/lens.png" alt="W. Bay and Stone, May at the lens" title="Photograph by lt-2026-09"> Keep your hands off.</p>`,
      ),
      task(
        'l-timing',
        'Timing the flashes',
        '2026-10-12',
        'Time ten flashes. Last year’s best log, by A. M. Quist, stands in the lamp room.',
      ),
      file('l-table', 'party-results.csv', table),
      file('l-handout', 'Winding the clockwork.docx', handout()),
      file('l-photo', 'fog-hut.jpg', picture()),
    ],
  },
  {
    id: 'l-fog',
    title: 'Unit 3: Fog, and the notes of Rosamund Fairlie',
    works: [
      page(
        'l-signal',
        'The signal',
        `<p>Two blasts every minute. The siren was mended by Lorne, Pip, in spring, says the log.</p>
<p>Thornquist’s law of echoes is not a law.</p>
<script>var lastKeeper = "lt-2026-05";</script>`,
      ),
      file('l-leaflet', 'Fog signal leaflet.pdf', leaflet()),
      file('l-logs', 'Logs to learn from.zip', logs()),
      file('l-horn', 'fog-horn.m4a', recording()),
      {
        id: 'l-quiz',
        title: 'Check: signals',
        kind: 'quiz',
        category: 'cat-checks',
        points: 10,
        opens: '2026-11-09T08:00',
        due: '2026-11-16T23:59',
        quiz: [
          ['Fog is announced by', 'two blasts a minute', 'a red light', 'silence, as Tegen Carne once wrote'],
          ['As Zozo said on the pier, a horn is heard', 'down the wind', 'up the wind'],
        ],
      },
      task(
        'l-watch',
        'A watch of four hours',
        '2026-11-27',
        'Keep the log as Oystein Brå kept his: by the quarter of an hour.',
      ),
      {
        id: 'l-tool',
        title: 'Signal trainer',
        kind: 'tool',
        url: 'https://signals.tool.example/launch?course=LTH220-2026A&learner=lt-2026-12',
        due: '2026-11-20T23:59',
      },
      {
        id: 'l-news',
        title: 'Well done, Halvard Erik Ness!',
        kind: 'discussion',
        text: 'Halvard’s log was read out at the open day. The next watch is yours.',
      },
    ],
  },
]

const instants = (n: number): string =>
  `2026-10-${String(1 + (n % 27)).padStart(2, '0')}T${String(9 + (n % 9)).padStart(2, '0')}:15`
/** Some of every kind of student data, for a roster and what its students did it on. */
export function everyKind(
  students: readonly string[],
  on: { work: string; quiz: string; talk: string; page: string; poll: string },
): Record<string, readonly unknown[]> {
  const some = <T>(every: number, of: (student: string, n: number) => T): T[] =>
    students.flatMap((student, n) => (n % every === 0 ? [of(student, n)] : []))
  return {
    reports: some(2, (student, n) => ({
      student,
      item: on.work,
      service: 'Likeness check',
      at: instants(n),
      overlap: String(3 + ((n * 5) % 31)),
    })),
    journals: some(2, (student, n) => ({
      student,
      item: on.page,
      at: instants(n),
      text: 'Fog until ten, then sun.',
    })),
    comments: some(3, (student, n) => ({
      student,
      item: on.talk,
      at: instants(n),
      text: 'I saw that light too.',
    })),
    follows: some(2, (student, n) => ({ student, item: on.talk, at: instants(n) })),
    memberships: some(1, (student, n) => ({ student, group: `Watch ${(n % 3) + 1}` })),
    answers: some(2, (student, n) => ({
      student,
      item: on.poll,
      at: instants(n),
      answer: n % 4 ? 'Thursday' : 'Friday',
    })),
    completions: some(1, (student, n) => ({ student, item: on.page, at: instants(n) })),
    attendances: some(1, (student, n) => ({
      student,
      at: '2026-10-05T14:00',
      mark: n % 5 ? 'there' : 'late',
    })),
    notes: some(6, (student, n) => ({ student, at: instants(n), text: 'Asked for a quieter desk.' })),
    awards: some(7, (student, n) => ({ student, award: 'Steady hand', at: instants(n) })),
    visits: some(1, (student, n) => ({ student, item: on.page, at: instants(n) })),
    accommodations: some(9, (student, n) => ({
      student,
      times: n % 2 ? '2' : '1.5',
      reason: 'As agreed with the access office',
    })),
    allowances: some(4, (student, n) => ({ student, item: on.work, at: instants(n), days: 1 + (n % 2) })),
    events: some(8, (student, n) => ({ student, title: 'My turn at the lamp', at: instants(n) })),
  }
}
const ids = lightsStudents.map(({ id }) => id)
export const lightsJson = (): string =>
  `${JSON.stringify(
    {
      format: 'northtide-course',
      version: 2,
      class: lightsClass,
      meetings: [{ weekday: 1, start: '14:00', end: '15:50', room: 'Lamp room' }],
      categories: [
        { identifier: 'cat-watch', title: 'Watches', weight: '60' },
        { identifier: 'cat-checks', title: 'Checks, as agreed with Ingrith Vane', weight: '40' },
      ],
      rubrics: [
        {
          identifier: 'log',
          title: 'A log',
          criteria: [
            {
              title: 'Steadiness',
              levels: [
                { title: 'as steady as Corwin Sele', points: '10' },
                { title: 'with gaps', points: '4' },
              ],
            },
          ],
        },
      ],
      items: [
        { identifier: 'l-talk', due: '2026-09-21T23:59' },
        {
          identifier: 'l-timing',
          points: '20',
          category: 'cat-watch',
          rubric: 'log',
          opens: '2026-10-01T08:00',
          due: '2026-10-12T23:59',
          settings: {
            similarity: { service: 'Likeness check', assignment: 'lc-2026-5531' },
            laterFor: { 'lt-2026-03': '2026-10-19T23:59' },
          },
        },
        {
          identifier: 'l-quiz',
          points: '10',
          category: 'cat-checks',
          opens: '2026-11-09T08:00',
          due: '2026-11-16T23:59',
          settings: { timeLimitMinutes: 20, moreTime: [{ student: 'N04198', times: '1.5' }] },
        },
        {
          identifier: 'l-watch',
          points: '20',
          category: 'cat-watch',
          opens: '2026-11-01T08:00',
          due: '2026-11-27T23:59',
        },
        {
          identifier: 'l-tool',
          settings: { parameters: { watch: '3', contact: 'm.stone@port-ellery.example' } },
        },
        { identifier: 'l-news', kind: 'announcement' },
      ],
      furniture: [
        { identifier: 'home', part: 'home', title: 'Home', item: 'l-reach' },
        {
          identifier: 'contact',
          part: 'contact',
          title: 'Hanne Corrigall',
          details: { room: 'Lamp room', hours: 'Mon 13:00–14:00, or leave word with Jory Penhallow' },
        },
      ],
      submissions: ids.map((student, n) => ({
        student,
        item: 'l-timing',
        at: instants(n),
        text: 'Ten flashes, timed.',
      })),
      attempts: ids.map((student, n) => ({
        student,
        item: 'l-quiz',
        number: 1,
        startedAt: '2026-11-12T10:00',
        finishedAt: '2026-11-12T10:14',
        score: String(4 + (n % 7)),
      })),
      posts: [
        ...ids.map((author, n) => ({ author, item: 'l-talk', at: instants(n), text: 'The one at home.' })),
        {
          author: 'pe-corrigall',
          item: 'l-talk',
          at: '2026-09-22T09:00',
          text: 'Thank you all. Mine is the Ness.',
        },
      ],
      extensions: [
        {
          student: 'lt-2026-03',
          item: 'l-timing',
          due: '2026-10-19T23:59',
          reason: 'The ferry did not sail',
        },
      ],
      ...everyKind(ids, {
        work: 'l-timing',
        quiz: 'l-quiz',
        talk: 'l-talk',
        page: 'l-reach',
        poll: 'l-talk',
      }),
    },
    null,
    1,
  )}\n`
export const lightsShellJson = (): string =>
  `${JSON.stringify(
    {
      format: 'northtide-course',
      version: 2,
      class: lightsShell,
      meetings: [{ weekday: 3, start: '14:00', end: '15:50', room: 'Lamp room' }],
    },
    null,
    1,
  )}\n`
