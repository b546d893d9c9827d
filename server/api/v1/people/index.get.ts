import { z } from 'zod'
import { peopleReply } from '../../../../shared/api/people'
import { isTheOffice } from '../../../auth/may'
import { route } from '../../../http/route'
import { readPeople } from '../../../people/people'

export default route({
  query: z.object({ q: z.string().max(200).default('') }),
  reply: peopleReply,
  may: isTheOffice,
  run: ({ db, query }) => readPeople(db, query.q),
})
