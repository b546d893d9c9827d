import { counted } from '../../dates/words'
import type { ThingPart } from '../again'
import type { PlaceRow } from './row'

/** What each part gets that is brought up to date, given whose it is: `the old course’s`. A date may be reckoned or set by hand, and a state chosen: those are nobody's. */
const gets: Readonly<Record<ThingPart, (whose: string) => string>> = {
  title: whose => `${whose} title`,
  text: whose => `${whose} text`,
  settings: whose => `${whose} settings`,
  points: whose => `${whose} points`,
  category: () => 'another grade category',
  dates: () => 'new dates',
  place: () => 'another place',
  state: () => 'another state',
}
/** What becomes of a thing of the shell that is written over or goes, as it follows its title. `whose`: `the old course’s`. */
export function lossText({ happens, source, shell, parts }: PlaceRow, whose: string): string {
  if (happens === 'unfilled') return 'is an empty place that nothing fills, and is removed'
  if (happens === 'removes') return 'is removed from the shell'
  if (happens === 'again') {
    const taken = parts.flatMap(({ part, takes, passages }) => {
      if (!takes) return []
      const { takes: own = [], both = [] } = passages ?? {}
      return [
        passages ? `${whose} text in ${counted(own.length + both.length, 'passage')}` : gets[part](whose),
      ]
    })
    return `gets ${taken.join(', ')}`
  }
  return `is replaced by ${source && source.title !== shell?.title ? `“${source.title}”` : whose}`
}
