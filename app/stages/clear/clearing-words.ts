import type { KindCounts } from '~~/core/student-data/clearing'
import { studentDataWords, type StudentDataName } from '~~/core/student-data/student-data'
import { counted } from '~/composables/words'

/** What a decision means, in numbers: `214 discussion posts of students go; 2 by teaching staff stay.` */
export function staysText(kind: StudentDataName, { go, stay, staffGo, staffStay }: KindCounts): string {
  const [one, many] = studentDataWords(kind)
  const verb = (n: number, words: string): string => (n === 1 ? `${words}s` : words)
  const students = (n: number, does: string): string =>
    `${counted(n, one, many)} of ${n === 1 ? 'a student' : 'students'} ${does}`
  const parts = [
    go > 0 ? students(go, go === 1 ? 'goes' : 'go') : '',
    stay > 0 ? (go > 0 ? `${stay} ${verb(stay, 'stay')}` : students(stay, verb(stay, 'stay'))) : '',
    staffGo > 0 ? `${staffGo} by teaching staff ${staffGo === 1 ? 'goes' : 'go'} too` : '',
    staffStay > 0 ? `${staffStay} by teaching staff ${verb(staffStay, 'stay')}` : '',
  ].filter(Boolean)
  return parts.length > 0 ? `${parts.join('; ')}.` : ''
}
