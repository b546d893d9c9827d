import { z } from 'zod'
import { zoneRulesReply } from '../../../shared/api/plans'
import { signedIn } from '../../auth/may'
import { isTimeZone, zoneRules } from '../../calendars/zones'
import { route } from '../../http/route'

const year = z.coerce.number().int().min(1700).max(2500)
const query = z
  .object({
    zone: z.string().refine(isTimeZone, 'This is not a time zone that exists.'),
    from: year,
    to: year,
  })
  .refine(({ from, to }) => from <= to, { path: ['to'], message: 'The last year comes before the first.' })

export default route({
  summary: 'What a time zone does to wall clocks in some years',
  query,
  reply: zoneRulesReply,
  may: signedIn,
  run: ({ query: { zone, from, to } }) => Promise.resolve(zoneRules(zone, { from, to })),
})
