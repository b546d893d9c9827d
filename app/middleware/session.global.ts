/** Every page but the sign-in and the one that an invitation leads to asks for a person; the address asked for is kept and taken up after signing in. */
export default defineNuxtRouteMiddleware(async to => {
  const session = useSession()
  if (!session.session) await session.load().catch(() => {})
  if (session.person && to.path === '/sign-in') return navigateTo('/')
  if (!session.person && session.session && !['/sign-in', '/welcome'].includes(to.path))
    return navigateTo({ path: '/sign-in', query: to.path === '/' ? {} : { back: to.fullPath } })
})
