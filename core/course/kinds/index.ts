import { announcement } from './announcement'
import { assignment } from './assignment'
import { attendance } from './attendance'
import { bank } from './bank'
import { discussion } from './discussion'
import { event } from './event'
import { file } from './file'
import { heading } from './heading'
import { page } from './page'
import { poll } from './poll'
import { quiz } from './quiz'
import { recording } from './recording'
import { survey } from './survey'
import { tool } from './tool'
import { weblink } from './weblink'

/**
 * Everything an item can be, by name, in the order shown. A new kind is its own file and a line here (CONTRIBUTING.md has
 * an example): readers, the API and the pages walk over this list.
 */
export const itemKindDefinitions = {
  assignment,
  quiz,
  bank,
  discussion,
  page,
  file,
  weblink,
  tool,
  announcement,
  event,
  poll,
  survey,
  attendance,
  recording,
  heading,
}
