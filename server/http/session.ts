import { clearSession, getCookie, useSession, type H3Event, type SessionConfig } from 'h3'
import { refuse } from '../errors/refusal'

const name = 'northtide'
function config(): SessionConfig {
  const password = process.env.NORTHTIDE_SESSION_SECRET ?? ''
  if (password.length < 32) throw refuse('not-set-up')
  return {
    name,
    password,
    maxAge: 12 * 60 * 60,
    cookie: {
      httpOnly: true,
      sameSite: 'lax',
      path: '/',
      secure: process.env.NORTHTIDE_SECURE_COOKIES === 'true',
    },
  }
}

/** Id of the person whose sealed cookie came with the request, or null. */
export async function sessionPerson(event: H3Event): Promise<string | null> {
  if (!getCookie(event, name)) return null
  const session = await useSession<{ person?: string }>(event, config())
  return session.data.person ?? null
}
export async function startSession(event: H3Event, person: string): Promise<void> {
  const session = await useSession<{ person?: string }>(event, config())
  await session.clear()
  await (await useSession<{ person?: string }>(event, config())).update({ person })
}
export const endSession = (event: H3Event): Promise<void> => clearSession(event, config())
