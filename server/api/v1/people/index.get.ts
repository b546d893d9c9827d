import { z } from 'zod'
import { isTheOffice } from '../../../auth/may'
import { route } from '../../../http/route'
import { readPeople } from '../../../people/people'
import { peopleReply } from '../../../../shared/api/people'

export default route({
  summary: 'Those who can sign in, with their duties',
  query: z.object({ q: z.string().max(200).default('') }),
  reply: peopleReply,
  may: isTheOffice,
  run: ({ db, query }) => readPeople(db, query.q),
})
