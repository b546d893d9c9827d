import { z } from 'zod'
import { comparePlanSheet, sheetBytes } from '../../../../exchange/dates-in'
import { planAddress } from '../../../../http/addresses'
import { readBytes } from '../../../../http/request'
import { route } from '../../../../http/route'
import { readsPlan } from '../../../../plans/access'
import { sheetReply } from '../../../../../shared/api/plans'

/** The body is the file itself; its name stands in the address. */
export default route({
  summary: 'What a sheet of a plan’s dates would change; the body is the file itself, and nothing is written',
  params: planAddress,
  query: z.object({ name: z.string().max(500).default('sheet') }),
  reply: sheetReply,
  may: readsPlan,
  run: async ({ event, db, params, query }) =>
    comparePlanSheet(db, params.id, query.name, await readBytes(event, sheetBytes)),
})
