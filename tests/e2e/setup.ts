import { useServer } from '../support/database'

/** One database server for all journeys; each worker starts an application of its own on it. */
export default function setup(): () => void {
  return useServer()
}
