import type { PlanReply } from '~~/shared/api/plans'

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
