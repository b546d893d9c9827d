import type { RunStep, WritingNow } from '~~/shared/api/writing'
import { counted, numberText } from '~/composables/words'

const steps: Readonly<Record<RunStep, (done: number, total: number) => string>> = {
  waits: () => 'It waits for its turn.',
  reads: () => 'Reading the courses and the plan.',
  writes: (done, total) => `Writing: ${numberText(done)} of ${counted(total, 'thing')}.`,
  checks: (_done, total) => `All ${numberText(total)} written. Now the audit looks for student data.`,
}
/** How far a run is, in a sentence. */
export const progressText = ({ step, done, total }: NonNullable<WritingNow>): string =>
  steps[step](done, total)
