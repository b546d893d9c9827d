import { editsCourse } from '../../../../courses/access'
import { readCourseLedger } from '../../../../courses/ledger'
import { courseAddress } from '../../../../http/addresses'
import { route } from '../../../../http/route'
import { courseLedger } from '../../../../../shared/api/ledger'

export default route({
  summary: 'What the ledger of a course needs beside its outline',
  params: courseAddress,
  reply: courseLedger,
  may: editsCourse,
  run: ({ db, params }) => readCourseLedger(db, params.id),
})
