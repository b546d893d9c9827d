import { describe, expect, it } from 'vitest'
import type { WallTime } from '../../core/calendar/schema'
import type { ImportWish } from '../../shared/api/uploads'
import { readCourse } from '../../server/courses/lines'
import { listTerms } from '../../server/calendars/terms.queries'
import { readGathering } from '../../server/exchange/gathering'
import { broughtNow, sendNow } from '../../server/exchange/now'
import { askForImport, discardUpload } from '../../server/exchange/uploads'
import type { Person } from '../../server/people/people.queries'
import { effectOf } from '../../server/runs/effect'
import { itemXml, manifestOf, resourceXml, zipOfFiles } from '../support/archives'
import { useDemo } from '../support/demo'
import { useRolls } from '../support/rolls'
import { readShells } from './support'

const demo = useDemo('later')
const marchetti = (): Person => demo.people.marchetti
const { run } = useRolls(demo, marchetti)

/** A package of pages: each by its identifier, with its title and its text. */
const packageOf = (
  pages: Readonly<Record<string, readonly [title: string, text: string]>>,
  title = 'Coastal Waters',
): Buffer =>
  zipOfFiles({
    'imsmanifest.xml': manifestOf(
      itemXml(
        'u1',
        'Getting your bearings',
        Object.entries(pages)
          .map(([id, [name]]) => itemXml(id, name, '', `r-${id}`))
          .join(''),
      ),
      Object.keys(pages)
        .map(id => resourceXml(`r-${id}`, 'webcontent', `${id}.html`))
        .join(''),
      '1.1.0',
      `<lom:lom><lom:general><lom:title><lom:string language="en">${title}</lom:string></lom:title></lom:general></lom:lom>`,
    ),
    ...Object.fromEntries(Object.entries(pages).map(([id, [, text]]) => [`${id}.html`, `<p>${text}</p>`])),
  })
const sent = (name: string, bytes: Buffer | string, who = marchetti()): Promise<string> =>
  sendNow(demo.db, who, name, Buffer.from(bytes))
type CourseWish = Partial<Extract<ImportWish, { as: 'course' }>>
async function brought(id: string, wish: CourseWish, who = marchetti()) {
  await askForImport(demo.db, who, id, { as: 'course', ...wish })
  return broughtNow(demo.db, id)
}
const nodesOf = async (course: string | undefined) =>
  new Map(
    (await readCourse(demo.db, marchetti(), course ?? '')).nodes.map(node => [
      node.identifier ?? node.title,
      node,
    ]),
  )
const first = {
  a: ['Welcome', 'Come aboard.'],
  b: ['Shore log', 'Write it up.'],
  c: ['Chart', 'See the chart.'],
} as const

describe('a course from files, and later files of it', () => {
  it('needs neither a code nor a term: a title and its first and last day make it a course with a term of its own', async () => {
    const id = await sent('coast.imscc', packageOf(first))
    await sent('dates.csv', 'Item,Due\nShore log,2025-10-03\n')
    const { files } = await readGathering(demo.db, marchetti(), id, '')
    const outcome = await brought(id, {
      title: 'Coastal Waters',
      span: { from: '2025-09-08', to: '2025-12-05' },
      beside: files.map(file => file.id),
    })
    expect(outcome.text).toBe('Kept as Coastal Waters, 8 Sep to 5 Dec 2025')
    expect((await nodesOf(outcome.courseId)).get('b')).toMatchObject({ due: '2025-10-03T23:59' })
    // Nobody else is offered the term; the course stands on the first page all the same.
    expect((await listTerms(demo.db)).map(({ code }) => code)).toEqual([
      '2027-summer',
      '2027-spring',
      '2026-autumn',
    ])
    expect((await readShells(demo, marchetti())).find(row => row.id === outcome.courseId)).toMatchObject({
      code: '',
      title: 'Coastal Waters',
    })
    const again = await sent('coast.imscc', packageOf(first))
    expect((await readGathering(demo.db, marchetti(), again, '')).courses).toMatchObject([
      { id: outcome.courseId, name: 'Coastal Waters', why: 'items', items: 3, isEmpty: false },
    ])
    await discardUpload(demo.db, marchetti(), again)
    await expect(
      askForImport(demo.db, marchetti(), again, {
        as: 'course',
        title: 'x',
        span: { from: '2025-09-08', to: '2025-09-10' },
      }),
    ).rejects.toThrow()
  })
  it('is compared three ways: what changed in the file is proposed, what was changed here stays, and silence changes nothing', async () => {
    const id = await sent('second.imscc', packageOf(first, 'Second Coast'))
    await sent(
      'second.csv',
      'Item,Due,Points\nShore log,2026-10-02 17:00,10\nWelcome,2026-09-11,\nChart,2026-10-09,5\n',
    )
    const { files } = await readGathering(demo.db, marchetti(), id, '2026-autumn')
    const { courseId: into = '' } = await brought(id, {
      title: 'Second Coast',
      term: '2026-autumn',
      beside: files.filter(({ name }) => name === 'second.csv').map(file => file.id),
    })
    // The very same package again proposes nothing, though it says nothing of dates.
    const same = await brought(await sent('second.imscc', packageOf(first, 'Second Coast')), { into })
    expect(same.text).toContain('was compared with Second Coast; nothing has changed there yet')
    expect((await effectOf(demo.db, same.planId ?? '')).effect).toMatchObject({
      added: { units: 0, items: 0 },
      replaced: 0,
      cleared: 0,
    })
    // Somebody moves a date here; the file has another title, another text, one page more and one fewer.
    await demo
      .db('items')
      .where({ course_id: into, identifier: 'b' })
      .update({ due: '2026-10-05T17:00' as WallTime })
    const later = packageOf(
      {
        a: ['Welcome aboard', 'Come aboard.'],
        b: ['Shore log', 'Write it up again.'],
        d: ['Tide tables', 'Read them.'],
      },
      'Second Coast',
    )
    const laterId = await sent('second.imscc', later)
    await sent('later.csv', 'Item,Due\nWelcome aboard,2026-09-14 09:00\nShore log,2026-10-02 17:00\n')
    const again = await readGathering(demo.db, marchetti(), laterId, '2026-autumn')
    expect(again.courses[0]).toMatchObject({ id: into, why: 'items', items: 2 })
    const { planId = '', courseId } = await brought(laterId, {
      into,
      beside: again.files.filter(({ name }) => name === 'later.csv').map(file => file.id),
    })
    expect(courseId).toBe(into)
    const before = await nodesOf(into)
    expect(before.size).toBe(4)
    const { effect } = await effectOf(demo.db, planId)
    expect(effect).toMatchObject({ added: { items: 1 }, settle: { places: 0 } })
    await run(planId)
    const after = await nodesOf(into)
    expect(after.get('a')).toMatchObject({ title: 'Welcome aboard', due: '2026-09-14T09:00' })
    expect(after.get('b')).toMatchObject({ due: '2026-10-05T17:00', points: 100_000 })
    expect(after.get('b')?.body).not.toBe(before.get('b')?.body)
    // What the file has no more stays, with what was said of it.
    expect(after.get('c')).toMatchObject({ due: '2026-10-09T23:59', points: 50_000 })
    expect(after.get('d')).toMatchObject({ title: 'Tide tables' })
    // Run again, it proposes nothing.
    const last = await brought(await sent('second.imscc', later), { into })
    expect((await effectOf(demo.db, last.planId ?? '')).effect).toMatchObject({
      added: { units: 0, items: 0 },
      replaced: 0,
      cleared: 0,
    })
    // The file stands in no list of courses.
    expect((await readShells(demo, marchetti())).filter(row => row.title === 'Second Coast')).toHaveLength(1)
  })
  it('goes into a class that holds nothing yet, of one who teaches it, and into nobody else’s', async () => {
    const { sorrel } = demo.people
    const { empty } = demo.courses
    const id = await sent('mine.imscc', packageOf(first, 'HYD 240: Mine'))
    expect(
      (await readGathering(demo.db, marchetti(), id, '')).courses.find(course => course.id === empty),
    ).toMatchObject({ why: 'code', isEmpty: true })
    const theirs = await sent('theirs.imscc', packageOf(first, 'HYD 240: Theirs'), sorrel)
    expect((await readGathering(demo.db, sorrel, theirs, '')).courses).toEqual([])
    await askForImport(demo.db, sorrel, theirs, { as: 'course', into: empty })
    await expect(broughtNow(demo.db, theirs)).rejects.toMatchObject({ status: 404 })
    expect((await nodesOf(empty)).size).toBe(0)
    const outcome = await brought(id, { into: empty })
    expect(outcome).toMatchObject({ courseId: empty, text: 'Brought into HYD 240-01 Tidal Hydrography' })
    expect((await nodesOf(empty)).get('a')).toMatchObject({ title: 'Welcome' })
  })
})
