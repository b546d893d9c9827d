import { lookedUp, type PlacesInput } from './looked-up'
import { openRows } from './open-rows'
import { inShellOrder } from './order'
import type { PlaceRow } from './row'

/**
 * The ledger of places (docs/places.md, sections 2 and 3), in the order that the shell will have: everything of the sources and of the shell
 * stands in just one row.
 */
export function placesLedger(input: PlacesInput): PlaceRow[] {
  const known = lookedUp(input)
  return inShellOrder(known, openRows(known))
}
