import type { Knex } from 'knex'

interface Statement {
  sql?: string
}
type Query = (connection: unknown, statement: Statement) => Promise<unknown>
interface Client {
  _query: Query
}

/**
 * Makes the database give way (error 1213) at one statement of a transaction, as it does in a deadlock: the whole transaction is
 * rolled back at the server, and the statement fails. `at`: which statement, from 0, counted over all transactions from now on, with
 * COMMIT among them. Returns how to stop, answering how many statements there were and whether it gave way.
 */
export function giveWayAt(db: Knex, at: number): () => { statements: number; gaveWay: boolean } {
  const client = Object.getPrototypeOf(db.client) as Client
  const { _query: real } = client
  const inside = new WeakSet<object>()
  let statements = 0
  let gaveWay = false
  client._query = async function (this: unknown, connection, statement) {
    const sql = statement.sql ?? ''
    const key = connection as object
    if (/^BEGIN/i.test(sql)) inside.add(key)
    else if (inside.has(key)) {
      if (/^ROLLBACK/i.test(sql)) inside.delete(key)
      else if (statements++ === at) {
        gaveWay = true
        inside.delete(key)
        await real.call(this, connection, { ...statement, sql: 'ROLLBACK', bindings: [] } as Statement)
        throw Object.assign(new Error('Deadlock found (forced)'), {
          code: 'ER_LOCK_DEADLOCK',
          errno: 1213,
          sqlState: '40001',
        })
      } else if (/^COMMIT/i.test(sql)) inside.delete(key)
    }
    return real.call(this, connection, statement)
  }
  return () => {
    client._query = real
    return { statements, gaveWay }
  }
}
