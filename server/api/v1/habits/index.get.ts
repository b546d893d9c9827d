import { signedIn } from '../../../auth/may'
import { listHabits } from '../../../habits/habits'
import { route } from '../../../http/route'
import { habitsReply } from '../../../../shared/api/habits'

export default route({
  summary: 'Habits: your own, and those of your departments',
  reply: habitsReply,
  may: signedIn,
  run: ({ db, person }) => listHabits(db, person),
})
