import { findPerson, type Person } from '../../server/people/people.queries'
import { listShells } from '../../server/shells/shells'
import type { Demo } from '../support/demo'

/** What the first page lists for a person. */
export const readShells = async (demo: Demo, person: Person) => (await listShells(demo.db, person)).courses

/** A colleague of another department, with a shell of their own. */
export async function colleagueOf(demo: Demo): Promise<{ person: Person; shell: string }> {
  const [id, shell, org] = [
    '0199aaaa-0000-7000-8000-000000000001',
    '0199aaaa-0000-7000-8000-000000000002',
    '0199aaaa-0000-7000-8000-000000000003',
  ]
  if (!(await demo.db('people').where({ id }).first('id'))) {
    const term = (await demo.db('terms').where({ code: '2027-spring' }).first('id'))?.id ?? ''
    await demo.db('orgs').insert({
      id: org,
      source_id: 'org-bakehouse',
      name: 'Department of Baking',
      type: 'department',
      parent_source_id: 'org-port-ellery',
    })
    await demo
      .db('people')
      .insert({ id, source_id: 'pe-quist', login: 'quist', given_name: 'Ansel', family_name: 'Quist' })
    await demo.db('courses').insert({
      id: shell,
      source_id: 'bkg115',
      term_id: term,
      org_id: org,
      code: 'BKG 115',
      section: '01',
      title: 'Bread Science',
      created_at: '2026-12-01 00:00:00',
    })
    await demo.db('enrolments').insert({
      id: shell,
      course_id: shell,
      person_id: id,
      role: 'instructor',
      is_primary: true,
      origin: 'registrar',
    })
  }
  return { person: (await findPerson(demo.db, id))!, shell }
}
