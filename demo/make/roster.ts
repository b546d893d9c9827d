import { present } from '../../core/present'
import { zipSync } from 'fflate'
import Papa from 'papaparse'
import { categories, type Work, type WorkUnit } from './course'
import { familyNames, givenNames, remarks } from './prose'
import { dice } from './dice'
import { everyKind, lightsAgain, lightsClass, lightsShell, lightsStudents } from './lights'
import { weaveClass } from './weave'

const stamp = '2026-12-18T12:00:00.000Z'
const source = 'hyd240-01-2026a'
const shells = [
  { id: 'hyd240-01-2027s', section: '01', students: 29, skip: 7 },
  { id: 'hyd240-02-2027s', section: '02', students: 24, skip: 16 },
  // Seven weeks in place of thirteen: here the ways in which dates cross differ to the eye.
  { id: 'hyd235-01-2027u', section: 'summer', students: 14, skip: 22 },
]

const bread = {
  id: 'co-bkg115',
  code: 'BKG 115',
  title: 'Bread Science',
  org: 'org-bakery',
  subject: 'Baking',
}
const birds = {
  id: 'co-orn130',
  code: 'ORN 130',
  title: 'Field Ornithology',
  org: 'org-ornithology',
  subject: 'Ornithology',
}
const weave = {
  id: 'co-wvg201',
  code: 'WVG 201',
  title: 'Weave Structures',
  org: 'org-weaving',
  subject: 'Weaving',
}
const lights = {
  id: 'co-lth220',
  code: 'LTH 220',
  title: 'Lights and Fog Signals',
  org: 'org-hydrography',
  subject: 'Hydrography',
}
const [autumn, spring] = ['2026-autumn', '2027-spring']
/** Small courses, taught by one person: bread in two sections, birds online, and the new shell of the weavers. */
const smallClasses = [
  { id: 'bkg115-01-2026a', course: bread, section: '01', term: autumn, room: 'Oven hall' },
  { id: 'bkg115-02-2026a', course: bread, section: '02', term: autumn, room: 'Oven hall' },
  { id: 'orn130-01-2026a', course: birds, section: '01', term: autumn, room: 'online' },
  { id: 'orn130-01-2027s', course: birds, section: '01', term: spring, room: 'online' },
  { id: 'wvg201-01-2027s', course: weave, section: '01', term: spring, room: 'Loom room' },
] as const

/** When a work is due; only works that are due have results. */
const dueOf = ({ due }: { due?: string | null }): string => present(due)
const person = (n: number, skip: number) => ({
  given: present(givenNames[n % 31]),
  family: present(familyNames[(n + skip) % 31]),
})
const studentId = (n: number): string => `st-2026-${String(n + 1).padStart(3, '0')}`
export const graded = (units: readonly WorkUnit[]): Work[] =>
  units.flatMap(unit => unit.works).filter(work => work.lineItem && work.due)

const csv = (rows: Record<string, string>[]): Uint8Array =>
  new TextEncoder().encode(`${Papa.unparse(rows, { newline: '\r\n' })}\r\n`)
const active = { status: 'active', dateLastModified: stamp }
const lineItemId = (work: Work): string =>
  work.lineItem === 'item'
    ? work.id
    : work.lineItem === 'resource'
      ? work.id.replace(/^i-/, 'r-')
      : `li-${work.id}`

/** The registrar's OneRoster 1.1 bundle: organisations, people, three classes of HYD 240, one each of HYD 235 and WVG 201, last term's line items and results. */
export function rosterBundle(units: readonly WorkUnit[]): Uint8Array {
  const staff = [
    ['pe-marchetti', 'teacher', 'marchetti', 'Isolde', 'Marchetti'],
    ['pe-okonjo', 'aide', 'okonjo', 'Tobenna', 'Okonjo'],
    ['pe-brandt', 'administrator', 'brandt', 'Lienhard', 'Brandt'],
    ['pe-ellwood', 'administrator', 'ellwood', 'Maud', 'Ellwood'],
    ['pe-aumont', 'teacher', 'aumont', 'Gervase', 'Aumont'],
    ['pe-sorrel', 'teacher', 'sorrel', 'Petra', 'Sorrel'],
    ['pe-corrigall', 'teacher', 'corrigall', 'Hanne', 'Corrigall'],
  ] as const
  const user = (
    sourcedId: string,
    role: string,
    username: string,
    givenName: string,
    familyName: string,
  ) => ({
    sourcedId,
    ...active,
    enabledUser: 'true',
    orgSourcedIds: 'org-hydrography',
    role,
    username,
    userIds: '',
    givenName,
    familyName,
    middleName: '',
    identifier: sourcedId.toUpperCase(),
    email: `${username}@port-ellery.example`,
    sms: '',
    phone: '',
    agentSourcedIds: '',
    grades: '',
    password: '',
    'metadata.nickname': '',
  })
  const students = Array.from({ length: 31 }, (_, n) => ({ id: studentId(n), ...person(n, 0) }))
  const newcomers = shells.flatMap(shell =>
    Array.from({ length: shell.students }, (_, n) => ({
      id: `st-2027-${shell.section}-${String(n + 1).padStart(3, '0')}`,
      class: shell.id,
      ...person(n, shell.skip),
    })),
  )
  const session = (sourcedId: string, title: string, startDate: string, endDate: string) => ({
    sourcedId,
    ...active,
    title,
    type: 'term',
    startDate,
    endDate,
    parentSourcedId: '',
    schoolYear: '2027',
  })
  const classRow = (sourcedId: string, section: string, term: string, location: string) => ({
    sourcedId,
    ...active,
    title: 'Tidal Hydrography',
    grades: '',
    courseSourcedId: 'co-hyd240',
    classCode: `HYD 240-${section}`,
    classType: 'scheduled',
    location,
    schoolSourcedId: 'org-hydrography',
    termSourcedIds: term,
    subjects: 'Hydrography',
    subjectCodes: '',
    periods: '',
  })
  const enrol = (classSourcedId: string, userSourcedId: string, role: string, primary = 'false') => ({
    sourcedId: `en-${classSourcedId}-${userSourcedId}`,
    ...active,
    classSourcedId,
    schoolSourcedId: 'org-hydrography',
    userSourcedId,
    role,
    primary,
    beginDate: '',
    endDate: '',
  })
  const works = graded(units)
  const roll = dice(240)
  const results = works.flatMap(work =>
    students.flatMap(({ id }, n) =>
      roll() < 0.06
        ? []
        : [
            {
              sourcedId: `re-${work.id}-${n + 1}`,
              ...active,
              lineItemSourcedId: lineItemId(work),
              studentSourcedId: id,
              scoreStatus: 'fully graded',
              score: String(Math.round(present(work.points) * (0.55 + 0.45 * roll()) * 2) / 2),
              scoreDate: dueOf(work).slice(0, 10),
              comment: roll() < 0.1 ? 'A careful hand. Say more about the uncertainty.' : '',
            },
          ],
    ),
  )
  const tables: Record<string, Record<string, string>[]> = {
    academicSessions: [
      session('2026-autumn', 'Autumn 2026', '2026-09-02', '2026-12-16'),
      session('2027-spring', 'Spring 2027', '2027-01-06', '2027-04-21'),
      session('2027-summer', 'Summer 2027', '2027-05-10', '2027-06-25'),
    ],
    categories: categories.map(([sourcedId, title]) => ({ sourcedId, ...active, title })),
    classes: [
      classRow(source, '01', '2026-autumn', 'Tide room'),
      classRow('hyd240-01-2027s', '01', '2027-spring', 'Tide room'),
      classRow('hyd240-02-2027s', '02', '2027-spring', 'Chart room'),
      {
        ...classRow('hyd235-01-2027u', '01', '2027-summer', 'Tide room'),
        title: 'Tidal Hydrography in Seven Weeks',
        courseSourcedId: 'co-hyd235',
        classCode: 'HYD 235-01',
      },
      {
        ...classRow(weaveClass, '01', '2026-autumn', 'Loom room'),
        title: 'Weave Structures',
        courseSourcedId: 'co-wvg201',
        classCode: 'WVG 201-01',
        schoolSourcedId: 'org-weaving',
        subjects: 'Weaving',
      },
      ...[
        { id: lightsClass, term: autumn },
        { id: lightsShell, term: spring },
      ].map(({ id, term }) => ({
        ...classRow(id, '01', term, 'Lamp room'),
        title: lights.title,
        courseSourcedId: lights.id,
        classCode: `${lights.code}-01`,
      })),
      ...smallClasses.map(({ id, course, section, term, room }) => ({
        ...classRow(id, section, term, room),
        title: course.title,
        courseSourcedId: course.id,
        classCode: `${course.code}-${section}`,
        schoolSourcedId: course.org,
        subjects: course.subject,
      })),
    ],
    courses: [
      {
        sourcedId: 'co-hyd240',
        ...active,
        schoolYearSourcedId: '',
        title: 'Tidal Hydrography',
        courseCode: 'HYD 240',
        grades: '',
        orgSourcedId: 'org-hydrography',
        subjects: 'Hydrography',
        subjectCodes: '',
      },
      {
        sourcedId: 'co-hyd235',
        ...active,
        schoolYearSourcedId: '',
        title: 'Tidal Hydrography in Seven Weeks',
        courseCode: 'HYD 235',
        grades: '',
        orgSourcedId: 'org-hydrography',
        subjects: 'Hydrography',
        subjectCodes: '',
      },
      {
        sourcedId: 'co-wvg201',
        ...active,
        schoolYearSourcedId: '',
        title: 'Weave Structures',
        courseCode: 'WVG 201',
        grades: '',
        orgSourcedId: 'org-weaving',
        subjects: 'Weaving',
        subjectCodes: '',
      },
      ...[bread, birds, lights].map(({ id, code, title, org, subject }) => ({
        sourcedId: id,
        ...active,
        schoolYearSourcedId: '',
        title,
        courseCode: code,
        grades: '',
        orgSourcedId: org,
        subjects: subject,
        subjectCodes: '',
      })),
    ],
    enrollments: [
      ...[source, ...shells.map(shell => shell.id)].flatMap(id => [
        enrol(id, 'pe-marchetti', 'teacher', 'true'),
        enrol(id, 'pe-okonjo', 'aide'),
      ]),
      { ...enrol(weaveClass, 'pe-aumont', 'teacher', 'true'), schoolSourcedId: 'org-weaving' },
      { ...enrol(weaveClass, 'pe-sorrel', 'teacher'), schoolSourcedId: 'org-weaving' },
      ...smallClasses.map(({ id, course }) => ({
        ...enrol(id, 'pe-sorrel', 'teacher', 'true'),
        schoolSourcedId: course.org,
      })),
      ...[lightsClass, lightsShell].map(id => enrol(id, 'pe-corrigall', 'teacher', 'true')),
      ...lightsStudents.map(({ id }) => enrol(lightsClass, id, 'student')),
      enrol(lightsShell, lightsAgain, 'student'),
      ...students.map(student => enrol(source, student.id, 'student')),
      ...newcomers.map(student => enrol(student.class, student.id, 'student')),
    ],
    lineItems: [
      ...works.map(work => ({
        sourcedId: lineItemId(work),
        ...active,
        title: work.title,
        description: '',
        assignDate: (work.opens ?? dueOf(work)).slice(0, 10),
        dueDate: dueOf(work).slice(0, 10),
        classSourcedId: source,
        categorySourcedId: present(work.category),
        gradingPeriodSourcedId: '2026-autumn',
        resultValueMin: '0',
        resultValueMax: String(work.points),
      })),
      // The registrar keeps one that no item of the course answers to: it must come out as a finding.
      {
        sourcedId: 'li-attendance',
        ...active,
        title: 'Attendance at field days',
        description: '',
        assignDate: '2026-09-02',
        dueDate: '2026-12-04',
        classSourcedId: source,
        categorySourcedId: 'cat-logs',
        gradingPeriodSourcedId: '2026-autumn',
        resultValueMin: '0',
        resultValueMax: '6',
      },
    ],
    orgs: [
      {
        sourcedId: 'org-port-ellery',
        ...active,
        name: 'Port Ellery Institute',
        type: 'school',
        identifier: 'PEI-0',
        parentSourcedId: '',
      },
      {
        sourcedId: 'org-hydrography',
        ...active,
        name: 'Department of Hydrography',
        type: 'department',
        identifier: 'PEI-HYD',
        parentSourcedId: 'org-port-ellery',
      },
      {
        sourcedId: 'org-weaving',
        ...active,
        name: 'Department of Weaving',
        type: 'department',
        identifier: 'PEI-WVG',
        parentSourcedId: 'org-port-ellery',
      },
      {
        sourcedId: 'org-bakery',
        ...active,
        name: 'Department of Baking',
        type: 'department',
        identifier: 'PEI-BKG',
        parentSourcedId: 'org-port-ellery',
      },
      {
        sourcedId: 'org-ornithology',
        ...active,
        name: 'Department of Ornithology',
        type: 'department',
        identifier: 'PEI-ORN',
        parentSourcedId: 'org-port-ellery',
      },
    ],
    results,
    users: [
      ...staff.map(([id, role, login, given, family]) => user(id, role, login, given, family)),
      ...students.map(({ id, given, family }) => user(id, 'student', id, given, family)),
      ...newcomers.map(({ id, given, family }) => user(id, 'student', id, given, family)),
      ...lightsStudents.map(({ id, given, middle, family, nickname, number, phone }) => ({
        ...user(id, 'student', id, given, family),
        middleName: middle,
        identifier: number,
        phone,
        'metadata.nickname': nickname,
        email: `${given.slice(0, 1)}.${family.split(/[^\p{L}]/u)[0]}@port-ellery.example`.toLowerCase(),
      })),
    ],
  }
  const manifest = [
    ['manifest.version', '1.0'],
    ['oneroster.version', '1.1'],
    ...Object.keys(tables).map(table => [`file.${table}`, 'bulk']),
    ...['demographics', 'resources', 'classResources', 'courseResources'].map(table => [
      `file.${table}`,
      'absent',
    ]),
    ['source.systemName', 'Port Ellery registrar'],
    ['source.systemCode', 'pei'],
  ]
  return zipSync(
    {
      'manifest.csv': csv(
        manifest.map(([propertyName, value]) => ({
          propertyName: present(propertyName),
          value: present(value),
        })),
      ),
      ...Object.fromEntries(Object.entries(tables).map(([table, rows]) => [`${table}.csv`, csv(rows)])),
    },
    { level: 9, mtime: stamp },
  )
}

const minutesBefore = (wall: string, minutes: number): string =>
  new Date(Date.parse(`${wall}Z`) - minutes * 60_000).toISOString().slice(0, 16)

/** What no standard carries of last term's class: exact times, meetings, weights, and what students did. */
export function courseJson(units: readonly WorkUnit[]): string {
  const works = units.flatMap(unit => unit.works)
  const firstTalk = works.find(work => work.kind === 'discussion')
  const roll = dice(31)
  const someone = () => Array.from({ length: 31 }, (_, n) => studentId(n)).filter(() => roll() > 0.07)
  const remark = () => present(remarks[Math.floor(roll() * remarks.length)])
  const document = {
    format: 'northtide-course',
    version: 1,
    class: source,
    meetings: [1, 3, 5].map(weekday => ({ weekday, start: '09:30', end: '10:20', room: 'Tide room' })),
    categories: categories.map(([identifier, title, weight]) => ({ identifier, title, weight })),
    items: works
      .filter(work => work.opens || work.due || work.closes || work.exam)
      .map(work => ({
        identifier: work.id,
        opens: work.opens ?? null,
        due: work.due ?? null,
        closes: work.closes ?? null,
        ...(work.exam && { exam: true }),
      })),
    submissions: works
      .filter(work => work.kind === 'assignment')
      .flatMap(work =>
        someone().map(student => ({
          student,
          item: work.id,
          at: minutesBefore(dueOf(work), 5 + Math.floor(roll() * 4000)),
          text: remark(),
        })),
      ),
    attempts: works
      .filter(work => work.kind === 'quiz')
      .flatMap(work =>
        someone().flatMap(student =>
          (roll() < 0.3 ? [1, 2] : [1]).map(number => {
            const startedAt = minutesBefore(dueOf(work), 60 + Math.floor(roll() * 3000))
            return {
              student,
              item: work.id,
              number,
              startedAt,
              finishedAt: minutesBefore(startedAt, -(4 + Math.floor(roll() * 16))),
              score: String(Math.round(roll() * present(work.quiz).length)),
            }
          }),
        ),
      ),
    posts: works
      .filter(work => work.kind === 'discussion')
      .flatMap(work =>
        someone().map(author => ({
          author,
          item: work.id,
          at: minutesBefore(dueOf(work), 30 + Math.floor(roll() * 5000)),
          text: remark(),
        })),
      ),
    ...everyKind(
      Array.from({ length: 31 }, (_, n) => studentId(n)),
      {
        work: 'i-soundings',
        quiz: 'i-midterm',
        talk: present(firstTalk).id,
        page: 'i-midterm',
        poll: 'i-midterm',
      },
    ),
    extensions: [
      { student: studentId(4), item: 'i-midterm', due: '2026-10-28T23:59', reason: 'Ill; two days agreed' },
      { student: studentId(17), item: 'i-soundings', due: '2026-11-27T23:59', reason: 'Boat out of service' },
    ],
  }
  return `${JSON.stringify(document, null, 1)}\n`
}
