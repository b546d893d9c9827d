import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readLimits } from '../../limits'
import { parseXml } from '../../xml'
import { chooseQuestions } from './choose'
import { questionsOf } from './model'
import { readQuestions } from './read'

const question = (ident: string, prompt: string): string =>
  `<item ident="${ident}" title="a &lt; b"><presentation><material><mattext>${prompt}</mattext></material></presentation></item>`
const quiz = (inner: string): string =>
  `<?xml version="1.0"?>\n<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2"><assessment ident="q">${inner}</assessment></questestinterop>`
const read = (text: string) => [
  ...questionsOf(readQuestions('quiz', parseXml('quiz', text, readLimits)).sections),
]
const choose = (text: string, chosen: number[]): string => chooseQuestions('quiz', text, chosen, readLimits)

describe('a quiz with some of its questions', () => {
  it('keeps everything else character by character: sections, comments, unknown elements, characters beyond the first plane', () => {
    const [one, two, three] = [
      question('1', 'tide 🌊'),
      question('2', '<![CDATA[<item>]]>'),
      question('3', 'ebb'),
    ]
    const text = quiz(
      `<!-- <item/> --><section ident="s" x:own="1" xmlns:x="urn:x">${one}\n${two}</section><x:more xmlns:x="urn:x"/>\n${three}`,
    )
    expect(choose(text, [0, 2])).toBe(text.replace(two, ''))
    expect(choose(text, [])).toBe(text.replace(one, '').replace(two, '').replace(three, ''))
    expect(choose(text, [0, 1, 2])).toBe(text)
  })
  it('counts as the questions are shown: of a quiz sections first, of a bank what stands in none', () => {
    const inner = `${question('loose', 'a')}<section ident="s">${question('in', 'b')}</section>`
    const bank = quiz(inner).replaceAll('assessment', 'objectbank')
    for (const text of [quiz(inner), bank])
      for (const at of [0, 1]) expect(read(choose(text, [at]))).toEqual([read(text)[at]])
  })
  it('refuses a question that is not there', () => {
    expect(() => choose(quiz(question('1', 'a')), [1])).toThrow()
  })
  it('of any quiz whatever is chosen, reads as just those of before, in their order', () => {
    const section = fc.array(
      fc.string({ maxLength: 3 }).map(text => text.replace(/[<&\]\p{Cc}\p{Cs}\uFFFE\uFFFF]/gu, '')),
      { maxLength: 4 },
    )
    fc.assert(
      fc.property(
        fc.array(section, { minLength: 1, maxLength: 4 }),
        fc.infiniteStream(fc.boolean()),
        (sections, coins) => {
          const text = quiz(
            sections
              .map(
                (prompts, at) =>
                  `<section ident="s${at}">${prompts.map((prompt, n) => question(`${at}-${n}`, prompt)).join(' ')}</section>`,
              )
              .join('\n'),
          )
          const all = read(text)
          const chosen = all.map((_, at) => at).filter(() => coins.next().value)
          expect(read(choose(text, chosen))).toEqual(chosen.map(at => all[at]))
        },
      ),
    )
  })
})
