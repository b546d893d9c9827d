/** A session that has ended leads to the sign-in page, and from there back to where one was. */
export default defineNuxtPlugin(() => {
  const router = useRouter()
  onSignedOut(() => router.push({ path: '/sign-in', query: { back: router.currentRoute.value.fullPath } }))
})
