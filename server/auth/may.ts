import type { Knex } from 'knex'
import { accessToCourse, type CourseAccess } from '../db/queries/access'
import type { Person } from '../db/queries/people'
import { findPlan } from '../db/queries/plans'
import { findRun } from '../db/queries/runs'
import { findUpload } from '../db/queries/uploads'
import { notFound, Problem } from '../http/problem'

/** Who may use a route. `allow` answers true, or the problem to tell. Open: no session is asked for. */
export interface May<P> {
  readonly name: string
  readonly open?: true
  readonly allow: (ask: { db: Knex, person: Person, params: P }) => Promise<true | Problem>
}

/** Anyone, signed in or not. */
export const anyone: May<unknown> = { name: 'anyone', open: true, allow: async () => true }
/** Anyone who is signed in; the service shows only what that person may see. */
export const signedIn: May<unknown> = { name: 'signed in', allow: async () => true }

/** Those who may read the course in the address: its staff, its coordinators, the academic office. */
export const readsCourse: May<{ id: string }> = {
  name: 'reads the course',
  allow: async ({ db, person, params }) => (await accessToCourse(db, person, params.id)).read || notFound('This course'),
}

type Right = keyof Pick<CourseAccess, 'plan' | 'run'>
function forPlan(name: string, right: Right | 'read', refusal: string): May<{ id: string }> {
  return {
    name,
    allow: async ({ db, person, params }) => {
      const plan = await findPlan(db, params.id)
      const target = plan && await accessToCourse(db, person, plan.targetId)
      const source = plan && await accessToCourse(db, person, plan.sourceId)
      if (!target?.read || !source?.read) return notFound('This plan')
      return right === 'read' || target[right] || new Problem(403, refusal, 'Nothing was changed.')
    },
  }
}
/** Those who may see a plan: who may read both its courses. */
export const readsPlan = forPlan('reads the plan', 'read', '')
/** Those who may change a plan: instructors and assistants of its shell, and the academic office. */
export const editsPlan = forPlan('edits the plan', 'plan', 'You may see this plan, not change it')
/** Those who may run a plan: instructors of its shell, assistants whom they have allowed it, the academic office. */
export const runsPlan = forPlan('runs the plan', 'run', 'An instructor of the shell must run this plan, or allow you to')
/** Those who may read a run: who may read the shell it went into. */
export const readsRun: May<{ id: string }> = {
  name: 'reads the run',
  allow: async ({ db, person, params }) => {
    const run = await findRun(db, params.id)
    return (run && (await accessToCourse(db, person, run.targetId)).read) || notFound('This run')
  },
}
/** The one who sent a file. */
export const ownsTheUpload: May<{ id: string }> = {
  name: 'sent the file',
  allow: async ({ db, person, params }) => (await findUpload(db, params.id))?.personId === person.id || notFound('This file'),
}
/** The academic office. */
export const isTheOffice: May<unknown> = { name: 'is the academic office', allow: async ({ person }) => person.duties.some(duty => duty.duty === 'office') || new Problem(403, 'This is for the academic office', 'Nothing was changed.') }
