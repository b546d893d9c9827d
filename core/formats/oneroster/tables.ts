/** What may stand in a column: free text, a date, a whole or decimal number, a list of keys, one of a few words. */
export type ColumnType = 'text' | 'date' | 'number' | 'keys' | readonly string[]
export interface Column { readonly type: ColumnType, readonly required?: true, readonly refers?: TableName }
export type TableName = 'orgs' | 'users' | 'academicSessions' | 'courses' | 'classes' | 'enrollments' | 'categories' | 'lineItems' | 'results'

const text: Column = { type: 'text' }
const required: Column = { type: 'text', required: true }
const date: Column = { type: 'date', required: true }
const number: Column = { type: 'number' }
const key = (refers: TableName): Column => ({ type: 'text', required: true, refers })
const word = (...words: string[]): Column => ({ type: words, required: true })

/**
 * The tables of 1EdTech OneRoster 1.1 CSV that are read, in an order in which what is referred to comes first, with the
 * columns that are used. Column names and words are those of the OneRoster 1.1 CSV binding (from memory); other columns are
 * let be. `sourcedId`, `status` and `dateLastModified` are in every table.
 */
export const tables = {
  orgs: { name: required, type: required, identifier: text, parentSourcedId: { type: 'text', refers: 'orgs' } as Column },
  users: { enabledUser: text, orgSourcedIds: { type: 'keys' } as Column, role: word('administrator', 'aide', 'guardian', 'parent', 'proctor', 'relative', 'student', 'teacher'), username: text, givenName: required, familyName: required, email: text },
  academicSessions: { title: required, type: word('gradingPeriod', 'semester', 'schoolYear', 'term'), startDate: date, endDate: date, parentSourcedId: text, schoolYear: text },
  courses: { title: required, courseCode: text, orgSourcedId: key('orgs') },
  classes: { title: required, courseSourcedId: key('courses'), classCode: text, classType: text, location: text, schoolSourcedId: key('orgs'), termSourcedIds: { type: 'keys', required: true, refers: 'academicSessions' } as Column },
  enrollments: { classSourcedId: key('classes'), schoolSourcedId: text, userSourcedId: key('users'), role: word('administrator', 'aide', 'proctor', 'student', 'teacher'), primary: text, beginDate: { type: 'date' } as Column, endDate: { type: 'date' } as Column },
  categories: { title: required },
  lineItems: { title: required, description: text, assignDate: date, dueDate: date, classSourcedId: key('classes'), categorySourcedId: key('categories'), gradingPeriodSourcedId: text, resultValueMin: number, resultValueMax: number },
  results: { lineItemSourcedId: key('lineItems'), studentSourcedId: key('users'), scoreStatus: text, score: number, scoreDate: { type: 'date' } as Column, comment: text },
} satisfies Record<TableName, Record<string, Column>>

export type Row<T extends TableName> = { readonly sourcedId: string } & { readonly [C in keyof (typeof tables)[T]]: string }
