import { studentDataHeld } from './clear/held'
import { settleSum, type ToSettle } from '~~/core/plan/to-settle'
import type { PlanReply } from '~~/shared/api/plans'
import { counted } from '~/composables/words'
import type { StageKey } from './stages'

/** What stands under a stage: a count, or that a person must look. */
export interface StageNote {
  text: string
  settle?: boolean
}
/** What a plan has come to, for the notes under its stages. */
export interface PlanProgress {
  carried: number
  items: number
  dates: number
  toSettle: ToSettle
  /** Whether traces of students are still searched for. */
  isSearching: boolean
}

function pairNote({ target, more, mode, fits, sameCourse }: PlanReply): StageNote {
  if (mode === 'in-place') return { text: 'in place' }
  if (target.course.origin === 'awaited')
    return { text: fits.length > 0 ? 'attach the shell' : 'no shell yet', settle: true }
  if (more.length > 0) return { text: counted(more.length + 1, 'source') }
  return { text: sameCourse ? 'matched' : 'different codes' }
}
/** How much of a stage is to settle; null where nothing is, or the plan was run. */
function settleNote(
  { state }: PlanReply,
  { toSettle }: PlanProgress,
  stage: 'carry' | 'clear' | 'date',
): StageNote | null {
  const open = settleSum(toSettle, stage)
  return open > 0 && state === 'draft' ? { text: `${open} to settle`, settle: true } : null
}
function clearNote(plan: PlanReply, progress: PlanProgress): StageNote {
  if (plan.state === 'draft' && progress.isSearching) return { text: 'searching …' }
  const open = settleNote(plan, progress, 'clear')
  if (open) return open
  if (studentDataHeld(plan).total === 0) return { text: 'nothing there' }
  return { text: plan.mode === 'in-place' ? 'last term’s goes' : 'nothing crosses' }
}
function carryNote(plan: PlanReply, progress: PlanProgress): StageNote {
  if (plan.mode === 'in-place') return { text: 'skipped' }
  return settleNote(plan, progress, 'carry') ?? { text: `${progress.carried} of ${progress.items}` }
}
const dateNote = (plan: PlanReply, progress: PlanProgress): StageNote =>
  settleNote(plan, progress, 'date') ?? { text: `${progress.dates} dates` }
export const stageNotes = (plan: PlanReply, progress: PlanProgress): Record<StageKey, StageNote> => ({
  pair: pairNote(plan),
  carry: carryNote(plan, progress),
  clear: clearNote(plan, progress),
  date: dateNote(plan, progress),
  run: { text: plan.state === 'run' ? 'done' : 'writes' },
})
