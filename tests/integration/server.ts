import { useServer } from '../support/database'
import { useWorker } from '../support/worker'

/** One MariaDB server for all integration tests, each file with a database of its own on it; and the thread that reads files. */
export default async function setup(): Promise<() => void> {
  await useWorker()
  return useServer()
}
