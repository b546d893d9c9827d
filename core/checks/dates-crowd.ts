import { isoOf } from '../calendar/day'
import { crowdedIn } from '../dates/crowding'
import { counted, dayText } from '../dates/words'
import { check, standingItems } from './check'
import { crowdItems } from './crowd-items'

/** More due on a day, or in a week, than the limits allow. */
export const datesCrowd = check({
  title: 'Crowded days',
  short: 'crowded',
  grave: 'look',
  mends: 'Ease the plan',
  knows: ['crowding', 'held'],
  find: ({ nodes, crowding, held }) => {
    const { days, weeks } = crowdedIn(crowdItems(standingItems({ nodes }), held), crowding, crowding)
    return [
      ...days.map(({ first, ids }) => ({
        lineage: ids[0] ?? null,
        field: 'due' as const,
        sentence: `${counted(ids.length, 'item')} are due on ${dayText(isoOf(first))}; the limit is ${crowding.perDay}.`,
      })),
      ...weeks.map(({ first, ids, weight }) => ({
        lineage: ids[0] ?? null,
        field: 'due' as const,
        sentence: `${weight} is due in the week from ${dayText(isoOf(first))}; the limit is ${crowding.perWeek}.`,
      })),
    ]
  },
})
