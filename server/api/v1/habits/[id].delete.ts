import { z } from 'zod'
import { changesHabit } from '../../../habits/access'
import { forgetHabit } from '../../../habits/habits'
import { habitAddress } from '../../../http/addresses'
import { route } from '../../../http/route'

export default route({
  summary: 'Delete a habit',
  params: habitAddress,
  reply: z.object({}),
  may: changesHabit,
  run: async ({ db, person, params }) => {
    await forgetHabit(db, person, params.id)
    return {}
  },
})
