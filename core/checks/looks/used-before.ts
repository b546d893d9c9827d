import { itemKindDefinitions } from '../../course/kinds'
import { check, standingItems } from '../check'

/** A test whose questions students were given in more than one term. */
export const usedBefore = check({
  title: 'Assessments used before',
  short: 'used before',
  grave: 'look',
  mends: 'Take it as a frame, and write other questions',
  knows: ['usedIn'],
  find: ({ nodes, usedIn }) =>
    standingItems({ nodes }).flatMap(({ lineage, kind, body, holds }) => {
      const terms = body === null ? [] : (usedIn.get(body) ?? [])
      const asks = kind !== null && itemKindDefinitions[kind].shows === 'questions' && kind !== 'bank'
      return asks && holds === null && terms.length > 1
        ? [{ lineage, sentence: `The same questions were used in ${terms.join(', ')}.` }]
        : []
    }),
})
