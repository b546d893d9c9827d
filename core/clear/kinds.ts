/** Every kind of student data, in the order shown. A new kind is a line here and its table. None of it crosses. */
export const studentDataKinds = ['submissions', 'grades', 'attempts', 'posts', 'extensions'] as const
export type StudentDataKind = (typeof studentDataKinds)[number]
export type StudentDataCounts = Record<StudentDataKind | 'students', number>

/** What each kind is called, for one and for many. */
export const studentDataWords: Record<StudentDataKind | 'students', readonly [one: string, many: string]> = {
  students: ['student on the roster', 'students on the roster'],
  submissions: ['submission', 'submissions'],
  grades: ['grade', 'grades'],
  attempts: ['quiz attempt', 'quiz attempts'],
  posts: ['discussion post', 'discussion posts'],
  extensions: ['extension for one student', 'extensions for one student'],
}
