import type { z } from 'zod'

type Issue = z.core.$ZodRawIssue
type SizeIssue = Extract<Issue, { code: 'too_big' | 'too_small' }>

const kinds: Record<string, string> = {
  string: 'text',
  number: 'a number',
  int: 'a whole number',
  boolean: 'true or false',
  array: 'a list',
  object: 'an object',
  record: 'an object',
}
/** `at most 40 characters`: the bound, and what is counted. */
function bound(issue: SizeIssue): string {
  const [words, limit] = issue.code === 'too_big' ? ['at most', issue.maximum] : ['at least', issue.minimum]
  const isLength = issue.origin === 'string' || issue.origin === 'array'
  const one = issue.origin === 'string' ? 'character' : 'entry'
  const many = issue.origin === 'string' ? 'characters' : 'entries'
  return isLength ? `have ${words} ${limit} ${limit === 1 ? one : many}` : `be ${words} ${limit}`
}
/**
 * For Zod, where a schema has no sentence of its own: what is wrong with a field, in words that follow its name. No text of the
 * library reaches a person.
 */
export const inOurWords: z.core.$ZodErrorMap = issue => {
  if (issue.input === undefined) return 'is missing'
  switch (issue.code) {
    case 'invalid_type':
      return kinds[issue.expected] ? `must be ${kinds[issue.expected]}` : 'is not what belongs here'
    case 'too_big':
    case 'too_small':
      return `must ${bound(issue)}`
    case 'invalid_value':
      return `must be ${issue.values.length === 1 ? '' : 'one of '}${issue.values.map(String).join(', ')}`
    case 'unrecognized_keys':
      return `holds what nobody knows here: ${issue.keys.join(', ')}`
    case 'invalid_format':
      return issue.format === 'uuid' ? 'is not an identifier of Northtide' : 'is not written as it must be'
    default:
      return 'is not what belongs here'
  }
}
