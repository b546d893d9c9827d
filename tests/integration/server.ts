import { useServer } from '../support/database'

/** One MariaDB server for all integration tests; each file has a database of its own on it. */
export default function setup(): () => void {
  return useServer()
}
