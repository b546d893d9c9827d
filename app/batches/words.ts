import type { BatchReply, BatchState, PairEffect, PairState } from '~~/shared/api/batches'
import { counted } from '~/composables/words'

export const batchStateWords: Readonly<Record<BatchState, string>> = {
  trying: 'dry run under way',
  tried: 'dry run done',
  running: 'running',
  stopped: 'stopped',
  done: 'done',
}
/** How a pair stands, and the class of its colour. */
export const pairStateWords: Readonly<Record<PairState, { words: string; colour: string }>> = {
  waiting: { words: 'not tried yet', colour: 'soft' },
  ready: { words: 'ready', colour: '' },
  look: { words: 'needs a look', colour: 'settle' },
  exception: { words: 'exception', colour: 'fault' },
  out: { words: 'left out', colour: 'soft' },
  done: { words: 'filled', colour: 'kept' },
  failed: { words: 'failed', colour: 'fault' },
  undone: { words: 'undone', colour: 'soft' },
}
/** `Adds 196 items in 14 units. Replaces and removes nothing.` */
export function pairEffectText(effect: PairEffect, isDone: boolean): string {
  const [adds, replaces, removes, clears] = isDone
    ? ['Added', 'Replaced', 'Removed', 'Cleared']
    : ['Adds', 'Replaces', 'Removes', 'Clears']
  const lost = [
    effect.replaced > 0 && `${replaces} ${counted(effect.replaced, 'thing')}.`,
    effect.cleared > 0 && `${removes} ${counted(effect.cleared, 'thing')} of the shell.`,
    effect.studentRows > 0 && `${clears} ${counted(effect.studentRows, 'record')} about students.`,
  ].filter(Boolean)
  const more = lost.length > 0 ? lost.join(' ') : `${replaces} and ${removes.toLowerCase()} nothing.`
  return `${adds} ${counted(effect.items, 'item')} in ${counted(effect.units, 'unit')}. ${more}`
}
/** How many pairs there are in all. */
export const pairsIn = ({ counts }: Pick<BatchReply, 'counts'>): number =>
  Object.values(counts).reduce((sum, n) => sum + n, 0)
/** What stands in a batch, in a line. */
export function pairCountsText({ counts }: Pick<BatchReply, 'counts'>): string {
  const told = (Object.keys(pairStateWords) as PairState[]).flatMap(state =>
    counts[state] > 0 ? [`${counted(counts[state], countWord(state, 1), countWord(state, 2))}`] : [],
  )
  return told.join(', ')
}
/** The word after a number of pairs that stand so. */
export const countWord = (state: PairState, n: number): string => {
  if (state === 'exception') return n === 1 ? 'exception' : 'exceptions'
  if (state === 'look') return n === 1 ? 'needs a look' : 'need a look'
  return pairStateWords[state].words
}
/** What all pairs would begin with, or began with. */
export function decisionsText({ how, habit }: BatchReply['decisions']): string {
  const texts: Record<typeof how, string> = {
    recommended: 'the recommended decisions',
    'as-before': 'the decisions of the last time, else the recommended ones',
    habit: `the habit “${habit ?? ''}”`,
  }
  return texts[how]
}
