import { describe, expect, it } from 'vitest'
import { useDemo } from '../support/demo'
import { readCodes, saveCodes } from '../../server/courses/codes'
import { shellLines } from '../../server/shells/shells'

const demo = useDemo('codes')

describe('rules of codes', () => {
  it('are told by field where they are wrong, and nothing is saved', async () => {
    const { ellwood } = demo.people
    await expect(
      saveCodes(demo.db, ellwood, 0, {
        patterns: [{ text: '{subject}', seasons: {} }],
        mapped: [{ from: 'HYD 240', to: 'HYD-240' }],
      }),
    ).rejects.toMatchObject({
      status: 400,
      told: {
        errors: [
          { field: 'patterns.0', message: expect.stringContaining('{number}') as string },
          { field: 'mapped.0', message: expect.stringContaining('one code already') as string },
        ],
      },
    })
    await expect(
      saveCodes(demo.db, ellwood, 0, {
        patterns: [],
        mapped: [
          { from: 'HYD 140', to: 'HYD 240' },
          { from: 'hyd-140', to: 'HYD240' },
        ],
      }),
    ).rejects.toMatchObject({ told: { errors: [{ field: 'mapped.1' }] } })
    await expect(
      saveCodes(demo.db, ellwood, 0, { patterns: [], mapped: [{ from: 'HYD 140', to: 'HYD 240' }] }),
    ).resolves.toEqual({ revision: 1 })
  })
  it('saved by two at once are one’s: the other is told', async () => {
    const { ellwood } = demo.people
    const rules = {
      patterns: [{ text: '{subject} {number}', seasons: {} }],
      mapped: [{ from: 'HYD 240', to: 'HYD 340' }],
    }
    const results = await Promise.allSettled([
      saveCodes(demo.db, ellwood, 1, rules),
      saveCodes(demo.db, ellwood, 1, rules),
    ])
    expect(results.map(result => result.status).sort()).toEqual(['fulfilled', 'rejected'])
    await expect(saveCodes(demo.db, ellwood, 0, rules)).rejects.toMatchObject({ status: 409 })
    const read = await readCodes(demo.db, demo.people.marchetti)
    expect(read).toMatchObject({
      revision: 2,
      rules,
      may: { edit: false },
      saved: { by: expect.any(String) as string },
    })
    expect(read.codes.map(entry => [entry.code, entry.term.name])).toEqual(
      expect.arrayContaining([
        ['HYD 240', 'Spring 2027'],
        ['HYD 240', 'Autumn 2026'],
      ]),
    )
  })
  it('bring the old course to a shell with a new number and another title', async () => {
    await demo.db('courses').where({ id: demo.courses.empty }).update({ code: 'HYD 340', title: 'Sea Level' })
    const suggested = async () =>
      (await shellLines(demo.db, demo.people.marchetti, [demo.courses.empty]))[0]!.suggestion
    expect(await suggested()).toMatchObject({
      course: { id: demo.courses.old },
      reasons: expect.arrayContaining(['HYD 240 is its old code']) as string[],
    })
    const { revision } = await readCodes(demo.db, demo.people.ellwood)
    await saveCodes(demo.db, demo.people.ellwood, revision, { patterns: [], mapped: [] })
    expect((await suggested())?.reasons ?? []).not.toContain('HYD 240 is its old code')
  })
})
