import { present } from '../../core/present'
import { frontPages, recess, syllabus, units, works as texts, type ProsePage } from './prose'

export type WorkKind = 'page' | 'heading' | 'file' | 'weblink' | 'tool' | 'quiz' | 'assignment' | 'discussion'
/** One item of the demo course. Dates are exact wall clock; `lineItem` says by what its line item meets it. */
export interface Work {
  id: string
  title: string
  kind: WorkKind
  text?: string
  page?: ProsePage
  quiz?: [string, string, ...string[]][]
  url?: string
  data?: string
  /** Paragraphs of a text document. */
  docx?: string[]
  /** The body of a page as it is; a file as it is, and how its name ends. */
  html?: string
  raw?: { ending: string; content: string | Uint8Array }
  category?: string
  points?: number
  exam?: boolean
  opens?: string
  due?: string
  closes?: string
  lineItem?: 'item' | 'resource' | 'title'
}
export interface WorkUnit {
  id: string
  title: string
  works: Work[]
}

export const categories: [id: string, title: string, weight: string][] = [
  ['cat-logs', 'Shore logs', '15'],
  ['cat-quizzes', 'Check-in quizzes', '15'],
  ['cat-labs', 'Lab sheets', '15'],
  ['cat-problems', 'Problem sets', '10'],
  ['cat-discussions', 'Discussions', '10'],
  ['cat-midterm', 'Mid-term paper', '10'],
  ['cat-project', 'Soundings project', '10'],
  ['cat-final', 'Final practical', '15'],
]

// Mondays of each unit's first and second week in autumn 2026 (the last unit has one week).
const weeks = [
  ['2026-08-31', '2026-09-07'],
  ['2026-09-14', '2026-09-21'],
  ['2026-09-28', '2026-10-05'],
  ['2026-10-19', '2026-10-26'],
  ['2026-11-02', '2026-11-09'],
  ['2026-11-16', '2026-11-23'],
  ['2026-11-30', '2026-11-30'],
] as const
const plus = (monday: string, days: number, time: string): string =>
  `${new Date(Date.parse(`${monday}T00:00Z`) + days * 86_400_000).toISOString().slice(0, 10)}T${time}`

/** Hourly heights at Port Ellery for four days: four constituents, made up for a made-up harbour. */
function gaugeData(unit: number): string {
  const constituents = [
    [1.42, 12.4206, 212],
    [0.47, 12, 251],
    [0.18, 23.9345, 134],
    [0.13, 25.8193, 118],
  ] as const
  const rows = Array.from({ length: 96 }, (_, hour) => {
    const t = hour + unit * 977
    const height =
      2.35 +
      constituents.reduce(
        (sum, [amplitude, period, lag]) => sum + amplitude * Math.cos(2 * Math.PI * (t / period - lag / 360)),
        0,
      )
    return `${hour},${height.toFixed(3)}`
  })
  return `hour,height_m_above_chart_datum\n${rows.join('\n')}\n`
}

export function courseWorks(): WorkUnit[] {
  return units.map((unit, at): WorkUnit => {
    const n = at + 1
    const [a, b] = present(weeks[at])
    const last = n === 7
    const page = (entry: ProsePage): Work => ({
      id: `i-${entry.key}`,
      title: entry.title,
      kind: 'page',
      page: entry,
    })
    const log: Work = {
      id: `i-log-${n}`,
      title: `Shore log ${n}`,
      kind: 'assignment',
      text: unit.log,
      category: 'cat-logs',
      points: 10,
      lineItem: 'item',
      opens: plus(b, 1, '08:00'),
      due: plus(b, 4, '23:59'),
      ...(!last && { closes: plus(b, 6, '23:59') }),
    }
    const quiz: Work =
      n === 3
        ? {
            id: 'i-datum-quiz',
            title: 'Datum quiz',
            kind: 'quiz',
            quiz: unit.quiz,
            category: 'cat-quizzes',
            points: 10,
            lineItem: 'resource',
            due: '2026-10-09T17:00',
            closes: '2026-10-09T17:00',
          }
        : {
            id: `i-quiz-${n}`,
            title: `Check-in quiz ${n}`,
            kind: 'quiz',
            quiz: unit.quiz,
            category: 'cat-quizzes',
            points: unit.quiz.length,
            lineItem: 'resource',
            opens: plus(b, 0, '08:00'),
            due: plus(b, 4, '17:00'),
          }
    const discussion: Work =
      n === 5
        ? {
            id: 'i-discussion-5',
            title: 'Surge discussion',
            kind: 'discussion',
            text: unit.discussion.text,
            category: 'cat-discussions',
            points: 5,
            lineItem: 'title',
            opens: '2026-11-09T08:00',
            due: '2026-11-15T23:59',
          }
        : {
            id: `i-discussion-${n}`,
            title: unit.discussion.title,
            kind: 'discussion',
            text: unit.discussion.text,
            category: 'cat-discussions',
            points: 5,
            lineItem: 'title',
            opens: plus(a, 0, '08:00'),
            due: plus(a, 2, '23:59'),
          }
    const lab: Work[] = unit.lab
      ? [
          {
            id: `i-lab-${n}`,
            title: `Lab sheet ${n}`,
            kind: 'assignment',
            text: unit.lab,
            category: 'cat-labs',
            points: 20,
            lineItem: 'item',
            opens: plus(a, 2, '08:00'),
            due: plus(b, 2, '23:59'),
            closes: plus(b, 4, '23:59'),
          },
        ]
      : []
    const problems: Work[] = unit.problems
      ? [
          n === 2
            ? {
                id: 'i-problems-2',
                title: 'Harmonics problem set',
                kind: 'assignment',
                text: unit.problems,
                category: 'cat-problems',
                points: 20,
                lineItem: 'item',
                opens: '2026-09-21T08:00',
                due: '2026-09-28T09:30',
              }
            : {
                id: `i-problems-${n}`,
                title: `Problem set ${n}`,
                kind: 'assignment',
                text: unit.problems,
                category: 'cat-problems',
                points: 20,
                lineItem: 'item',
                opens: plus(b, 0, '08:00'),
                due: plus(b, n === 3 ? 14 : 7, '09:30'),
              },
        ]
      : []
    const extra: Record<number, Work[]> = {
      1: [
        {
          id: 'i-welcome-survey',
          title: 'Welcome survey',
          kind: 'quiz',
          quiz: [['How do you come to the water?', 'On foot', 'By boat', 'Not yet']],
          opens: '2026-08-31T08:00',
          due: '2026-09-04T23:59',
        },
      ],
      3: [{ ...page(recess), opens: '2026-10-12T08:00' }],
      4: [
        {
          id: 'i-midterm',
          title: 'Mid-term paper',
          kind: 'assignment',
          text: texts.midterm,
          category: 'cat-midterm',
          points: 100,
          lineItem: 'item',
          opens: '2026-10-19T08:00',
          due: '2026-10-26T23:59',
        },
      ],
      6: [
        {
          id: 'i-soundings',
          title: 'Soundings project',
          kind: 'assignment',
          text: texts.soundings,
          category: 'cat-project',
          points: 100,
          lineItem: 'item',
          opens: '2026-11-16T08:00',
          due: '2026-11-23T23:59',
          closes: '2026-12-04T23:59',
        },
        {
          id: 'i-atlas',
          title: 'Stream atlas',
          kind: 'assignment',
          text: texts.atlas,
          category: 'cat-labs',
          points: 40,
          lineItem: 'item',
          opens: '2026-11-18T08:00',
          due: '2026-11-30T23:59',
        },
      ],
      7: [
        {
          id: 'i-practical',
          title: 'Final practical',
          kind: 'assignment',
          text: texts.practical,
          category: 'cat-final',
          points: 100,
          exam: true,
          lineItem: 'item',
          opens: '2026-12-07T08:00',
          due: '2026-12-10T12:00',
          closes: '2026-12-16T12:00',
        },
      ],
    }
    return {
      id: `u-${n}`,
      title: unit.title,
      works: [
        ...(n === 1 ? [page(syllabus), ...frontPages.map(page)] : []),
        {
          id: `i-overview-${n}`,
          title: `Unit ${n}: what it is about`,
          kind: 'page',
          page: { key: `overview-${n}`, title: `Unit ${n}: ${unit.title}`, text: unit.overview },
          opens: plus(a, 0, '08:00'),
        },
        ...unit.pages.map(page),
        ...(last
          ? []
          : [
              {
                id: `i-data-${n}`,
                title: `Gauge heights for unit ${n}`,
                kind: 'file',
                data: gaugeData(n),
                // It lands in the spring's closure: something to settle.
                ...(n === 6 && { opens: '2026-11-20T08:00' }),
              } as Work,
            ]),
        {
          id: `i-link-${n}`,
          title: n === 7 ? 'Notices to those who use tables' : `Port Ellery tide notices, part ${n}`,
          kind: 'weblink',
          url: `https://tides.port-ellery.example/notices/${n}`,
        },
        ...(last ? [] : [{ id: `i-heading-${n}`, title: 'Work of this unit', kind: 'heading' } as Work]),
        ...(extra[n]?.slice(0, n === 1 ? 1 : 0) ?? []),
        discussion,
        ...lab,
        quiz,
        log,
        ...problems,
        ...(n === 1 ? [] : (extra[n] ?? [])),
      ],
    }
  })
}
