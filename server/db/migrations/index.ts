import type { Knex } from 'knex'
import { firstSchema } from './001-first'
import { boundYears } from './002-years'
import { endingShares } from './003-sharing'
import { forgetCodes } from './004-log-codes'
import { turns } from './005-turns'
import { staffIndex } from './006-staff-index'
import { readableBodies } from './007-readable'
import { sessions } from './008-sessions'
import { knownBrowsers } from './009-known-browsers'
import { places } from './010-places'
import { madeTexts } from './011-made-texts'
import { added } from './012-added'
import { studentDataInFull } from './013-student-data'
import { runsInFull } from './014-runs'
import { habits } from './015-habits'
import { batches } from './016-batches'
import { otherDates } from './017-other-dates'
import { changedAt } from './018-changed-at'
import { phoneKeys } from './019-phone-keys'
import { undoAskedAt } from './020-undo-asked'
import { broughtIn } from './021-brought-in'
import { linkedSections } from './022-linked-sections'

/** Every migration by name, in order. They only go forward; one that has been released never changes. */
export const migrations: Record<string, (db: Knex) => Promise<void>> = {
  '001-first': firstSchema,
  '002-years': boundYears,
  '003-sharing': endingShares,
  '004-log-codes': forgetCodes,
  '005-turns': turns,
  '006-staff-index': staffIndex,
  '007-readable': readableBodies,
  '008-sessions': sessions,
  '009-known-browsers': knownBrowsers,
  '010-places': places,
  '011-made-texts': madeTexts,
  '012-added': added,
  '013-student-data': studentDataInFull,
  '014-runs': runsInFull,
  '015-habits': habits,
  '016-batches': batches,
  '017-other-dates': otherDates,
  '018-changed-at': changedAt,
  '019-phone-keys': phoneKeys,
  '020-undo-asked': undoAskedAt,
  '021-brought-in': broughtIn,
  '022-linked-sections': linkedSections,
}
