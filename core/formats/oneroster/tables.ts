/** What may stand in a column: free text, a date, an instant, a whole or decimal number, a list of keys, one of a few words. */
export type ColumnType = 'text' | 'date' | 'instant' | 'number' | 'keys' | readonly string[]
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
const date: Column = { type: 'date', required: true }
const someDate: Column = { type: 'date' }
const number: Column = { type: 'number' }
const key = (refers: TableName): Column => ({ type: 'text', required: true, refers })
const someKey = (refers: TableName): Column => ({ type: 'text', refers })
const someKeys = (refers: TableName): Column => ({ type: 'keys', refers })
const word = (...words: string[]): Column => ({ type: words, required: true })
const truth: Column = { type: ['true', 'false'] }

/**
 * The tables of 1EdTech OneRoster 1.1 CSV, in an order in which what is referred to comes first, with the columns that are
 * checked. Column names and words are those of the OneRoster 1.1 CSV binding (from memory); other columns are let be.
 * `sourcedId`, `status` and `dateLastModified` are in every table. A column is required here where nothing can be done
 * without it; the binding requires more.
 */
export const tables = {
  orgs: { name: required, type: required, identifier: text, parentSourcedId: someKey('orgs') },
  users: {
    enabledUser: truth,
    orgSourcedIds: someKeys('orgs'),
    role: word('administrator', 'aide', 'guardian', 'parent', 'proctor', 'relative', 'student', 'teacher'),
    username: text,
    givenName: required,
    familyName: required,
    email: text,
    agentSourcedIds: someKeys('users'),
  },
  academicSessions: {
    title: required,
    type: word('gradingPeriod', 'semester', 'schoolYear', 'term'),
    startDate: date,
    endDate: date,
    parentSourcedId: someKey('academicSessions'),
    schoolYear: text,
  },
  courses: {
    schoolYearSourcedId: someKey('academicSessions'),
    title: required,
    courseCode: text,
    orgSourcedId: key('orgs'),
  },
  classes: {
    title: required,
    courseSourcedId: key('courses'),
    classCode: text,
    classType: { type: ['homeroom', 'scheduled'] },
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
    title: required,
    description: text,
    assignDate: date,
    dueDate: date,
    classSourcedId: key('classes'),
    categorySourcedId: key('categories'),
    gradingPeriodSourcedId: someKey('academicSessions'),
    resultValueMin: number,
    resultValueMax: number,
  },
  results: {
    lineItemSourcedId: key('lineItems'),
    studentSourcedId: key('users'),
    scoreStatus: text,
    score: number,
    scoreDate: someDate,
    comment: text,
  },
  resources: {
    vendorResourceId: required,
    title: text,
    roles: text,
    importance: text,
    vendorId: text,
    applicationId: text,
  },
  classResources: { title: text, classSourcedId: key('classes'), resourceSourcedId: key('resources') },
  courseResources: { title: text, courseSourcedId: key('courses'), resourceSourcedId: key('resources') },
  // Of these only the key is looked at: what they say of a person is no business of a rollover.
  demographics: {},
} satisfies Record<TableName, Record<string, Column>>

export type Row<T extends TableName> = { readonly sourcedId: string } & {
  readonly [C in keyof (typeof tables)[T]]: string
}
