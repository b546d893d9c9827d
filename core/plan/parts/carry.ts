import { z } from 'zod'
import { itemStates } from '../../course/model'
import { changedIn } from '../join'
import { planPart } from '../part'

const key = z.uuid()
/** How an item stands when it arrives; `as-was`: as in the source. */
export const arrivals = ['as-was', ...itemStates.filter(state => state !== 'deleted')] as const
export type ArrivalState = (typeof arrivals)[number]
export const arrivalWords: Readonly<Record<ArrivalState, string>> = {
  'as-was': 'as it was',
  visible: 'visible',
  hidden: 'hidden',
  listed: 'listed',
}
/** For whom work comes that was for a group of students: the same group, empty at first; everyone; or nobody, hidden. */
export const groupChoices = { group: 'a new group', everyone: 'everyone', nobody: 'nobody' } as const
export type GroupChoice = keyof typeof groupChoices
const groupNames = Object.keys(groupChoices) as [GroupChoice, ...GroupChoice[]]
const stateTold = (state: ArrivalState | undefined): string =>
  state ? arrivalWords[state] : 'like the others'

/**
 * What comes across. `leave`: lineage keys of what stays behind; everything else comes, but for what stays unless it is asked for (`take`).
 * `states` and `groups`: how single items arrive, and for whom.
 */
export const carry = planPart({
  words: 'what comes across',
  decisions: { arrive: 'How items arrive', take: 'What was asked for' },
  schema: z.object({
    leave: z.array(z.string()),
    take: z.array(key).default([]),
    arrive: z.enum(arrivals).default('as-was'),
    states: z.record(key, z.enum(arrivals)).default({}),
    groups: z.record(key, z.enum(groupNames)).default({}),
  }),
  recommended: { leave: [], take: [], arrive: 'as-was', states: {}, groups: {} },
  join: (joiner, values) => ({
    leave: joiner.members('', changedIn(values, 'leave'), 'left behind'),
    take: joiner.members('take', changedIn(values, 'take'), 'asked for'),
    arrive: joiner.one('arrive', changedIn(values, 'arrive'), stateTold),
    states: joiner.keyed('states', changedIn(values, 'states'), stateTold),
    groups: joiner.keyed('groups', changedIn(values, 'groups'), choice =>
      choice ? groupChoices[choice] : 'a new group',
    ),
  }),
  habit: value => value,
  again: value => value,
  furtherShells: 'the same',
  forOtherSource: ({ arrive }) => ({ leave: [], take: [], arrive, states: {}, groups: {} }),
  effect: ({ categories, fresh, wanted, source, target, rows, count }) => ({
    added: {
      units: count(fresh, 'unit'),
      items: count(fresh, 'item'),
      categories: categories.length,
      byKind: count.byKind(fresh),
    },
    already: count.happens('there', 'again'),
    deletedThere: count.happens('away'),
    leftBehind: count(source, 'item') - count(wanted, 'item'),
    kept: {
      units: count(target, 'unit') - count.ofShell(rows, 'unit'),
      items: count(target, 'item') - count.ofShell(rows, 'item'),
    },
  }),
})
