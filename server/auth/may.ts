import type { Knex } from 'knex'
import { accessToCourse, type CourseAccess } from '../courses/access.queries'
import { findStaff, type Person } from '../people/people.queries'
import { findPlan } from '../plans/plans.queries'
import { findRequest } from '../shells/requests.queries'
import { findRun } from '../runs/runs.queries'
import { findUpload } from '../exchange/uploads.queries'
import { notFound, Problem } from '../http/problem'

/** Who may use a route. `allow` answers true, or the problem to tell. Open: no session is asked for. */
export interface May<P> {
  readonly name: string
  readonly open?: true
  readonly allow: (ask: { db: Knex; person: Person; params: P }) => Promise<true | Problem>
}

/** Anyone, signed in or not. */
export const anyone: May<unknown> = { name: 'anyone', open: true, allow: async () => true }
/** Anyone who is signed in; the service shows only what that person may see. */
export const signedIn: May<unknown> = { name: 'signed in', allow: async () => true }

const forCourse = (
  name: string,
  may: (access: CourseAccess) => boolean,
  refusal = 'You may see this course, not do this',
): May<{ id: string }> => ({
  name,
  allow: async ({ db, person, params }) => {
    const access = await accessToCourse(db, person, params.id)
    return access.read
      ? may(access) || new Problem(403, refusal, 'Nothing was changed.')
      : notFound('This course')
  },
})
/** Those who may read the content of the course in the address: its staff, its coordinators, the academic office, and who was given it to take from. */
export const readsCourse = forCourse('reads the course', () => true)
/** Those who have to do with the course themselves, not only with what it holds. */
export const worksWithCourse = forCourse(
  'works with the course',
  access => access.role !== 'shared',
  'This course is shared with you to take from, no more',
)
/** Those who may let others take from a course: its instructors, its coordinators, the academic office. */
export const sharesCourse = forCourse(
  'shares the course',
  access => access.share,
  'Its instructors, its coordinators and the academic office may share a course',
)
/** Those who may take from a course. */
export const takesFromCourse = forCourse('takes from the course', access => access.take)
/** Those who may let an assistant run plans: instructors of the course, the academic office. */
export const delegates = forCourse(
  'lets others run',
  access => access.role === 'instructor' || access.role === 'office',
  'Its instructors decide who may run',
)

function forPlan(name: string, right: 'plan' | 'run' | 'read', refusal: string): May<{ id: string }> {
  return {
    name,
    allow: async ({ db, person, params }) => {
      const plan = await findPlan(db, params.id)
      const target = plan && (await accessToCourse(db, person, plan.targetId))
      // Its shell decides; what it may take of its sources is the right of whoever chose them (services/plans).
      if (!target?.read || target.role === 'shared') return notFound('This plan')
      return right === 'read' || target[right] || new Problem(403, refusal, 'Nothing was changed.')
    },
  }
}
/** Those who may see a plan: who has to do with its shell. */
export const readsPlan = forPlan('reads the plan', 'read', '')
/** Those who may change a plan: instructors and assistants of its shell, and the academic office. */
export const editsPlan = forPlan('edits the plan', 'plan', 'You may see this plan, not change it')
/** Those who may run a plan: instructors of its shell, assistants whom they have allowed it, the academic office. */
export const runsPlan = forPlan(
  'runs the plan',
  'run',
  'An instructor of the shell must run this plan, or allow you to',
)
/** Those who may read a run: who has to do with the shell it went into. */
export const readsRun: May<{ id: string }> = {
  name: 'reads the run',
  allow: async ({ db, person, params }) => {
    const run = await findRun(db, params.id)
    const access = run && (await accessToCourse(db, person, run.targetId))
    return (access && access.read && access.role !== 'shared') || notFound('This run')
  },
}
/** The one who asked, and the academic office. */
export const ownsTheRequest: May<{ id: string }> = {
  name: 'asked for the shell',
  allow: async ({ db, person, params }) => {
    const request = await findRequest(db, params.id)
    return (
      (request !== null &&
        (request.personId === person.id || person.duties.some(duty => duty.duty === 'office'))) ||
      notFound('This request')
    )
  },
}
/** The one who sent a file. */
export const ownsTheUpload: May<{ id: string }> = {
  name: 'sent the file',
  allow: async ({ db, person, params }) =>
    (await findUpload(db, params.id))?.personId === person.id || notFound('This file'),
}
/** The academic office. */
export const isTheOffice: May<unknown> = {
  name: 'is the academic office',
  allow: async ({ person }) =>
    person.duties.some(duty => duty.duty === 'office') ||
    new Problem(403, 'This is for the academic office', 'Nothing was changed.'),
}
/** The academic office, of somebody who is there. */
export const officeForPerson: May<{ id: string }> = {
  name: 'is the academic office, for a person',
  allow: async ask => {
    const office = await isTheOffice.allow(ask)
    return office !== true
      ? office
      : (await findStaff(ask.db, ask.params.id)) !== null || notFound('This person')
  },
}
