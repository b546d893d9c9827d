import { itemKindDefinitions } from '../../course/kinds'
import { check, standingItems } from '../check'
import { isUnseen } from './unseen'

/** Work that no student touched last term: where none did, nobody needed it. Common practice, no source. */
export const untouched = check({
  title: 'Untouched last term',
  short: 'untouched',
  grave: 'look',
  mends: 'Leave it behind',
  knows: ['worked'],
  find: ({ nodes, worked: { students, on } }) =>
    students === 0
      ? []
      : standingItems({ nodes }).flatMap(item => {
          const isWork = item.kind !== null && itemKindDefinitions[item.kind].workedOn
          return isWork && item.holds === null && !isUnseen(item) && !on.has(item.lineage)
            ? [
                {
                  lineage: item.lineage,
                  sentence: `None of the ${students} students did anything here last term.`,
                },
              ]
            : []
        }),
})
