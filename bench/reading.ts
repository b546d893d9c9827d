// npm run bench:reading : how fast and in how much memory files are read, beside unzip and xmllint on the same file. Prints lines for docs/benchmarks.md.
import { execFileSync, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { createWriteStream, mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { finished } from 'node:stream/promises'
import { fileURLToPath } from 'node:url'
import yazl from 'yazl'
import { itemXml, manifestOf, resourceXml, zipOfFiles } from '../tests/support/archives'

const folder = mkdtempSync(join(tmpdir(), 'nt-bench-'))
const root = fileURLToPath(new URL('..', import.meta.url))
const words =
  'tide gauge spring neap harbour chart datum shore log slack ebb flood moon range height current buoy rope survey station'.split(
    ' ',
  )
let seed = 7
const next = (n: number): number => (seed = (seed * 1103515245 + 12345) % 2147483648) % n
const prose = (length: number): string => {
  let text = ''
  while (text.length < length) text += `${words[next(words.length)]}${next(1000)} `
  return text
}

/** A cartridge of some 200 MB: pictures and recordings, pages that link to them, quizzes of twenty questions, topics. */
async function makeCartridge(path: string): Promise<{ xml: number; pages: number; media: number }> {
  const zip = new yazl.ZipFile()
  const out = createWriteStream(path)
  zip.outputStream.pipe(out)
  const items: string[][] = Array.from({ length: 100 }, () => [])
  const resources: string[] = []
  const size = { xml: 0, pages: 0, media: 0 }
  const add = (
    i: number,
    kind: string,
    type: string,
    file: string,
    content: string | Buffer,
    what: keyof typeof size,
    compress = true,
  ) => {
    const bytes = Buffer.from(content)
    size[what] += bytes.length
    zip.addBuffer(bytes, file, { compress })
    resources.push(resourceXml(`r-${file}`, type, file))
    if (what !== 'media') items[i % 100]!.push(itemXml(`i-${file}`, `${kind} ${i}`, '', `r-${file}`))
  }
  const question = (n: number): string =>
    `<item ident="q${n}"><itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>cc_profile</fieldlabel><fieldentry>cc.multiple_choice.v0p1</fieldentry></qtimetadatafield></qtimetadata></itemmetadata><presentation><material><mattext texttype="text/html">&lt;p&gt;${prose(200)}&lt;/p&gt;</mattext></material><response_lid ident="r" rcardinality="Single"><render_choice>${['a', 'b', 'c', 'd'].map(id => `<response_label ident="${id}"><material><mattext texttype="text/plain">${prose(60)}</mattext></material></response_label>`).join('')}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal"/></outcomes><respcondition><conditionvar><varequal respident="r">b</varequal></conditionvar><setvar varname="SCORE">100</setvar></respcondition></resprocessing></item>`
  for (let i = 0; i < 340; i++)
    add(i, 'Media', 'webcontent', `media/${i}.mp4`, randomBytes(550_000), 'media', false)
  for (let i = 0; i < 2000; i++)
    add(
      i,
      'Page',
      'webcontent',
      `pages/${i}.html`,
      `<h1>Page ${i}</h1>${Array.from({ length: 10 }, () => `<p>${prose(700)} <a href="${next(2000)}.html">on</a> <img src="../media/${next(340)}.mp4"></p>`).join('\n')}`,
      'pages',
    )
  for (let i = 0; i < 500; i++)
    add(
      i,
      'Quiz',
      'imsqti_xmlv1p2/imscc_xmlv1p3/assessment',
      `quizzes/${i}.xml`,
      `<?xml version="1.0"?><questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="a${i}" title="Quiz ${i}"><section ident="s">${Array.from({ length: 20 }, (_, n) => question(n)).join('\n')}</section></assessment></questestinterop>`,
      'xml',
    )
  for (let i = 0; i < 1500; i++)
    add(
      i,
      'Topic',
      'imsdt_xmlv1p3',
      `topics/${i}.xml`,
      `<?xml version="1.0"?><topic xmlns="http://www.imsglobal.org/xsd/imsccv1p3/imsdt_v1p3"><title>Topic ${i}</title><text texttype="text/html">&lt;p&gt;${prose(2000)}&lt;/p&gt;</text></topic>`,
      'xml',
    )
  const manifest = manifestOf(
    items.map((inner, i) => itemXml(`u${i}`, `Unit ${i}`, inner.join(''))).join(''),
    resources.join(''),
  )
  size.xml += manifest.length
  zip.addBuffer(Buffer.from(manifest), 'imsmanifest.xml')
  zip.end()
  await finished(out)
  return size
}

/** Runs a command; seconds it took and, in MiB, the most memory it held. */
function run(command: string, words: string[]): Promise<{ seconds: number; peak: number; output: string }> {
  return new Promise((resolve, reject) => {
    const start = performance.now()
    const child = spawn(command, words, { cwd: root, stdio: ['ignore', 'pipe', 'inherit'] })
    let peak = 0
    let output = ''
    const look = setInterval(() => {
      try {
        peak = Math.max(
          peak,
          Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${child.pid}/status`, 'utf8'))?.[1] ?? 0) / 1024,
        )
      } catch {
        /* it has just ended */
      }
    }, 20)
    child.stdout.on('data', (chunk: Buffer) => {
      output += chunk.toString()
    })
    child.on('error', reject)
    child.on('close', () => {
      clearInterval(look)
      resolve({ seconds: (performance.now() - start) / 1000, peak, output })
    })
  })
}
const median = (values: number[]): number => values.sort((a, b) => a - b)[values.length >> 1]!
const reader = (file: string) => run(process.execPath, ['--import', 'tsx', 'scripts/read.ts', file])
const MiB = (bytes: number): string => `${(bytes / 1048576).toFixed(0)} MiB`

try {
  const file = join(folder, 'course.imscc')
  const size = await makeCartridge(file)
  const ours: number[] = []
  const theirs: number[] = []
  let peak = 0
  for (let i = 0; i < 5; i++) {
    const mine = await reader(file)
    if (!mine.output.includes('"outcome":"read"')) throw new Error(mine.output.slice(0, 500))
    ours.push(mine.seconds)
    peak = Math.max(peak, mine.peak)
    const out = join(folder, 'out')
    const start = performance.now()
    execFileSync('unzip', ['-q', file, '-d', out])
    execFileSync('sh', ['-c', `find "${out}" -name '*.xml' -print0 | xargs -0 xmllint --noout`])
    theirs.push((performance.now() - start) / 1000)
    rmSync(out, { recursive: true })
  }
  console.log(
    `- A cartridge of ${MiB(statSync(file).size)} (unpacked ${MiB(size.media)} media, ${MiB(size.pages)} pages, ${MiB(size.xml)} XML; 4 340 files): read in ${median(ours).toFixed(2)} s, at most ${peak.toFixed(0)} MiB of memory; unzip and xmllint ${median(theirs).toFixed(2)} s; ratio ${(median(ours) / median(theirs)).toFixed(2)} (medians of 5)`,
  )

  const students = Array.from(
    { length: 12_500 },
    (_, i) => `u${i},active,,true,o1,student,u${i},,Given${i},Family${i}`,
  )
  const classes = Array.from(
    { length: 1000 },
    (_, i) => `k${i},active,,Class ${i},c1,K ${i},scheduled,,o1,s1`,
  )
  const bundle = join(folder, 'bundle.zip')
  writeFileSync(
    bundle,
    zipOfFiles({
      'manifest.csv': [
        'propertyName,value',
        'manifest.version,1.0',
        'oneroster.version,1.1',
        ...['orgs', 'users', 'academicSessions', 'courses', 'classes', 'enrollments'].map(
          name => `file.${name},bulk`,
        ),
      ].join('\r\n'),
      'orgs.csv':
        'sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId\r\no1,active,,School,school,,\r\n',
      'users.csv': [
        'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName',
        ...students,
      ].join('\r\n'),
      'academicSessions.csv':
        'sourcedId,status,dateLastModified,title,type,startDate,endDate\r\ns1,active,,Spring,term,2027-01-06,2027-04-09\r\n',
      'courses.csv':
        'sourcedId,status,dateLastModified,schoolYearSourcedId,title,courseCode,grades,orgSourcedId\r\nc1,active,,,Sea,SEA 1,,o1\r\n',
      'classes.csv': [
        'sourcedId,status,dateLastModified,title,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds',
        ...classes,
      ].join('\r\n'),
      'enrollments.csv': [
        'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role',
        ...Array.from(
          { length: 50_000 },
          (_, i) => `e${i},active,,k${i % 1000},o1,u${(i * 7) % 12_500},student`,
        ),
      ].join('\r\n'),
    }),
  )
  const roster = await reader(bundle)
  console.log(
    `- A OneRoster bundle with 50 000 enrolments (${JSON.parse(roster.output).counts.enrollments} read): ${roster.seconds.toFixed(2)} s, ${roster.peak.toFixed(0)} MiB`,
  )

  const events = join(folder, 'events.ics')
  writeFileSync(
    events,
    [
      'BEGIN:VCALENDAR',
      'VERSION:2.0',
      ...Array.from(
        { length: 100_000 },
        (_, i) =>
          `BEGIN:VEVENT\r\nUID:${i}\r\nDTSTAMP:20270101T000000Z\r\nDTSTART;VALUE=DATE:2027${String(1 + (i % 12)).padStart(2, '0')}${String(1 + (i % 28)).padStart(2, '0')}\r\nSUMMARY:Event ${i}\r\n${i % 20 === 0 ? 'RRULE:FREQ=MONTHLY;COUNT=3\r\n' : ''}END:VEVENT`,
      ),
      'END:VCALENDAR',
      '',
    ].join('\r\n'),
  )
  const calendar = await reader(events)
  console.log(
    `- A calendar of 100 000 events, 5 000 of them with a rule (${JSON.parse(calendar.output).counts.events} read): ${calendar.seconds.toFixed(2)} s, ${calendar.peak.toFixed(0)} MiB`,
  )
  writeFileSync(
    events,
    [
      'BEGIN:VCALENDAR',
      ...Array.from(
        { length: 100_000 },
        (_, i) =>
          `BEGIN:VEVENT\r\nDTSTART;VALUE=DATE:20270101\r\nRRULE:FREQ=DAILY\r\nSUMMARY:${i}\r\nEND:VEVENT`,
      ),
      'END:VCALENDAR',
      '',
    ].join('\r\n'),
  )
  const endless = await reader(events)
  console.log(
    `- 100 000 events that repeat daily without end: refused in ${endless.seconds.toFixed(2)} s (${JSON.parse(endless.output).findings.at(-1).message})`,
  )
} finally {
  rmSync(folder, { recursive: true, force: true })
}
