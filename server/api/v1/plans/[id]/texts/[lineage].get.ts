import { planTextAddress } from '../../../../../http/addresses'
import { route } from '../../../../../http/route'
import { readsPlan } from '../../../../../plans/access'
import { readPlanText } from '../../../../../runs/texts'
import { planText } from '../../../../../../shared/api/plans'

export default route({
  summary: 'A text that a plan carries: its headings, and where it differs from the shell’s',
  params: planTextAddress,
  reply: planText,
  may: readsPlan,
  run: ({ db, person, params }) => readPlanText(db, person, params),
})
