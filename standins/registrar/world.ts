import { present } from '../../core/present'
import { readFileSync } from 'node:fs'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import Papa from 'papaparse'

type Row = Record<string, string> & { sourcedId: string }
export type Tables = Record<
  'orgs' | 'users' | 'courses' | 'classes' | 'enrollments' | 'academicSessions',
  Row[]
>
const stamp = '2027-01-05T12:00:00.000Z'
const active = { status: 'active', dateLastModified: stamp }

function read(): { tables: Tables; manifest: string } {
  const files = unzipSync(
    readFileSync(new URL('../../demo/files/port-ellery.oneroster.zip', import.meta.url)),
  )
  const tables: Record<string, Row[]> = {}
  for (const [name, bytes] of Object.entries(files))
    if (name !== 'manifest.csv')
      tables[name.replace('.csv', '')] = Papa.parse<Row>(strFromU8(bytes), {
        header: true,
        skipEmptyLines: true,
      }).data
  const { orgs, users, courses, classes, enrollments, academicSessions } = tables
  const manifest = files['manifest.csv']
  if (!orgs || !users || !courses || !classes || !enrollments || !academicSessions || !manifest)
    throw new Error('the demo roster lacks a table; make it again with npm run demo:make')
  return {
    tables: { ...tables, orgs, users, courses, classes, enrollments, academicSessions },
    manifest: strFromU8(manifest),
  }
}

const course = (key: string, code: string, title: string, org: string): Row => ({
  sourcedId: key,
  ...active,
  schoolYearSourcedId: '',
  title,
  courseCode: code,
  grades: '',
  orgSourcedId: org,
  subjects: '',
  subjectCodes: '',
})
const section = (
  key: string,
  courseKey: string,
  code: string,
  title: string,
  org: string,
  term: string,
  location: string,
  periods: string,
): Row => ({
  sourcedId: key,
  ...active,
  title,
  grades: '',
  courseSourcedId: courseKey,
  classCode: code,
  classType: 'scheduled',
  location,
  schoolSourcedId: org,
  termSourcedIds: term,
  subjects: '',
  subjectCodes: '',
  periods,
})
const user = (
  key: string,
  role: string,
  login: string,
  givenName: string,
  familyName: string,
  org: string,
): Row => ({
  sourcedId: key,
  ...active,
  enabledUser: 'true',
  orgSourcedIds: org,
  role,
  username: login,
  userIds: '',
  givenName,
  familyName,
  middleName: '',
  identifier: key.toUpperCase(),
  email: `${login}@port-ellery.example`,
  sms: '',
  phone: '',
  agentSourcedIds: '',
  grades: '',
  password: '',
})
const enrol = (classKey: string, userKey: string, role: string, org: string): Row => ({
  sourcedId: `en-${classKey}-${userKey}`,
  ...active,
  classSourcedId: classKey,
  schoolSourcedId: org,
  userSourcedId: userKey,
  role,
  primary: String(role === 'teacher'),
  beginDate: '',
  endDate: '',
})

const hydrography = 'org-hydrography'
const bakery = 'org-bakery'
/**
 * What happens at the registrar of Port Ellery, a step at a time: shells appear, people join and drop, a class moves its days, one is not
 * listed any more.
 */
export const events: { what: string; change: (tables: Tables) => void }[] = [
  {
    what: 'HYD 310-01 Estuary Fieldwork appears for spring, with twelve students; three people join HYD 240-01',
    change: tables => {
      tables.courses.push(course('co-hyd310', 'HYD 310', 'Estuary Fieldwork', hydrography))
      tables.classes.push(
        section(
          'hyd310-01-2027s',
          'co-hyd310',
          'HYD 310-01',
          'Estuary Fieldwork',
          hydrography,
          '2027-spring',
          'Boat shed',
          'FR 13:00-16:50',
        ),
      )
      tables.enrollments.push(enrol('hyd310-01-2027s', 'pe-marchetti', 'teacher', hydrography))
      const some = tables.users.filter(row => row.role === 'student').slice(0, 12)
      for (const row of some)
        tables.enrollments.push(enrol('hyd310-01-2027s', row.sourcedId, 'student', hydrography))
      for (const row of some.slice(0, 3))
        tables.enrollments.push(enrol('hyd240-01-2027s', row.sourcedId, 'student', hydrography))
    },
  },
  {
    what: 'one of the three drops HYD 240-01; HYD 240-02 moves to Tuesday and Thursday',
    change: tables => {
      const drop = present(tables.users.filter(row => row.role === 'student')[0])
      const row = present(
        tables.enrollments.find(
          entry => entry.classSourcedId === 'hyd240-01-2027s' && entry.userSourcedId === drop.sourcedId,
        ),
      )
      row.status = 'tobedeleted'
      Object.assign(present(tables.classes.find(entry => entry.sourcedId === 'hyd240-02-2027s')), {
        periods: 'TU 13:00-14:15,TH 13:00-14:15',
      })
    },
  },
  {
    what: 'BKG 115 Bread Science appears with two sections on different days; HYD 240-01 appears for summer',
    change: tables => {
      if (!tables.orgs.some(org => org.sourcedId === bakery))
        tables.orgs.push({
          sourcedId: bakery,
          ...active,
          name: 'Department of Baking',
          type: 'department',
          identifier: 'PEI-BKG',
          parentSourcedId: 'org-port-ellery',
        })
      tables.users.push(user('pe-quist', 'teacher', 'quist', 'Ansel', 'Quist', bakery))
      if (!tables.courses.some(entry => entry.sourcedId === 'co-bkg115'))
        tables.courses.push(course('co-bkg115', 'BKG 115', 'Bread Science', bakery))
      for (const [number, periods] of [
        ['01', 'MO 08:30-09:45,WE 08:30-09:45'],
        ['02', 'TU 10:00-11:15,TH 10:00-11:15'],
      ] as const) {
        tables.classes.push(
          section(
            `bkg115-${number}-2027s`,
            'co-bkg115',
            `BKG 115-${number}`,
            'Bread Science',
            bakery,
            '2027-spring',
            'Oven hall',
            periods,
          ),
        )
        for (const teacher of ['pe-quist', 'pe-sorrel'])
          tables.enrollments.push(enrol(`bkg115-${number}-2027s`, teacher, 'teacher', bakery))
      }
      tables.classes.push(
        section(
          'hyd240-01-2027u',
          'co-hyd240',
          'HYD 240-01',
          'Tidal Hydrography',
          hydrography,
          '2027-summer',
          'Tide room',
          'MO 09:30-11:00,WE 09:30-11:00,FR 09:30-11:00',
        ),
      )
      tables.enrollments.push(enrol('hyd240-01-2027u', 'pe-marchetti', 'teacher', hydrography))
    },
  },
  {
    what: 'two people are not listed in HYD 240-01 any more, without a word',
    change: tables => {
      const gone = tables.enrollments
        .filter(row => row.classSourcedId === 'hyd240-01-2027s' && row.role === 'student')
        .slice(0, 2)
      tables.enrollments = tables.enrollments.filter(row => !gone.includes(row))
    },
  },
]

/** Ways in which the registrar's list can be bad. */
export const faults = ['none', 'down', 'slow', 'half', 'header', 'twice', 'large'] as const
export type Fault = (typeof faults)[number]

/** The bundle as it stands after so many events, with a fault in its contents where one is asked for. */
export function bundleAfter(step: number, fault: Fault = 'none'): Uint8Array {
  const { tables, manifest } = read()
  for (const { change } of events.slice(0, step)) change(tables)
  if (fault === 'twice') tables.enrollments.push({ ...present(tables.enrollments[0]) })
  if (fault === 'header')
    tables.enrollments = tables.enrollments.map(({ userSourcedId, ...row }) => ({
      ...row,
      person: present(userSourcedId),
    }))
  if (fault === 'large') {
    const extra = Array.from({ length: 50_000 }, (_, n) => `st-large-${n}`)
    tables.users.push(
      ...extra.map((key, n) => ({
        ...user(key, 'student', key, 'Student', `Number ${n}`, hydrography),
        email: '',
      })),
    )
    const classes = tables.classes.map(row => row.sourcedId)
    tables.enrollments.push(
      ...extra.map((key, n) => enrol(present(classes[n % classes.length]), key, 'student', hydrography)),
    )
  }
  const bytes = zipSync(
    {
      'manifest.csv': strToU8(manifest),
      ...Object.fromEntries(
        Object.entries(tables).map(([name, rows]) => [
          `${name}.csv`,
          strToU8(`${Papa.unparse(rows, { newline: '\r\n' })}\r\n`),
        ]),
      ),
    },
    { level: 6, mtime: stamp },
  )
  return fault === 'half' ? bytes.subarray(0, Math.floor(bytes.length / 2)) : bytes
}
