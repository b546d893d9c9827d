import { planAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'
import { readPlanSettings } from '../../../../plans/worth'
import { planSettings } from '../../../../../shared/api/worth'

export default route({
  summary: 'The settings of a plan’s items that are known by name',
  params: planAddress,
  reply: planSettings,
  may: readsPlan,
  run: ({ db, params }) => readPlanSettings(db, params.id),
})
