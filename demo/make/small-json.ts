import { birdUnits, breadUnits, weaveTemplate } from './small'
import type { Work, WorkUnit } from './course'

type Json = Record<string, unknown>
/** Exact dates, points and categories of a course's works, with what is said besides of single ones. */
const itemsOf = (units: readonly WorkUnit[], besides: Readonly<Record<string, Json>>): Json[] => {
  const works = units.flatMap(unit => unit.works)
  const said = ({ opens, due, points, category }: Work): Json => ({
    ...(opens && { opens }),
    ...(due && { due }),
    ...(points !== undefined && { points: String(points) }),
    ...(category && { category }),
  })
  return works
    .map(work => ({ identifier: work.id, ...said(work), ...besides[work.id] }))
    .filter(entry => Object.keys(entry).length > 1)
}
const document = (classKey: string, rest: Json): string =>
  `${JSON.stringify({ format: 'northtide-course', version: 2, class: classKey, ...rest }, null, 1)}\n`
const meetings = (weekdays: readonly number[], start: string, end: string, room: string): Json[] =>
  weekdays.map(weekday => ({ weekday, start, end, room }))
const letters = [
  { from: '85', letter: 'A' },
  { from: '70', letter: 'B' },
  { from: '55', letter: 'C' },
  { from: '50', letter: 'D' },
  { from: '0', letter: 'F' },
]

/** Weights that make 110, the lowest bake dropped, work for one group, a bake that opens once another is handed in. */
const bread = {
  grading: { by: 'weights', ungraded: 'zero', decimals: 1, scale: letters },
  categories: [
    { identifier: 'cat-bakes', title: 'Bakes', weight: '50', dropLowest: 1, within: 'equal' },
    { identifier: 'cat-checks', title: 'Checks', weight: '20' },
    { identifier: 'cat-paper', title: 'Paper', weight: '30' },
    { identifier: 'cat-talk', title: 'Talk', weight: '10' },
  ],
  rubrics: [
    {
      identifier: 'loaf',
      title: 'A loaf',
      criteria: [
        {
          title: 'Crumb',
          levels: [
            { title: 'open and even', points: '10' },
            { title: 'closed', points: '5' },
          ],
        },
        {
          title: 'Crust',
          levels: [
            { title: 'sings', points: '10' },
            { title: 'is there', points: '4' },
          ],
        },
      ],
    },
  ],
  groups: [{ identifier: 'evening', title: 'Evening group' }],
  items: itemsOf(breadUnits, {
    'b-bake-1': { rubric: 'loaf', settings: { groupWork: 'in pairs', feedback: 'after the due date' } },
    'b-bake-2': { rubric: 'loaf' },
    'b-bake-3': { rubric: 'loaf' },
    'b-bake-4': { rubric: 'loaf', releases: [{ after: 'b-bake-3', needs: 'handed-in' }] },
    'b-oven-group': { group: 'evening', extra: true },
    'b-quiz-1': { settings: { attempts: 2, timeLimitMinutes: 15, help: 'notes allowed' } },
    'b-old-quiz': { state: 'hidden' },
  }),
  furniture: [
    { identifier: 'home', part: 'home', title: 'Home', item: 'b-syllabus' },
    { identifier: 'syllabus', part: 'syllabus', title: 'Syllabus', item: 'b-syllabus' },
    {
      identifier: 'contact',
      part: 'contact',
      title: 'Petra Sorrel',
      details: { room: 'Oven hall 2', hours: 'Tue 13:00–14:00' },
    },
    {
      identifier: 'book',
      part: 'material',
      title: 'Crust and Crumb, a workbook',
      details: { edition: '2nd, 2024', use: 'required' },
    },
  ],
}
export const breadJson = (section: '01' | '02'): string =>
  document(`bkg115-${section}-2026a`, {
    meetings:
      section === '01'
        ? meetings([1, 3], '08:30', '09:45', 'Oven hall')
        : meetings([2, 4], '10:00', '11:15', 'Oven hall'),
    ...bread,
  })

/** Weights that make 95, units that open on dates, grace allowances, an announcement, and one that was deleted. */
export const birdJson = (): string =>
  document('orn130-01-2026a', {
    grading: { by: 'weights', ungraded: 'skip', decimals: 2, scale: letters },
    categories: [
      { identifier: 'cat-notes', title: 'Field notes', weight: '30' },
      { identifier: 'cat-trainer', title: 'Plumage trainer', weight: '25', dropLowest: 1 },
      { identifier: 'cat-count', title: 'The autumn count', weight: '20' },
      { identifier: 'cat-checks', title: 'Checks', weight: '20' },
    ],
    grace: { count: 5, days: 2, addsUp: false },
    // The first unit opens with the term, each further one on a Monday.
    units: [
      { identifier: 'o-start', opens: '2026-09-02T08:00' },
      { identifier: 'o-song', opens: '2026-09-14T08:00' },
      { identifier: 'o-migration', opens: '2026-09-21T08:00' },
    ],
    items: itemsOf(birdUnits, {
      'o-news': { kind: 'announcement', due: null },
      'o-hello': { settings: { access: 'sign in to read' } },
      'o-untouched': { state: 'hidden' },
      'o-sonograms': { state: 'listed' },
    }),
    furniture: [
      { identifier: 'home', part: 'home', title: 'Home', item: 'o-syllabus' },
      {
        identifier: 'glass',
        part: 'material',
        title: 'Binoculars, 8 by 42',
        details: { use: 'to borrow from the field office' },
      },
      {
        identifier: 'trainer',
        part: 'material',
        title: 'Plumage trainer, autumn edition 2026',
        details: { edition: 'Autumn 2026', use: 'to buy' },
      },
      { identifier: 'nav', part: 'navigation', title: 'Weeks, Field notes, Trainer' },
    ],
  })
/** The new shell of Weave Structures: the department's template, with empty places and a page that the Institute fixed. */
export const weaveShellJson = (): string =>
  document('wvg201-01-2027s', {
    madeBy: 'template',
    meetings: meetings([2], '18:00', '20:50', 'Loom room'),
    grading: { by: 'weights', ungraded: 'skip', decimals: 2, scale: [] },
    categories: [{ identifier: 'wt-samples', title: 'Samples', weight: '0' }],
    items: itemsOf(weaveTemplate, {
      'wt-safety': { fixed: true },
      'wt-video': { place: ['recording', 'weblink'] },
      'wt-reading-1': { place: ['page', 'file'] },
      'wt-reading-2': { place: ['page', 'file'] },
      'wt-reading-3': { place: ['page', 'file'] },
      'wt-sample-1': { place: ['assignment'] },
      'wt-sample-2': { place: ['assignment'] },
      'wt-check': { place: ['quiz', 'survey'] },
    }),
  })
export const birdShellJson = (): string => document('orn130-01-2027s', {})
