import { fixesItems } from '../../../../../../courses/access'
import { fixItem } from '../../../../../../courses/fixing'
import { itemAddress } from '../../../../../../http/addresses'
import { route } from '../../../../../../http/route'
import { fixedMark } from '../../../../../../../shared/api/courses'

export default route({
  summary: 'Mark an item as the institution’s, so that no rollover changes it, or take the mark off',
  params: itemAddress,
  body: fixedMark,
  reply: fixedMark,
  may: fixesItems,
  run: ({ db, person, params, body }) => fixItem(db, person, params.id, params.lineage, body.fixed),
})
