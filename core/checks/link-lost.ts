import { brokenBy, needWords } from '../carry/needs'
import { check } from './check'

/** Something that stays behind although what comes needs it: a link to it leads nowhere, what opens after it never opens. */
export const linkLost = check({
  title: 'Needed, and left behind',
  short: 'left behind',
  grave: 'must',
  mends: 'Bring it',
  knows: ['needs'],
  find: ({ needs: { all, comes, isThere, titleOf } }) =>
    brokenBy(comes, all, isThere).flatMap(({ needed, by }) => {
      const [first] = by
      const title = titleOf(needed)
      if (title === null || !first) return []
      const others = by.length - 1
      const more = others === 0 ? '' : `, so ${others === 1 ? 'does' : 'do'} ${others} more`
      const sentence = `“${titleOf(first.lineage) ?? ''}” ${needWords[first.why]} “${title}”${more}. Left behind, the link leads nowhere.`
      return [{ lineage: needed, sentence }]
    }),
})
