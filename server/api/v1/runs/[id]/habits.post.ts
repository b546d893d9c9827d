import { z } from 'zod'
import { keepHabit } from '../../../../habits/habits'
import { runAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsRun } from '../../../../runs/access'
import { id } from '../../../../../shared/api/courses'
import { newHabit } from '../../../../../shared/api/habits'

/** The service looks whether a department's habits are this person's to keep. */
export default route({
  summary: 'Keep the decisions of a run as a habit',
  params: runAddress,
  body: newHabit,
  reply: z.object({ id }),
  may: readsRun,
  run: ({ db, person, params, body }) => keepHabit(db, person, params.id, body),
})
