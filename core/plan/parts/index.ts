import { added } from './added'
import { carry } from './carry'
import { clearing } from './clearing'
import { dates } from './dates'
import { grace } from './grace'
import { grades } from './grades'
import { names } from './names'
import { places } from './places'
import { sections } from './sections'
import { traces } from './traces'
import { windows } from './windows'

/**
 * Every part of a plan, by its name in the document. A new one is its own file and a line here (CONTRIBUTING.md has an
 * example): the schema, merging, habits, further shells, the effect and the run walk over this list.
 */
export const planParts = {
  carry,
  added,
  places,
  grades,
  traces,
  clearing,
  dates,
  grace,
  names,
  windows,
  sections,
}
