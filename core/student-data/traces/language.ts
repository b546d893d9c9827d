/** Words that make a sixth or more of any English text, and hardly stand in texts of other languages (common practice). */
const english = new Set(
  'the of and to is for with that are you this by or from your will what which when not'.split(' '),
)
const enough = 80
const share = 0.08

/** Counts the words of a text, to tell whether it is English. */
export interface WordCount {
  all: number
  english: number
}
export const noWords = (): WordCount => ({ all: 0, english: 0 })
export function addWord(count: WordCount, word: string): void {
  count.all++
  if (english.has(word)) count.english++
}
/** Whether a text is English: by its own words, where there are enough of them, else by those of its course; of both too short, yes. */
export function isEnglish(own: WordCount, course: WordCount): boolean {
  const told = own.all >= enough ? own : course
  return told.all < enough || told.english / told.all >= share
}
