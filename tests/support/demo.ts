import type { Knex } from 'knex'
import { afterAll, beforeAll } from 'vitest'
import { connect, migrate } from '../../server/db/connection'
import type { Person } from '../../server/people/people.queries'
import { findPerson } from '../../server/people/people.queries'
import { fillWithDemo, freshDatabase } from './database'

/** The demo in a database of its own, with those who sign in and the three courses, by what tests call them. */
export interface Demo {
  db: Knex
  people: Record<'marchetti' | 'okonjo' | 'brandt' | 'ellwood' | 'sorrel' | 'corrigall', Person>
  courses: { old: string; empty: string; template: string }
  findings: Awaited<ReturnType<typeof fillWithDemo>>
}

export function useDemo(name: string): Demo {
  const demo = {} as Demo
  beforeAll(async () => {
    process.env.NORTHTIDE_NOW = '2027-01-05T20:00:00-04:00'
    demo.db = connect(await freshDatabase(`northtide_${name}`))
    await migrate(demo.db)
    demo.findings = await fillWithDemo(demo.db, `northtide_${name}`)
    const people = await demo.db('people').whereNotNull('login').select('id', 'login')
    demo.people = Object.fromEntries(
      await Promise.all(people.map(async row => [row.login, await findPerson(demo.db, row.id)])),
    )
    const course = async (source: string) =>
      (await demo.db('courses').where({ source_id: source }).first('id'))?.id ?? ''
    demo.courses = {
      old: await course('hyd240-01-2026a'),
      empty: await course('hyd240-01-2027s'),
      template: await course('hyd240-02-2027s'),
    }
  })
  afterAll(() => demo.db.destroy())
  return demo
}
