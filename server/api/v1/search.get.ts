import { signedIn } from '../../auth/may'
import { route } from '../../http/route'
import { search } from '../../search/search'
import { searchQuery, searchReply } from '../../../shared/api/search'

export default route({
  summary: 'Items by their words, in every course that the person may roll from',
  query: searchQuery,
  reply: searchReply,
  may: signedIn,
  run: ({ db, person, query }) => search(db, person, query),
})
