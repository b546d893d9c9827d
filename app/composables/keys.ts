import { useEventListener, useStorage } from '@vueuse/core'

/** A key with what it does, for the list of keys. `key` as in KeyboardEvent.key; `ctrl+z` and the like with a modifier. */
export interface KeyBinding {
  key: string
  does: string
  /** False: it has nothing to do now, and who else has the key may. */
  run: (event: KeyboardEvent) => unknown
  hidden?: boolean
}

const layers = shallowRef<{ id: symbol; bindings: KeyBinding[] }[]>([])
/** Single-letter keys can be switched off (WCAG 2.1.4); keys with ctrl, arrows and enter stay. */
export const letterKeys = useStorage('northtide-letter-keys', true)
export const allKeys = computed(() =>
  layers.value.flatMap(layer => layer.bindings).filter(binding => !binding.hidden),
)

/**
 * Whether a key belongs to what has the focus. A field takes all of them; a list that is shut takes all but letters and keys
 * with ctrl, so that they work again once one has chosen from it; radios take the arrows.
 */
function isTakenBy(target: EventTarget | null, name: string): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target.isContentEditable || /^(TEXTAREA|SELECT)$/.test(target.tagName)) return true
  if (!(target instanceof HTMLInputElement)) return false
  if (target.type === 'radio') return name.startsWith('Arrow')
  if (['checkbox', 'button'].includes(target.type)) return false
  const isShutList = target.readOnly && target.getAttribute('aria-expanded') !== 'true'
  return !(isShutList && (name.length === 1 || name.startsWith('ctrl+')) && name !== ' ')
}

/** Binds keys for as long as the component lives. A later component's keys come before an earlier one's. */
export function useKeys(bindings: KeyBinding[]): void {
  const id = Symbol('keys')
  onMounted(() => {
    layers.value = [{ id, bindings }, ...layers.value]
  })
  onUnmounted(() => {
    layers.value = layers.value.filter(layer => layer.id !== id)
  })
}

/** Several keys that do the same. */
export const keysFor = (keys: readonly string[], does: string, run: () => void): KeyBinding[] =>
  keys.map(key => ({ key, does, run }))

/** A key as bindings name it. Shift is named with ctrl and with the arrows; with letters it makes another letter already. */
function nameOf({ key, ctrlKey, metaKey, shiftKey }: KeyboardEvent): string {
  const isCtrl = ctrlKey || metaKey
  const shift = shiftKey && (isCtrl || key.startsWith('Arrow')) ? 'shift+' : ''
  return `${isCtrl ? 'ctrl+' : ''}${shift}${isCtrl && key.length === 1 ? key.toLowerCase() : key}`
}

let prefix = ''
/** Listens for all keys; called once, by the layout. */
export function useKeyboard(): void {
  useEventListener('keydown', (event: KeyboardEvent) => {
    const name = nameOf(event)
    if (event.altKey || event.defaultPrevented || isTakenBy(event.target, name)) return
    if (name.length === 1 && !letterKeys.value) return
    const wanted = prefix + name
    prefix = ''
    for (const { bindings } of layers.value) {
      const binding = bindings.find(entry => entry.key === wanted)
      if (!binding) continue
      // Space and Enter on a button press the button, and Space ticks a box.
      if (
        ['Enter', ' '].includes(name) &&
        event.target instanceof HTMLElement &&
        event.target.closest('button, a, [role=button], input')
      )
        return
      if (binding.run(event) === false) continue
      event.preventDefault()
      return
    }
    if (allKeysStartingWith(`${wanted} `)) prefix = `${wanted} `
  })
}
const allKeysStartingWith = (start: string): boolean =>
  layers.value.some(layer => layer.bindings.some(binding => binding.key.startsWith(start)))
