import { looksOfMode, type CourseMode } from '../../carry/mode'
import { check, standingItems } from '../check'

const modeWords: Readonly<Record<CourseMode, string>> = {
  'in-person': 'a course that meets',
  blended: 'a blended course',
  online: 'an online course',
}
/** What was made for the way in which the old course was taught, where the new one is taught otherwise. */
export const otherMode = check({
  title: 'Made for another way of teaching',
  short: 'another way of teaching',
  grave: 'look',
  mends: 'Take it as a frame, or leave it behind',
  knows: ['modes'],
  find: ({ nodes, modes }) =>
    standingItems({ nodes })
      .filter(({ holds }) => holds === null)
      .flatMap(item =>
        looksOfMode(item, modes).map(({ mode, sign }) => ({
          lineage: item.lineage,
          sentence: `Made for ${modeWords[mode]}: ${sign}.`,
        })),
      ),
})
