import { pack } from './cartridge'
import type { Work, WorkUnit } from './course'

/** The class in the registrar's bundle. */
export const weaveClass = 'wvg201-01-2026a'
const page = (key: string, title: string, text: string): Work => ({
  id: `w-${key}`,
  title,
  kind: 'page',
  page: { key, title, text },
})
const sample = (n: number, title: string, opens: string, due: string, text: string): Work => ({
  id: `w-sample-${n}`,
  title: `Sample ${n}: ${title}`,
  kind: 'assignment',
  text,
  category: 'cat-samples',
  points: 20,
  opens: `${opens}T18:00`,
  due: `${due}T18:00`,
})

/** Weave Structures, one evening a week: small, of another department, there to be shared by a code. */
export const weaveUnits: WorkUnit[] = [
  {
    id: 'w-plain',
    title: 'Plain weave and its relatives',
    works: [
      page(
        'drafts',
        'Reading a draft',
        `A draft is four drawings on one sheet: threading, tie-up, treadling, and the cloth they make together. Read the threading from right to left, as the reed is threaded, and the treadling from the top down, as the cloth grows.

Cover the cloth with a card and say what it must look like before you lift it. Ten drafts done in that way are worth an evening of explanations, and you will soon see a mistake before the loom does.`,
      ),
      page(
        'sett',
        'How close the threads stand',
        `Sett is a decision, not a property of the yarn.

## Counting

Wind the yarn round a ruler for one inch, touching and not crowding, and count; half of that is the sett for plain weave, two thirds for twill.

## A first square

Weave a hand's breadth and look at it in water, because cloth is finished in the wash and never on the loom.

## The notebook

Write down what you wound, what you chose and what came out.`,
      ),
      sample(
        1,
        'plain weave at three setts',
        '2026-09-08',
        '2026-09-22',
        'Weave one hand of each and wash all three.',
      ),
      sample(
        2,
        'basket and rib',
        '2026-09-22',
        '2026-10-06',
        'Two relatives of plain weave, with the draft of each.',
      ),
    ],
  },
  {
    id: 'w-twill',
    title: 'Twills',
    works: [
      page(
        'angle',
        'Why a twill leans',
        `Each pick of a twill steps one thread to the side, and the eye joins the steps into a line. How steep the line is depends on the sett and on the beat as much as on the draft; the same threading gives a steep line in a close warp and a flat one in an open warp.

Weave a square of each before you choose, and measure the angle with a protractor rather than with hope.`,
      ),
      sample(
        3,
        'straight and broken twill',
        '2026-10-06',
        '2026-10-27',
        'Both from one threading, with the angle you measured.',
      ),
      {
        id: 'w-quiz-twill',
        title: 'Check: which twill is it?',
        kind: 'quiz',
        quiz: [
          ['A 2/2 twill shows', 'as much warp as weft', 'more warp than weft'],
          ['Its line leans more where', 'the warp is closer', 'the beat is harder'],
        ],
        category: 'cat-samples',
        points: 10,
        opens: '2026-10-20T18:00',
        due: '2026-10-27T18:00',
      },
      sample(
        4,
        'a twill of your own',
        '2026-10-27',
        '2026-11-17',
        'Draft it, weave it, wash it, and say what you would change.',
      ),
    ],
  },
  {
    id: 'w-cloth',
    title: 'A cloth for a purpose',
    works: [
      {
        id: 'w-purpose',
        title: 'What is it for?',
        kind: 'discussion',
        text: 'Say whom the cloth is for and what it must bear. Answer two others with a question each.',
        opens: '2026-11-10T18:00',
        due: '2026-11-17T18:00',
      },
      sample(
        5,
        'the finished cloth',
        '2026-11-17',
        '2026-12-01',
        'Half a metre, washed and pressed, with its draft and its sett.',
      ),
    ],
  },
]
export const weaveCartridge = (): Uint8Array => pack('Weave Structures', weaveClass, weaveUnits)
/** Its meetings, weights and exact dates: no standard carries them. */
export const weaveJson = (): string => {
  const works = weaveUnits.flatMap(unit => unit.works)
  const document = {
    format: 'northtide-course',
    version: 1,
    class: weaveClass,
    meetings: [{ weekday: 2, start: '18:00', end: '20:50', room: 'Loom room' }],
    categories: [{ identifier: 'cat-samples', title: 'Samples', weight: '100' }],
    items: works
      .filter(work => work.due)
      .map(({ id, opens, due, points, category }) => ({
        identifier: id,
        opens: opens ?? null,
        due: due ?? null,
        closes: null,
        ...(points !== undefined && { points: String(points) }),
        ...(category !== undefined && { category }),
      })),
  }
  return `${JSON.stringify(document, null, 1)}\n`
}
