import { describe, expect, it } from 'vitest'
import { addWord, isEnglish, noWords } from './language'
import { numbersOf, patternsOf, phoneEnds, type TracedPerson } from './people'
import { isEditedOnlyThere } from './redact'
import { hasCapital, peopleIndex, scan } from './scan'
import { startsSentence } from './weigh'

const person = (more: Partial<TracedPerson>): TracedPerson => ({
  id: 'p1',
  given: 'Rosamund',
  family: 'Fairlie',
  middle: null,
  nickname: null,
  userName: null,
  email: null,
  number: null,
  key: 'k',
  phones: [],
  ...more,
})
const kindsOf = (number: string) => numbersOf(person({ number })).map(({ text, kind }) => `${text} ${kind}`)
const joinedOf = (given: string, family: string) =>
  new Set(
    patternsOf(person({ given, family })).flatMap(({ words, joined }) =>
      joined ? [`${words.join(' ')} ${joined}`] : [],
    ),
  )
const found = (text: string, people: readonly TracedPerson[], where: 'prose' | 'code' = 'prose') =>
  scan(text, peopleIndex(people), { where }).map(({ from, to, kind }) => `${text.slice(from, to)} ${kind}`)

describe('what tells a person', () => {
  it('a number by its digits where these are sure, or could be nothing else', () => {
    expect(kindsOf('S1234567')).toEqual(['s1234567 number', '1234567 number'])
    // Five digits could be much; with a nought before them they are a number.
    expect(kindsOf('S12345')).toEqual(['s12345 number', '12345 digits'])
    expect(kindsOf('S02345')).toEqual(['s02345 number', '02345 number'])
    expect(kindsOf('S1234')).toEqual(['s1234 number'])
    // A year with a month.
    expect(kindsOf('S202609')).toEqual(['s202609 number'])
    expect(kindsOf('1234567')).toEqual(['1234567 number'])
  })
  it('a phone number by its last ten and its last seven digits', () => {
    expect(phoneEnds('+1 (902) 555-0137')).toEqual(['9025550137', '5550137'])
    expect(phoneEnds('555-0137')).toEqual(['5550137'])
    expect([phoneEnds('555-013'), phoneEnds('1234567890123456')]).toEqual([[], []])
  })
  it('a name in one word anywhere, but where both words are ordinary only in code', () => {
    expect(joinedOf('Rosamund', 'Fairlie')).toContain('fairlierosamund anywhere')
    expect(joinedOf('Rosamund (Rosie)', 'Fairlie')).toContain('fairlierosamund anywhere')
    expect([...joinedOf('Rosamund (Rosie)', 'Fairlie')].join()).not.toContain('rosie')
    expect(joinedOf('Will', 'Banks')).toContain('bankswill code')
    // One of the two is no word.
    expect(joinedOf('Will', 'Fairlie')).toContain('fairliewill anywhere')
  })
  it('a nickname as a name of its own', () => {
    const bee = person({ given: 'Brisa "Bee"', family: 'Okoye' })
    expect(found('Bee Okoye saw it', [bee])).toEqual(['Bee Okoye name'])
    expect(found('Brisa Okoye saw it', [bee])).toEqual(['Brisa Okoye name'])
  })
  it('a middle initial that the roster does not tell, where it is a capital', () => {
    expect(found('Rosamund K. Fairlie came', [person({})])).toEqual(['Rosamund K. Fairlie name'])
    expect(found('rosamund k fairlie came', [person({})])).not.toContain('rosamund k fairlie name')
  })
  it('the longer of two names that begin alike', () => {
    const two = [
      person({ given: 'Ana', family: 'Reis' }),
      person({ id: 'p2', given: 'Ana', family: 'Reis Lima' }),
    ]
    const hits = scan('Ana Reis Lima', peopleIndex(two), { where: 'prose' })
    expect(hits.map(({ people, to }) => [people, to])).toEqual([[['p2'], 13]])
  })
})
describe('signs of a text', () => {
  it('a capital, in ASCII and beyond it', () => {
    const isAt = (text: string) => hasCapital(text, { from: 0 })
    expect(['A', 'Z', 'Ä', 'É'].map(isAt)).toEqual([true, true, true, true])
    expect(['a', 'z', '@', '[', 'ä', '\u0080'].map(isAt)).toEqual([false, false, false, false, false, false])
  })
  it('the beginning of a sentence', () => {
    expect(['', 'So. ', 'So.” ', 'a\n'].map(startsSentence)).toEqual([true, true, true, true])
    expect(['So, ', 'So.', 'so '].map(startsSentence)).toEqual([false, false, false])
  })
  it('English is told by its own words where there are enough, else by those of the course', () => {
    const count = (words: string[]) => {
      const told = noWords()
      for (const word of words) addWord(told, word)
      return told
    }
    const many = (word: string, n: number) => Array.from({ length: n }, () => word)
    const [english, other] = [count([...many('the', 20), ...many('zzz', 80)]), count(many('zzz', 100))]
    expect(english).toEqual({ all: 100, english: 20 })
    expect([isEnglish(english, other), isEnglish(other, english)]).toEqual([true, false])
    expect([isEnglish(count(['zzz']), english), isEnglish(count(['zzz']), other)]).toEqual([true, false])
    expect(isEnglish(count([]), count([]))).toBe(true)
  })
})
describe('a text that was edited only where it was shown', () => {
  const edit = (from: number, to: number, text = '') => ({ from, to, text })
  it('says so of just that', () => {
    expect(isEditedOnlyThere('abcdef', 'abXf', [edit(2, 5, 'X')])).toBe(true)
    expect(isEditedOnlyThere('abcdef', 'abXg', [edit(2, 5, 'X')])).toBe(false)
    // An edit within another is done with it; one right after it is its own.
    expect(isEditedOnlyThere('abcdef', 'abXf', [edit(3, 4, 'Y'), edit(2, 5, 'X')])).toBe(true)
    expect(isEditedOnlyThere('abcdef', 'abXY', [edit(5, 6, 'Y'), edit(2, 5, 'X')])).toBe(true)
    expect(isEditedOnlyThere('abcdef', 'abXIf', [edit(5, 5, 'I'), edit(2, 5, 'X')])).toBe(true)
  })
})
