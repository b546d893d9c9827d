import type { Person } from '../../server/people/people.queries'
import { listShells } from '../../server/shells/shells'
import type { Demo } from '../support/demo'

/** What the first page lists for a person. */
export const readShells = async (demo: Demo, person: Person) => (await listShells(demo.db, person)).courses
