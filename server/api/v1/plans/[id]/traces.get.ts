import { tracesReply } from '../../../../../shared/api/traces'
import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'
import { readTraces } from '../../../../student-data/traces'

export default route({
  summary: 'Traces of students in what a plan carries',
  params: planAddress,
  reply: tracesReply,
  may: readsPlan,
  run: ({ db, person, params }) => readTraces(db, person, params.id),
})
