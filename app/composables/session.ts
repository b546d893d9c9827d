import { defineStore } from 'pinia'
import type { SessionReply } from '~~/shared/api/session'

/** Who is signed in, and what time it is for the application. */
export const useSession = defineStore('session', () => {
  const session = shallowRef<SessionReply | null>(null)
  const person = computed(() => session.value?.person ?? null)
  async function load(): Promise<void> {
    session.value = await api.get<SessionReply>('/session')
  }
  async function signIn(login: string, password: string): Promise<void> {
    session.value = await api.post<SessionReply>('/session', { login, password })
  }
  async function signOut(): Promise<void> {
    session.value = await api.delete<SessionReply>('/session')
  }
  return { session, person, load, signIn, signOut }
})
