// npm run migrate : brings the schema of the database named by DB_* up to date.
import { closeDatabase, database, migrate } from '../server/db/connection'
import { anyText } from '../server/search/file-text'
import { keepAllSearchable } from '../server/search/index.queries'

const names = await migrate(database())
if (names.length > 0) console.error(`Migrated: ${names.join(', ')}`)
const courses = await keepAllSearchable(database(), anyText)
if (courses > 0) console.error(`Made ready to be searched: ${courses} courses`)
await closeDatabase()
