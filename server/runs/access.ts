import type { May } from '../auth/may'
import { accessToCourse } from '../courses/access'
import { notFound } from '../errors/refusal'
import { findRun } from '../run-facts/runs.queries'

/** Those who may read a run: who has to do with the shell it went into. */
export const readsRun: May<{ id: string }> = {
  name: 'reads the run',
  allow: async ({ db, person, params }) => {
    const run = await findRun(db, params.id)
    const access = run && (await accessToCourse(db, person, run.targetId))
    return (access?.read && access.role !== 'shared') || notFound('This run')
  },
}
