import type { Prepare } from '../draft'
import type { MethodName, RuleOf } from '../rule'
import { always } from './always'
import { anchor } from './anchor'
import { keepWeek } from './keep-week'
import { meetings } from './meetings'
import { none } from './none'
import { offset } from './offset'
import { span } from './span'
import { stretch } from './stretch'

/**
 * Every method that places dates, by name. `set` is not among them: it states dates instead of placing them, and no step
 * touches it (see `plan.ts`). A new method is a file here, a line in this list and its parameters in `rule.ts`.
 */
export const methods: { readonly [M in Exclude<MethodName, 'set'>]: Prepare<RuleOf<M>> } = {
  'keep-week': keepWeek,
  offset,
  stretch,
  meetings,
  anchor,
  span,
  none,
  always,
}
