import { describe, expect, it } from 'vitest'
import { present } from '../../present'
import { allStudentData, courseJsonLists, type AnyStudentDataKind } from '../student-data'
import { studentDataKinds } from '.'

const instant = (wall: string): string => `${wall} in UTC`
const at = '2026-10-02T17:00'
/** An entry of each kind as a course JSON says it, with nothing that may be left out, and the columns that it fills. */
const entries = {
  submissions: [{ student: 's1', item: 'i1', at }, { submitted_at: instant(at) }],
  comments: [{ student: 's1', item: 'i1', at, text: 'Well done' }, { written_at: instant(at) }],
  posts: [{ author: 's1', item: 'i1', at, text: 'I saw seals' }, { posted_at: instant(at) }],
  reports: [
    { student: 's1', item: 'i1', at },
    { service: '', made_at: instant(at), overlap: null },
  ],
  attempts: [
    { student: 's1', item: 'i1', number: 2, startedAt: at },
    { number: 2, started_at: instant(at), finished_at: null, score: null },
  ],
  awards: [
    { student: 's1', award: 'First log', at },
    { award: 'First log', given_at: instant(at) },
  ],
} as const

describe('kinds of student data', () => {
  it.each(Object.entries(entries))(
    '%s are read whole, and what may be left out is empty',
    (name, [entry, values]) => {
      const kind = present(allStudentData.find(each => each.name === name))
      const [read] = courseJsonLists[name as keyof typeof entries].parse([entry])
      const record = kind.read(read as never, { instant })
      expect(record).toMatchObject({ student: 's1', item: 'item' in entry ? 'i1' : null, values })
      expect(Object.keys(kind.columns)).toEqual(Object.keys(values))
      if (kind.text) expect(record.text).toBe('text' in entry ? entry.text : '')
    },
  )
  it('an attempt that ended, and a report that says how much, keep that', () => {
    const more = { finishedAt: '2026-10-02T18:00', score: '7.5' }
    const [attempt] = courseJsonLists.attempts.parse([{ ...entries.attempts[0], ...more }])
    expect(studentDataKinds.attempts.read(attempt!, { instant }).values).toMatchObject({
      finished_at: instant('2026-10-02T18:00'),
      score: '7.5',
    })
    expect(() => courseJsonLists.attempts.parse([{ ...entries.attempts[0], number: 0 }])).toThrow()
  })
  it('a result of the registrar without a score has none, and is fully graded unless it says otherwise', () => {
    const row = { score: '', scoreStatus: '', scoreDate: '', comment: '' }
    const read = (more: Partial<typeof row>) => studentDataKinds.grades.read({ ...row, ...more } as never)
    expect(read({})).toEqual({ score: null, status: 'fully graded', graded_on: null, comment: null })
    expect(read({ score: '8', scoreStatus: 'exempt', scoreDate: '2026-10-02', comment: 'Good' })).toEqual({
      score: '8',
      status: 'exempt',
      graded_on: '2026-10-02',
      comment: 'Good',
    })
  })
  it('of some a student has one for an item, some may be about the course as a whole, of some the words are kept', () => {
    const those = (is: (kind: AnyStudentDataKind) => boolean) =>
      allStudentData.filter(is).map(({ name }) => name)
    expect(those(({ several }) => !several)).toEqual(['grades', 'follows', 'completions', 'extensions'])
    expect(those(({ about }) => about === 'course')).toEqual([
      'memberships',
      'attendances',
      'notes',
      'awards',
      'visits',
      'accommodations',
      'events',
    ])
    expect(those(({ text }) => text)).toEqual(['submissions', 'posts', 'journals', 'comments', 'notes'])
  })
})
