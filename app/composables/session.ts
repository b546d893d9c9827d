import { defineStore } from 'pinia'
import type { SessionReply } from '~~/shared/api/session'

/** Who is signed in, and what time it is for the application. */
export const useSession = defineStore('session', () => {
  const session = shallowRef<SessionReply | null>(null)
  const person = computed(() => session.value?.person ?? null)
  function keep(told: SessionReply): void {
    tellTimeIn(told.clock.timeZone)
    session.value = told
  }
  const load = async (): Promise<void> => keep(await api.get<SessionReply>('/session'))
  const signIn = async (login: string, password: string): Promise<void> =>
    keep(await api.post<SessionReply>('/session', { login, password }))
  const signOut = async (): Promise<void> => keep(await api.delete<SessionReply>('/session'))
  return { session, person, load, signIn, signOut }
})
