import { studentDataHeld } from './clear/held'
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
  settle: number
  /** Places and grade rules that need a person. */
  places: number
  /** Traces of students, and files that could not be looked into, that need a person; null while they are searched for. */
  traces: number | null
}

function pairNote({ target, more, mode, fits, sameCourse }: PlanReply): StageNote {
  if (mode === 'in-place') return { text: 'in place' }
  if (target.course.origin === 'awaited')
    return { text: fits.length > 0 ? 'attach the shell' : 'no shell yet', settle: true }
  if (more.length > 0) return { text: counted(more.length + 1, 'source') }
  return { text: sameCourse ? 'matched' : 'different codes' }
}
function clearNote(plan: PlanReply, { traces }: PlanProgress): StageNote {
  if (plan.state === 'draft' && traces) return { text: `${traces} to settle`, settle: true }
  if (plan.state === 'draft' && traces === null) return { text: 'searching …' }
  if (studentDataHeld(plan).total === 0) return { text: 'nothing there' }
  return { text: plan.mode === 'in-place' ? 'last term’s goes' : 'nothing crosses' }
}
function carryNote({ mode, state }: PlanReply, { carried, items, places }: PlanProgress): StageNote {
  if (mode === 'in-place') return { text: 'skipped' }
  if (places > 0 && state === 'draft') return { text: `${places} to settle`, settle: true }
  return { text: `${carried} of ${items}` }
}
function dateNote({ dates, settle }: PlanProgress): StageNote {
  return settle > 0 ? { text: `${settle} to settle`, settle: true } : { text: `${dates} dates` }
}
export const stageNotes = (plan: PlanReply, progress: PlanProgress): Record<StageKey, StageNote> => ({
  pair: pairNote(plan),
  carry: carryNote(plan, progress),
  clear: clearNote(plan, progress),
  date: dateNote(progress),
  run: { text: plan.state === 'run' ? 'done' : 'writes' },
})
