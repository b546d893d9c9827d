// npm run migrate : brings the schema of the database named by DB_* up to date.
import { closeDatabase, database, migrate } from '../server/db/connection'

const names = await migrate(database())
if (names.length > 0) console.error(`Migrated: ${names.join(', ')}`)
await closeDatabase()
