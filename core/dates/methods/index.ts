import { always } from './always'
import { anchor } from './anchor'
import { keepWeek } from './keep-week'
import { meetings } from './meetings'
import { none } from './none'
import { offset } from './offset'
import { set } from './set'
import { span } from './span'
import { stretch } from './stretch'
import { unchanged } from './unchanged'

/**
 * Every way in which dates cross, by name, in the order of `docs/dates.md` §4. A new one is its own file and a line here
 * (CONTRIBUTING.md has an example): rules, reasons, sentences, comparison and pages walk over this list.
 */
export const methods = {
  'keep-week': keepWeek,
  offset,
  stretch,
  meetings,
  anchor,
  span,
  set,
  unchanged,
  none,
  always,
}
export type MethodName = keyof typeof methods
