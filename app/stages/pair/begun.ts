import type { BetterWay } from '~~/core/plan/better'
import { methods, type MethodName } from '~~/core/dates/methods'
import type { PlanReply } from '~~/shared/api/plans'
import { counted } from '~/composables/words'

/** What a plan's decisions began as, as a sentence; of some it is not known. */
export function begunText(begun: PlanReply['begunWith']): string {
  if (!begun) return ''
  const texts: Record<typeof begun.how, string> = {
    recommended: 'This plan began with the recommended decisions.',
    'as-before': 'This plan began with the decisions of the last time.',
    habit: `This plan began with the habit “${begun.habit ?? ''}”.`,
  }
  return texts[begun.how]
}
/** `“Same week and weekday”` */
export const methodText = (method: MethodName): string => `“${methods[method].title}”`
/** Which way of moving dates is in force and which leaves far more or fewer to settle. `isTaken`: the better one is in force. */
export function betterText({ method, settles, instead }: BetterWay, isTaken: boolean): string {
  const to = (n: number): string => `${counted(n, 'date')} to settle`
  return isTaken
    ? `Dates move by ${methodText(method)}, which leaves ${to(settles)}. ${methodText(instead.method)} would leave ${instead.settles}.`
    : `Dates move by ${methodText(instead.method)}, which leaves ${to(instead.settles)}. ${methodText(method)} would leave ${settles}.`
}
