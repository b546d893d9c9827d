import { bounds, boundsReasons } from './bounds'
import { closure, closureReasons } from './closure'
import { orderReasons } from './order'
import type { Step } from './step'
import { time, timeReasons } from './time'
import { zone, zoneReasons } from './zone'

/**
 * The steps after placing, in the order of `docs/dates.md` §5: those that look at the date alone, those that set the time of
 * day, then `order` (it looks at a whole item), then those that need the finished moment.
 */
export const dateSteps: readonly Step[] = [bounds, closure]
export const timeSteps: readonly Step[] = [time]
export const stepsAfterOrder: readonly Step[] = [zone]
export { order } from './order'

export const stepReasons = {
  ...boundsReasons,
  ...closureReasons,
  ...timeReasons,
  ...orderReasons,
  ...zoneReasons,
}
