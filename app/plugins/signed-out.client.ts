/** A session that has ended is asked for again in place, so that what one was doing is not lost. */
export default defineNuxtPlugin(() => {
  const session = useSession()
  onSignedOut(() => session.askAgain())
})
