// npm run first-office -- LOGIN GIVEN FAMILY INSTITUTION : makes the first person of the academic office, and prints the link by which they set a password.
import { addressFromEnvironment, connect } from '../server/db/connection'
import { makeFirstOffice } from '../server/people/first-office'

const [login, givenName, familyName, institution] = process.argv.slice(2)
if (!login || !givenName || !familyName || !institution) {
  console.error(
    'npm run first-office -- LOGIN GIVEN FAMILY INSTITUTION, such as: mellwood Maud Ellwood "Port Ellery Institute"',
  )
  process.exit(2)
}
const db = connect(addressFromEnvironment())
try {
  const secret = await makeFirstOffice(db, { login, givenName, familyName, institution })
  const origin = process.env.NORTHTIDE_ORIGIN ?? `http://127.0.0.1:${process.env.PORT ?? 3000}`
  console.log(
    `${givenName} ${familyName} sets a password at ${origin}/welcome#${secret} (once, within 7 days).`,
  )
} finally {
  await db.destroy()
}
