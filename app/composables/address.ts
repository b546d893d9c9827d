import { nextTick, ref, watch, type Ref } from 'vue'
import { useRoute, useRouter } from '#imports'

/** What is to be written into the address with the next change of it: several things may change at once. */
let waiting: Record<string, string | undefined> | null = null

/**
 * A text that is kept in the address, so that it survives a refresh and can be sent to a colleague; empty where the address has none.
 * What is done next need not wait for the address to change.
 */
export function useAddressed(key: string): Ref<string> {
  const route = useRoute()
  const router = useRouter()
  const inAddress = (): string => String(route.query[key] ?? '')
  const text = ref(inAddress())
  function write(): void {
    const query = { ...route.query, ...waiting }
    waiting = null
    void router.replace({ query })
  }
  watch(text, value => {
    if (value === inAddress() && !waiting) return
    if (!waiting) void nextTick(write)
    waiting = { ...waiting, [key]: value || undefined }
  })
  watch(
    () => route.query[key],
    () => {
      if (!waiting) text.value = inAddress()
    },
  )
  return text
}
