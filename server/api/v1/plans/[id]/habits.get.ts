import { habitsForPlan } from '../../../../habits/habits'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'
import { planHabitsReply } from '../../../../../shared/api/habits'

export default route({
  summary: 'Habits that could be laid over a plan, and what each would decide in it',
  params: planAddress,
  reply: planHabitsReply,
  may: readsPlan,
  run: ({ db, person, params }) => habitsForPlan(db, person, params.id),
})
