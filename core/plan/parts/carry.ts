import { z } from 'zod'
import { courseModes, courseModeWords } from '../../carry/mode'
import { writesText } from '../../carry/places/row'
import { itemKinds, itemStates, kindWords, type ItemKind } from '../../course/model'
import { settingNames, settingWords } from '../../course/settings'
import { line } from '../../text'
import type { Placement } from '../effect'
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
const stateText = (state: ArrivalState | undefined): string =>
  state ? arrivalWords[state] : 'like the others'

export const furnitureChoices = { take: 'comes', leave: 'stays behind' } as const
const settingsText = (given: Readonly<Record<string, string>> | undefined): string =>
  given ? settingWords(given).join(', ') : 'as they were'
const frameText = (frame: boolean | undefined): string => (frame ? 'a frame' : 'whole')
function aroundIn(placements: readonly Placement[]): { comes: number; replaced: number } {
  const actions = placements.filter(({ entity }) => entity === 'furnishing').map(({ action }) => action)
  return {
    comes: actions.filter(action => action !== 'cleared').length,
    replaced: actions.filter(action => action !== 'added').length,
  }
}
/** Of several things a sentence for one or for many; of none nothing. */
const toldOf = (things: object | readonly unknown[], one: string, many: (n: number) => string): string[] => {
  const n = Object.keys(things).length
  if (n === 0) return []
  return [n === 1 ? one : many(n)]
}
const nothingDecided = {
  leave: [],
  take: [],
  arrive: 'as-was' as const,
  states: {},
  groups: {},
  frames: {},
  frameKinds: {},
  settings: {},
  modes: {},
  furniture: {},
}
interface FrameDecisions {
  readonly frames: Readonly<Record<string, boolean>>
  readonly frameKinds: Readonly<Partial<Record<ItemKind, boolean>>>
}
/** Whether an item comes as a frame: title, date, points and category, no content. */
export const comesAsFrame = (
  { frames, frameKinds }: FrameDecisions,
  { lineage, kind }: { readonly lineage: string; readonly kind: ItemKind | null },
): boolean => kind !== null && (frames[lineage] ?? frameKinds[kind] ?? false)

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
    /** Items that come as frames, or not; and kinds of which all do. */
    frames: z.record(key, z.boolean()).default({}),
    frameKinds: z.partialRecord(z.enum(itemKinds), z.boolean()).default({}),
    /** Settings that an item gets instead of its own, by name. */
    settings: z.record(key, z.partialRecord(z.enum(settingNames), line(200))).default({}),
    /** How the old course was taught, and how the new one will be, where that is not as their meetings say. */
    modes: z.partialRecord(z.enum(['from', 'into']), z.enum(courseModes)).default({}),
    /** Whether something around the units comes; else it does where the shell has nothing of the kind. */
    furniture: z.record(key, z.enum(['take', 'leave'])).default({}),
  }),
  recommended: nothingDecided,
  join: (joiner, values) => ({
    leave: joiner.members('', changedIn(values, 'leave'), 'left behind'),
    take: joiner.members('take', changedIn(values, 'take'), 'asked for'),
    arrive: joiner.one('arrive', changedIn(values, 'arrive'), stateText),
    states: joiner.keyed('states', changedIn(values, 'states'), stateText),
    groups: joiner.keyed('groups', changedIn(values, 'groups'), choice =>
      choice ? groupChoices[choice] : 'a new group',
    ),
    frames: joiner.keyed('frames', changedIn(values, 'frames'), frameText),
    frameKinds: joiner.keyed('frameKinds', changedIn(values, 'frameKinds'), frameText),
    settings: joiner.keyed('settings', changedIn(values, 'settings'), settingsText),
    modes: joiner.keyed('modes', changedIn(values, 'modes'), mode =>
      mode ? courseModeWords[mode] : 'as the meetings say',
    ),
    furniture: joiner.keyed('furniture', changedIn(values, 'furniture'), choice =>
      choice ? furnitureChoices[choice] : 'as proposed',
    ),
  }),
  // What one item was given is written into the shell, which is the next term's source.
  habit: {
    keeps: value => ({ ...value, frames: {}, settings: {}, modes: {} }),
    over: ({ frames, settings, modes }, kept) => ({ ...kept, frames, settings, modes }),
    tells: kept => [
      ...(kept.arrive === 'as-was' ? [] : [`Items arrive ${arrivalWords[kept.arrive]}.`]),
      ...Object.entries(kept.frameKinds).flatMap(([kind, comes]) =>
        comes ? [`Every ${kindWords(kind as ItemKind)[0]} comes as a frame, without content.`] : [],
      ),
      ...toldOf(
        kept.leave,
        'One thing of the old course stays behind.',
        n => `${n} things of the old course stay behind.`,
      ),
      ...toldOf(
        kept.take,
        'One thing comes that usually stays behind.',
        n => `${n} things come that usually stay behind.`,
      ),
      ...toldOf(
        kept.states,
        'One item arrives in a state of its own.',
        n => `${n} items arrive in states of their own.`,
      ),
      ...toldOf(
        kept.groups,
        'For one item it is decided for whom it comes.',
        n => `For ${n} items it is decided for whom they come.`,
      ),
      ...toldOf(
        kept.furniture,
        'Around the units, one choice is made.',
        n => `Around the units, ${n} choices are made.`,
      ),
    ],
  },
  eachTerm: 'How the new course is taught, and settings and frames of single items.',
  again: value => value,
  furtherShells: 'the same',
  forOtherSource: ({ arrive, frameKinds }) => ({ ...nothingDecided, arrive, frameKinds }),
  effect: ({ categories, fresh, wanted, source, target, rows, placements, leftUnasked, count }) => ({
    given: placements.filter(entry => entry.settings !== null).length,
    around: aroundIn(placements),
    frames: rows.filter(row => row.text?.isFrame && writesText(row)).length,
    added: {
      units: count(fresh, 'unit'),
      items: count(fresh, 'item'),
      categories: categories.length,
      byKind: count.byKind(fresh),
    },
    already: count.happens('there', 'again'),
    deletedThere: count.happens('away'),
    leftBehind: count(source, 'item') - count(wanted, 'item'),
    leftUnasked,
    kept: {
      units: count(target, 'unit') - count.ofShell(rows, 'unit'),
      items: count(target, 'item') - count.ofShell(rows, 'item'),
    },
  }),
})
