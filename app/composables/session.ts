import { defineStore } from 'pinia'
import type { SessionReply } from '~~/shared/api/session'

/** Who is signed in, and what time it is for the application. */
export const useSession = defineStore('session', () => {
  const session = shallowRef<SessionReply | null>(null)
  const person = computed(() => session.value?.person ?? null)
  function keep(told: SessionReply): void {
    tellTimeBy(told.clock)
    session.value = told
  }
  const load = async (): Promise<void> => keep(await api.get<SessionReply>('/session'))
  const signIn = async (login: string, password: string): Promise<void> =>
    keep(await api.post<SessionReply>('/session', { login, password }))
  const signOut = async (): Promise<void> => keep(await api.delete<SessionReply>('/session'))
  const changePassword = async (current: string, password: string): Promise<void> =>
    keep(await api.put<SessionReply>('/you/password', { current, password }))
  /** Sets one's password by the secret of an invitation, and is signed in. */
  const setPasswordBy = async (secret: string, password: string): Promise<void> =>
    keep(await api.put<SessionReply>('/invitations/password', { secret, password }))
  const forget = (): void => {
    session.value = null
  }

  /** Set while a session has ended and one may sign in again in place; what is asked for meanwhile waits for the answer. */
  const ended = shallowRef<{ waiting: Promise<boolean>; answer: (isIn: boolean) => void } | null>(null)
  function askAgain(): Promise<boolean> {
    if (!ended.value) {
      let answer: (isIn: boolean) => void = () => {}
      const waiting = new Promise<boolean>(resolve => {
        answer = resolve
      })
      ended.value = { waiting, answer }
    }
    return ended.value.waiting
  }
  function signedInAgain(isIn: boolean): void {
    ended.value?.answer(isIn)
    ended.value = null
  }
  return {
    session,
    person,
    ended,
    load,
    signIn,
    signOut,
    changePassword,
    setPasswordBy,
    forget,
    askAgain,
    signedInAgain,
  }
})
