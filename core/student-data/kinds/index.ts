import { attempts } from './attempts'
import { extensions } from './extensions'
import { grades } from './grades'
import { posts } from './posts'
import { submissions } from './submissions'

/**
 * Every kind of student data, by name, in the order shown. A new kind is its own file, a line here, and a migration that
 * makes its table (CONTRIBUTING.md has an example). Reading, counting, snapshots, the audit and the pages walk over this list.
 */
export const studentDataKinds = { submissions, grades, attempts, posts, extensions }
