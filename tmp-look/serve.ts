import { writeFileSync } from 'node:fs'
import { startApp } from '../tests/support/app'
import { useServer } from '../tests/support/database'
async function main() {
  useServer()
  const app = await startApp('northtide_look')
  writeFileSync('/tmp/look.url', JSON.stringify({ ...app, env: { DB_HOST: process.env.DB_HOST, DB_PORT: process.env.DB_PORT, DB_USER: process.env.DB_USER, DB_PASSWORD: process.env.DB_PASSWORD } }))
  console.log('ready', app.url)
}
void main()
