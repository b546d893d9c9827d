import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { useDemo } from '../support/demo'
import { loadCategories } from '../../server/courses/around.queries'
import { loadOutline } from '../../server/courses/content.queries'
import { readItem } from '../../server/courses/item'
import { countStudentData } from '../../server/courses/student-data.queries'
import { Refusal } from '../../server/errors/refusal'
import { importCourse } from '../../server/exchange/import-course'
import { signIn } from '../../server/people/sign-in'
import type { Person } from '../../server/people/people.queries'
import { enterCode } from '../../server/sharing/shares'
import { readTemplates } from '../../server/sharing/templates'
import { showcase } from '../../demo/load'

const demo = useDemo('demo')
const worked = JSON.parse(
  readFileSync(new URL('../cases/01-same-week-and-weekday.json', import.meta.url), 'utf8'),
) as { case: { items: { title: string; opens: string | null; due: string | null; closes: string | null }[] } }

describe('the demo, loaded through the readers and services', () => {
  it('holds some 95 items in seven units, 40 pages, among them the eleven of case 01 with its dates', async () => {
    const nodes = await loadOutline(demo.db, demo.courses.old)
    expect(nodes.filter(node => node.type === 'unit')).toHaveLength(7)
    expect(nodes.filter(node => node.type === 'item').length).toBeGreaterThan(90)
    expect(nodes.filter(node => node.kind === 'page')).toHaveLength(40)
    for (const { title, opens, due, closes } of worked.case.items)
      expect(
        nodes.find(node => node.title === title),
        title,
      ).toMatchObject({ opens, due, closes })
  })
  it('has pages of 60 to 110 words of prose', async () => {
    const pages = (await loadOutline(demo.db, demo.courses.old)).filter(node => node.kind === 'page')
    for (const page of pages) {
      const { html } = await readItem(demo.db, demo.people.marchetti, demo.courses.old, page.lineage)
      const words = html!
        .replace(/<[^>]+>/g, ' ')
        .split(/\s+/)
        .filter(Boolean).length
      expect(words, `${page.title}: ${words}`).toBeGreaterThanOrEqual(55)
      expect(words, `${page.title}: ${words}`).toBeLessThanOrEqual(120)
    }
  })
  it('has 31 students with submissions, grades, attempts, posts and two extensions; weights make 100', async () => {
    const counts = await countStudentData(demo.db, demo.courses.old)
    expect(counts).toMatchObject({ students: 31, extensions: 2 })
    for (const kind of ['submissions', 'grades', 'attempts', 'posts'] as const)
      expect(counts[kind]).toBeGreaterThan(100)
    expect(
      (await loadCategories(demo.db, demo.courses.old)).reduce((sum, category) => sum + category.weight!, 0),
    ).toBe(1_000_000)
  })
  it('says what did not meet', () => {
    expect(demo.findings.map(finding => finding.severity)).toEqual(['warning'])
    expect(demo.findings[0]!.message).toMatch(/"Attendance at field days" meets no item/)
  })
  it('stores a body once, whoever points at it, and keeps it to the byte', async () => {
    const [{ items, bodies }] = (await demo.db.select(
      demo.db.raw(
        '(SELECT COUNT(DISTINCT body_hash) FROM items) AS items, (SELECT COUNT(*) FROM bodies) AS bodies',
      ),
    )) as [{ items: number; bodies: number }]
    const [{ dealt }] = (await demo.db('submissions').countDistinct({ dealt: 'body_hash' })) as [
      { dealt: number },
    ]
    // Twelve remarks are dealt out to hundreds of submissions and posts; the keepers of lights all write the same.
    expect(Number(dealt)).toBeLessThanOrEqual(13)
    expect(Number(bodies)).toBeLessThanOrEqual(Number(items) + 30)
  })
  it('resolves links between pages within the course they are read in', async () => {
    const nodes = await loadOutline(demo.db, demo.courses.old)
    const syllabus = await readItem(
      demo.db,
      demo.people.marchetti,
      demo.courses.old,
      nodes.find(node => node.title === 'Syllabus')!.lineage,
    )
    const safety = nodes.find(node => node.title === 'Safety on the foreshore')!
    expect(syllabus.html).toContain(`href="/courses/${demo.courses.old}/items/${safety.lineage}"`)
  })
  it('lets staff sign in with their password only, and no student at all', async () => {
    const from = { device: 'Firefox on Linux', address: '192.0.2.1' }
    const enter = (login: string, password: string) => signIn(demo.db, { login, password }, from)
    expect((await enter('marchetti', 'slack-water')).personId).toBe(demo.people.marchetti.id)
    await expect(enter('marchetti', 'Slack-water')).rejects.toMatchObject({ code: 'wrong-password' })
    await expect(enter('nobody', 'slack-water')).rejects.toMatchObject({ code: 'wrong-password' })
    expect(await demo.db('people').whereNotNull('password').count({ count: '*' }).first()).toEqual({
      count: 6,
    })
  })
  it('shows a visitor two templates, and a colleague’s course behind the code that is printed', async () => {
    const { marchetti, brandt } = demo.people
    await showcase(demo.db)
    const titles = async (who: Person) =>
      (await readTemplates(demo.db, who)).templates.map(line => line.course.title).sort()
    expect(await titles(marchetti)).toEqual([
      'Tides, unit by unit',
      'What every hydrography course begins with',
    ])
    expect(await titles(brandt)).toContain('What every hydrography course begins with')
    const printed = readFileSync(new URL('../../demo/sign-ins.txt', import.meta.url), 'utf8')
    const code = /[A-Z]{4}-[A-Z0-9]{4}/.exec(printed)?.[0] ?? ''
    const { courseId } = await enterCode(demo.db, marchetti, code, '192.0.2.1')
    expect((await loadOutline(demo.db, courseId)).filter(node => node.type === 'item')).toHaveLength(10)
  })
  it('takes no second content into a course that holds some, and changes nothing', async () => {
    const before = await loadOutline(demo.db, demo.courses.old)
    const files = { classKey: 'hyd240-01-2026a', content: null, document: null, results: null }
    await expect(importCourse(demo.db, files)).rejects.toThrow(Refusal)
    expect(await loadOutline(demo.db, demo.courses.old)).toEqual(before)
  })
})
