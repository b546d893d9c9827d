import { ref, type Ref } from 'vue'
import { titleOf, type ShownRow } from './carry'
import { letterKeys } from '~/composables/keys'

const pause = 700
/**
 * Typing ahead in a tree: with shift (or with single-letter keys switched off) letters go to the next row whose title begins with them, as the
 * pattern for trees has it (WAI-ARIA Authoring Practices).
 */
export function useTypeAhead(
  rows: Readonly<Ref<readonly ShownRow[]>>,
  at: () => number,
  go: (key: string) => void,
) {
  const typed = ref('')
  let last = 0
  return (event: KeyboardEvent): void => {
    const isLetter = event.key.length === 1 && /[\p{L}\d]/u.test(event.key)
    if (!isLetter || event.ctrlKey || event.metaKey || event.altKey) return
    if (letterKeys.value && !event.shiftKey) return
    const key = event.key.toLowerCase()
    // The same letter again goes on to the next that begins with it.
    const goesOn = event.timeStamp - last < pause && typed.value !== key
    typed.value = (goesOn ? typed.value : '') + key
    last = event.timeStamp
    const from = at() + (typed.value.length === 1 ? 1 : 0)
    const order = [...rows.value.slice(from), ...rows.value.slice(0, from)]
    const found = order.find(({ row }) => titleOf(row).toLowerCase().startsWith(typed.value))
    if (!found) return
    event.preventDefault()
    go(found.lineage)
  }
}
