import { describe, expect, it } from 'vitest'
import { z } from 'zod'
import { inOurWords } from './schema-words'

const told = (schema: z.ZodType, value: unknown): string[] =>
  schema.safeParse(value, { error: inOurWords }).error?.issues.map(issue => issue.message) ?? []

describe('what a schema finds, where it has no sentence of its own', () => {
  it.each<[z.ZodType, unknown, string]>([
    [z.object({ title: z.string() }), {}, 'is missing'],
    [z.string(), 7, 'must be text'],
    [z.int(), 1.5, 'must be a whole number'],
    [z.boolean(), 'yes', 'must be true or false'],
    [z.array(z.string()), 'a', 'must be a list'],
    [z.record(z.string(), z.string()), [], 'must be an object'],
    [z.string().max(40), 'x'.repeat(41), 'must have at most 40 characters'],
    [z.array(z.string()).min(1), [], 'must have at least 1 entry'],
    [z.number().max(8), 9, 'must be at most 8'],
    [z.enum(['weeks', 'units']), 'days', 'must be one of weeks, units'],
    [z.literal('course'), 'unit', 'must be course'],
    [z.strictObject({}), { extra: 1 }, 'holds what nobody knows here: extra'],
    [z.uuid(), 'x', 'is not an identifier of Northtide'],
    [z.string().regex(/^a/), 'b', 'is not written as it must be'],
    [z.map(z.string(), z.string()), 7, 'is not what belongs here'],
    [z.union([z.string(), z.null()]), 7, 'is not what belongs here'],
  ])('%# is told in our words', (schema, value, words) => {
    expect(told(schema, value)).toEqual([words])
  })
  it('leaves a sentence of the schema’s own as it is', () => {
    expect(told(z.string().min(1, 'Give a title.'), '')).toEqual(['Give a title.'])
  })
})
