import type { KindCounts } from '~~/core/student-data/clearing'
import { counted } from '~/composables/words'

/** What a decision means, in numbers: `214 records of students go; 2 records by teaching staff stay.` */
export function staysText({ go, stay, staffGo, staffStay }: KindCounts): string {
  const told = (n: number, whose: string, one: string, many: string): string[] =>
    n === 0 ? [] : [`${counted(n, 'record')} ${whose} ${n === 1 ? one : many}`]
  const parts = [
    ...told(go, 'of students', 'goes', 'go'),
    ...told(stay, 'of students', 'stays', 'stay'),
    ...told(staffGo, 'by teaching staff', 'goes', 'go'),
    ...told(staffStay, 'by teaching staff', 'stays', 'stay'),
  ]
  return parts.length > 0 ? `${parts.join('; ')}.` : ''
}
