/** What may stand in a column: free text, a date, an instant, either of these, a number, a list of keys, one of a few words. */
export type ColumnType =
  'text' | 'date' | 'instant' | 'moment' | 'number' | 'amount' | 'keys' | readonly string[]
export interface Column {
  readonly type: ColumnType
  readonly required?: true
  readonly refers?: TableName
}
export type TableName =
  | 'orgs'
  | 'users'
  | 'academicSessions'
  | 'courses'
  | 'classes'
  | 'enrollments'
  | 'categories'
  | 'lineItems'
  | 'results'
  | 'resources'
  | 'classResources'
  | 'courseResources'
  | 'demographics'

const text: Column = { type: 'text' }
const required: Column = { type: 'text', required: true }
const someDate: Column = { type: 'date' }
/** The binding asks for a day here; an instant is met often, and says more. */
const someMoment: Column = { type: 'moment' }
const number: Column = { type: 'number' }
/** A number that is not below 0. */
const amount: Column = { type: 'amount' }
const key = (refers: TableName): Column => ({ type: 'text', required: true, refers })
const someKey = (refers: TableName): Column => ({ type: 'text', refers })
const someKeys = (refers: TableName): Column => ({ type: 'keys', refers })
const word = (...words: string[]): Column => ({ type: words, required: true })
const someWord = (...words: string[]): Column => ({ type: words })
const truth: Column = { type: ['true', 'false'] }

/**
 * The tables of 1EdTech OneRoster 1.1 CSV, in an order in which what is referred to comes first, with the columns that are
 * checked. Column names and words are those of the OneRoster 1.1 CSV binding (from memory).
 * `sourcedId`, `status` and `dateLastModified` are in every table. A column is required here where nothing can be done
 * with a row without it; the binding requires more. Any other value that is wrong costs itself, not its row.
 */
export const tables = {
  orgs: {
    name: required,
    type: someWord('department', 'district', 'local', 'national', 'school', 'state'),
    identifier: text,
    parentSourcedId: someKey('orgs'),
  },
  users: {
    enabledUser: truth,
    orgSourcedIds: someKeys('orgs'),
    role: someWord(
      'administrator',
      'aide',
      'guardian',
      'parent',
      'proctor',
      'relative',
      'student',
      'teacher',
    ),
    username: text,
    givenName: text,
    familyName: required,
    email: text,
    middleName: text,
    identifier: text,
    phone: text,
    sms: text,
    'metadata.nickname': text,
    agentSourcedIds: someKeys('users'),
  },
  academicSessions: {
    title: text,
    type: someWord('gradingPeriod', 'semester', 'schoolYear', 'term'),
    startDate: someDate,
    endDate: someDate,
    parentSourcedId: someKey('academicSessions'),
    schoolYear: text,
  },
  courses: {
    schoolYearSourcedId: someKey('academicSessions'),
    title: text,
    courseCode: text,
    orgSourcedId: someKey('orgs'),
  },
  classes: {
    title: text,
    courseSourcedId: key('courses'),
    classCode: text,
    classType: someWord('homeroom', 'scheduled'),
    location: text,
    schoolSourcedId: key('orgs'),
    termSourcedIds: { type: 'keys', required: true, refers: 'academicSessions' },
    periods: text,
  },
  enrollments: {
    classSourcedId: key('classes'),
    schoolSourcedId: someKey('orgs'),
    userSourcedId: key('users'),
    role: word('administrator', 'aide', 'proctor', 'student', 'teacher'),
    primary: truth,
    beginDate: someDate,
    endDate: someDate,
  },
  categories: { title: required },
  lineItems: {
    title: text,
    description: text,
    assignDate: someMoment,
    dueDate: someMoment,
    classSourcedId: key('classes'),
    categorySourcedId: someKey('categories'),
    gradingPeriodSourcedId: someKey('academicSessions'),
    resultValueMin: number,
    resultValueMax: amount,
  },
  results: {
    lineItemSourcedId: key('lineItems'),
    studentSourcedId: key('users'),
    scoreStatus: someWord('exempt', 'fully graded', 'not submitted', 'partially graded', 'submitted'),
    score: number,
    scoreDate: someDate,
    comment: text,
  },
  resources: {
    vendorResourceId: required,
    title: text,
    roles: text,
    importance: someWord('primary', 'secondary'),
    vendorId: text,
    applicationId: text,
  },
  classResources: { title: text, classSourcedId: key('classes'), resourceSourcedId: key('resources') },
  courseResources: { title: text, courseSourcedId: key('courses'), resourceSourcedId: key('resources') },
  // Of these only the key is looked at: what they say of a person is no business of a rollover.
  demographics: {},
} satisfies Record<TableName, Record<string, Column>>

export const tableNames = Object.keys(tables) as [TableName, ...TableName[]]
export type Row<T extends TableName> = { readonly sourcedId: string } & {
  readonly [C in keyof (typeof tables)[T]]: string
}

/** Columns that the binding has besides those above (from memory); `metadata.` before a name marks an extension. */
const further: Record<TableName, readonly string[]> = {
  orgs: [],
  users: ['userIds', 'grades', 'password'],
  academicSessions: [],
  courses: ['grades', 'subjects', 'subjectCodes'],
  classes: ['grades', 'subjects', 'subjectCodes'],
  enrollments: [],
  categories: [],
  lineItems: [],
  results: [],
  resources: [],
  classResources: [],
  courseResources: [],
  demographics: [
    'birthDate',
    'sex',
    'americanIndianOrAlaskaNative',
    'asian',
    'blackOrAfricanAmerican',
    'nativeHawaiianOrOtherPacificIslander',
    'white',
    'demographicRaceTwoOrMoreRaces',
    'hispanicOrLatinoEthnicity',
    'countryOfBirthCode',
    'stateOfBirthAbbreviation',
    'cityOfBirth',
    'publicSchoolResidenceStatus',
  ],
}
/** Whether a table of the binding has a column, however it is spelled; an extension counts as known. */
export function hasColumn(table: TableName, name: string): boolean {
  const known = ['sourcedId', 'status', 'dateLastModified', ...Object.keys(tables[table]), ...further[table]]
  const lower = name.toLowerCase()
  return lower.startsWith('metadata.') || known.some(column => column.toLowerCase() === lower)
}
/** Dates of a row that follow one another. */
export const datePairs: Partial<Record<TableName, readonly [string, string]>> = {
  academicSessions: ['startDate', 'endDate'],
  enrollments: ['beginDate', 'endDate'],
  lineItems: ['assignDate', 'dueDate'],
}
/** Columns that name a parent in the same table. */
export const parentColumns: Partial<Record<TableName, string>> = {
  orgs: 'parentSourcedId',
  academicSessions: 'parentSourcedId',
}
