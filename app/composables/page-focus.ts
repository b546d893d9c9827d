import { useIntervalFn } from '@vueuse/core'
import { ref, watch } from 'vue'
import { useRoute } from '#imports'
import { giveFocus, isFocusNowhere, mainPart, workPlace } from './focus'

/** A page may stand only once its data are there: so long, in steps, its main part is waited for. */
const [step, steps] = [80, 60]
/** After another page or stage: the focus goes to where work goes on, and what it is is said aloud. Called once, by the layout. */
export function usePageFocus() {
  const route = useRoute()
  const told = ref('')
  let left = 0
  const timer = useIntervalFn(
    () => {
      const page = mainPart()
      if (page && document.activeElement !== page && isFocusNowhere()) giveFocus(page)
      const heading = page?.querySelector('h1')?.textContent?.trim()
      if (heading) told.value = heading
      left--
      if (left <= 0) timer.pause()
    },
    step,
    { immediate: false },
  )
  watch(
    () => route.path,
    () => {
      giveFocus(mainPart() ?? workPlace())
      left = steps
      timer.resume()
    },
    { flush: 'post' },
  )
  return { told }
}
