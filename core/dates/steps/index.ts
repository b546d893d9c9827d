import { bounds } from './bounds'
import { closure } from './closure'
import type { SlotStep } from './step'
import { time } from './time'
import { zone } from './zone'

/** The steps after placing, in the order of `docs/dates.md` §5. `order` stands between the two lists: it looks at a whole item. */
export const stepsBeforeOrder: readonly SlotStep[] = [bounds, closure, time]
export const stepsAfterOrder: readonly SlotStep[] = [zone]
export { order } from './order'
