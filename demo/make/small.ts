import type { Work, WorkUnit } from './course'

/** A day of autumn 2026 and a time, as exact wall clock. */
const at = (day: string, time: string): string => `2026-${day}T${time}`
const page = (id: string, title: string, text: string, opens?: string): Work => ({
  id,
  title,
  kind: 'page',
  page: { key: id, title, text },
  ...(opens && { opens: at(opens, '08:00') }),
})
const task = (
  id: string,
  title: string,
  category: string,
  points: number,
  opens: string,
  due: string,
  text: string,
): Work => ({
  id,
  title,
  kind: 'assignment',
  text,
  category,
  points,
  opens: at(opens, '08:00'),
  due: at(due, '23:59'),
})
const quiz = (
  id: string,
  title: string,
  category: string,
  due: string,
  questions: Work['quiz'] & object,
): Work => ({
  id,
  title,
  kind: 'quiz',
  quiz: questions,
  category,
  points: questions.length * 5,
  opens: at(due, '08:00'),
  due: at(due, '23:59'),
})
const talk = (id: string, title: string, text: string, due: string, category?: string): Work => ({
  id,
  title,
  kind: 'discussion',
  text,
  due: at(due, '23:59'),
  ...(category && { category, points: 10 }),
})
const heading = (id: string, title: string): Work => ({ id, title, kind: 'heading' })

/** Bread Science: two sections on different days, with the usual damage of a course that was copied often (demo/FAULTS.md). */
export const breadUnits: WorkUnit[] = [
  {
    id: 'b-flour',
    title: 'Unit 1 – Flour and water',
    works: [
      page(
        'b-syllabus',
        'Syllabus',
        `We bake on Tuesdays and taste on Thursdays. Bring an apron, a notebook and patience. Six bakes count, the lowest is dropped, and the paper is due before the autumn recess, on Friday 9 October 2026.

Write to [instructor name] before you are late rather than after.`,
      ),
      page(
        'b-gluten',
        'What gluten does',
        `Two proteins meet in water and make a net. Rest makes the net as surely as kneading does; salt tightens it, fat loosens it, and bran cuts it. See [[b-hydration|how much water a flour takes]] before you blame the recipe.`,
      ),
      page(
        'b-hydration',
        'How much water a flour takes',
        `Weigh the flour, weigh the water, divide. Sixty-five parts make a dough that a beginner can hold; eighty make one that teaches. Noor Haddad’s table from last term is still the best we have, so it stands below with her name.`,
      ),
      {
        id: 'b-table',
        title: 'Absorption 2025.csv',
        kind: 'file',
        data: 'flour,water\nspelt,62\nrye,78\nsoft wheat,57\n',
      },
      heading('b-work-1', 'Work of this unit'),
      task(
        'b-bake-1',
        'Bake 1: two hydrations',
        'cat-bakes',
        20,
        '09-08',
        '09-18',
        'One loaf at 65, one at 80. Photograph both crumbs beside a ruler and say what differs.',
      ),
      quiz('b-quiz-1', 'Check: flour', 'cat-checks', '09-22', [
        ['Gluten forms', 'when flour meets water', 'when dough is salted', 'in the oven'],
        ['Bran', 'cuts the net', 'feeds the net'],
      ]),
    ],
  },
  {
    id: 'b-leaven',
    title: 'Unit 2 – Leaven',
    works: [
      page(
        'b-yeast',
        'Yeast and time',
        `Yeast doubles its work for every ten degrees, until it stops altogether. A cold night is the cheapest ingredient there is.`,
      ),
      page(
        'b-yeast-copy',
        'Yeast and time',
        `Yeast doubles its work for every ten degrees, until it stops altogether. A cold night is the cheapest ingredient there is.`,
      ),
      {
        id: 'b-mill',
        title: 'The mill at Port Ellery',
        kind: 'weblink',
        url: 'https://mill.port-ellery.example/tour-2024',
      },
      heading('b-work-2', 'Work of this unit'),
      task(
        'b-bake-2',
        'Bake 2: a cold night',
        'cat-bakes',
        20,
        '09-22',
        '10-02',
        'The same dough, proved warm and proved cold. Keep the receipts of your fridge: its temperature, each hour.',
      ),
      talk(
        'b-talk-2',
        'Whose starter is it?',
        'Is a starter that was given to you yours? Argue it either way, then answer two others.',
        '10-05',
        'cat-talk',
      ),
      task(
        'b-paper',
        'Paper: one loaf, explained',
        'cat-paper',
        100,
        '09-22',
        '10-09',
        'Two thousand words on one loaf of your choosing, with the chemistry where it belongs.',
      ),
    ],
  },
  {
    id: 'b-oven',
    title: 'Unit 3 – The oven',
    works: [
      page(
        'b-crust',
        'Why crust browns',
        `Sugar and protein meet above 140 °C and turn into several hundred things that smell of bread. Steam delays it, which is why the door stays shut.`,
      ),
      heading('b-work-3', 'Work of this unit'),
      task(
        'b-bake-3',
        'Bake 3: steam',
        'cat-bakes',
        20,
        '10-20',
        '10-30',
        'One tray with steam, one without. Weigh before and after: the difference is the crust.',
      ),
      task(
        'b-oven-group',
        'Oven rota of the evening group',
        'cat-bakes',
        10,
        '10-20',
        '10-30',
        'For the evening group only: who fires the oven on which evening.',
      ),
      quiz('b-quiz-3', 'Check: heat', 'cat-checks', '11-03', [
        ['Crust browns above', '140 °C', '90 °C'],
        ['Steam in the oven', 'delays the crust', 'dries the crumb'],
      ]),
      { id: 'b-old-quiz', title: 'Old check: heat', kind: 'quiz', quiz: [['Ovens are', 'hot', 'cold']] },
      task(
        'b-bake-4',
        'Bake 4: your own',
        'cat-bakes',
        40,
        '11-10',
        '11-27',
        'Your own loaf, with its table. Opens once bake 3 is handed in.',
      ),
    ],
  },
]

/** Field Ornithology, online: a publisher’s tool, materials to buy, weights that make 95. */
export const birdUnits: WorkUnit[] = [
  {
    id: 'o-start',
    title: 'Week 1: Looking before listening',
    works: [
      page(
        'o-syllabus',
        'Syllabus',
        `This course meets nowhere and everywhere: online, and wherever you stand with binoculars. Field notes are due on Sundays. The last day to hand anything in is Friday 4 December 2026.`,
      ),
      page(
        'o-binoculars',
        'Binoculars, and how to hold them',
        `Eight by forty-two, both elbows in. Set the right eye to its own sharpness once and leave it. See [[o-syllabus|the syllabus]] for what else to bring.`,
      ),
      {
        id: 'o-tool-1',
        title: 'Plumage trainer, set 1',
        kind: 'tool',
        url: 'https://plumage.tool.example/launch?course=ORN130-2026A&set=1',
        category: 'cat-trainer',
        points: 25,
        due: at('09-13', '23:59'),
      },
      task(
        'o-notes-1',
        'Field notes 1',
        'cat-notes',
        20,
        '09-07',
        '09-13',
        'One hour, one place, everything that moves.',
      ),
      talk(
        'o-hello',
        'Where is your patch?',
        'Show on a map where you will stand each week, and say why there.',
        '09-10',
      ),
    ],
  },
  {
    id: 'o-song',
    title: 'Week 2: Song',
    works: [
      page(
        'o-sonograms',
        'Reading a sonogram',
        `Time runs to the right, pitch climbs, and loudness is ink. A chaffinch falls down the stairs; a chiffchaff says its name.`,
      ),
      page('o-untouched', 'Week 2 overview (to be written)', `[Write here what this week is about.]`),
      {
        id: 'o-tool-2',
        title: 'Plumage trainer, set 2',
        kind: 'tool',
        url: 'https://plumage.tool.example/launch?course=ORN130-2026A&set=2',
        category: 'cat-trainer',
        points: 25,
        due: at('09-20', '23:59'),
      },
      task(
        'o-notes-2',
        'Field notes 2',
        'cat-notes',
        20,
        '09-14',
        '09-20',
        'With your eyes shut for the first ten minutes.',
      ),
    ],
  },
  {
    id: 'o-migration',
    title: 'Week 3: Migration',
    works: [
      page(
        'o-routes',
        'Routes and weather',
        `Birds fly on the back of a high. Look at Thursday's chart, then at Friday's hedge.`,
      ),
      task(
        'o-count',
        'The autumn count',
        'cat-count',
        100,
        '09-21',
        '10-09',
        'Three mornings at one watchpoint. Counts, weather, and what you were not sure of.',
      ),
      quiz('o-quiz', 'Check: routes', 'cat-checks', '10-06', [
        ['Most fly', 'behind a high', 'into a gale'],
        ['At night they steer by', 'the stars', 'street lamps'],
        ['A fall of migrants follows', 'rain at dawn after a clear night', 'three days of sun'],
        ['Fat is carried', 'under the skin', 'in the crop'],
        ['The first to leave are', 'the adults of most waders', 'the young of most waders'],
      ]),
      {
        id: 'o-warblers',
        title: 'Telling five warblers apart.docx',
        kind: 'file',
        docx: [
          'Look at the legs first, then at the supercilium, and at the wing last of all.',
          'The primary projection of a willow warbler is long; that of a chiffchaff is short.',
        ],
      },
      {
        id: 'o-news',
        title: 'No tutorial this Friday',
        kind: 'discussion',
        text: 'The tutorial of Friday 2 October moves to Monday 5 October. Nothing else changes.',
      },
    ],
  },
]

const place = (id: string, title: string): Work => ({ id, title, kind: 'heading' })
/** What the Department of Weaving puts into a new shell: a page of its own, one that the Institute fixed, and empty places to be filled. */
export const weaveTemplate: WorkUnit[] = [
  {
    id: 'wt-start',
    title: 'Start here',
    works: [
      page(
        'wt-welcome',
        'Welcome to the loom room',
        `The loom room opens at half past five. Hang your coat outside: wool remembers smoke. What you may use, and what you must ask for, is on the board by the door.`,
      ),
      page(
        'wt-safety',
        'Safety at the loom',
        `Long hair up, sleeves to the elbow, nobody alone with the warping mill. The Institute's rules stand here in every course, and are the same for all.`,
      ),
      place('wt-video', 'A word from your teacher'),
    ],
  },
  {
    id: 'wt-unit-1',
    title: 'Unit 1: Plain weave and its relatives',
    works: [
      place('wt-reading-1', 'Reading'),
      place('wt-reading-2', 'Further reading'),
      place('wt-sample-1', 'First sample'),
    ],
  },
  {
    id: 'wt-unit-2',
    title: 'Unit 2: Twills',
    works: [
      place('wt-reading-3', 'Reading'),
      place('wt-sample-2', 'Second sample'),
      place('wt-check', 'Check'),
    ],
  },
]
