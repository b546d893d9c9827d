import { z } from 'zod'
import { changesHabit } from '../../../habits/access'
import { changeHabit } from '../../../habits/habits'
import { habitAddress } from '../../../http/addresses'
import { route } from '../../../http/route'
import { habitChange } from '../../../../shared/api/habits'

export default route({
  summary: 'Rename a habit, or make it the one that plans begin with',
  params: habitAddress,
  body: habitChange,
  reply: z.object({}),
  may: changesHabit,
  run: async ({ db, person, params, body }) => {
    await changeHabit(db, person, params.id, body)
    return {}
  },
})
