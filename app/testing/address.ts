import { reactive } from 'vue'

/** An address bar for tests without a browser: what Nuxt gives as route and router, as far as it is used. */
const route = reactive<{ query: Record<string, string | undefined> }>({ query: {} })
export const useRoute = () => route
export const useRouter = () => ({
  replace: ({ query }: { query: Record<string, string | undefined> }) => {
    route.query = query
    return Promise.resolve()
  },
})
