import { bounds } from './bounds'
import { closure } from './closure'
import type { SlotStep } from './step'
import { time } from './time'
import { zone } from './zone'

/**
 * The steps after placing, in the order of `docs/dates.md` §5: those that look at the date alone, those that set the time of
 * day, then `order` (it looks at a whole item), then those that need the finished moment.
 */
export const dateSteps: readonly SlotStep[] = [bounds, closure]
export const timeSteps: readonly SlotStep[] = [time]
export const stepsAfterOrder: readonly SlotStep[] = [zone]
export { order } from './order'
