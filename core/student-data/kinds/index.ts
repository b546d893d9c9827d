import { accommodations } from './accommodations'
import { allowances } from './allowances'
import { answers } from './answers'
import { attempts } from './attempts'
import { attendances } from './attendances'
import { awards } from './awards'
import { comments } from './comments'
import { completions } from './completions'
import { events } from './events'
import { extensions } from './extensions'
import { follows } from './follows'
import { grades } from './grades'
import { journals } from './journals'
import { memberships } from './memberships'
import { notes } from './notes'
import { posts } from './posts'
import { reports } from './reports'
import { submissions } from './submissions'
import { visits } from './visits'

/**
 * Every kind of student data, by name, in the order shown. A new kind is its own file, a line here, and a migration that
 * makes its table (CONTRIBUTING.md has an example). Reading, counting, snapshots, the audit and the pages walk over this list.
 */
export const studentDataKinds = {
  submissions,
  reports,
  attempts,
  grades,
  posts,
  journals,
  comments,
  follows,
  memberships,
  answers,
  completions,
  attendances,
  notes,
  awards,
  visits,
  extensions,
  accommodations,
  allowances,
  events,
}
