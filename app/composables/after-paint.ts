import { tryOnScopeDispose } from '@vueuse/core'
import { shallowRef, watch, type ShallowRef } from 'vue'

/** Does something once the next frame is painted; what it answers calls it off. */
export function onNextPaint(does: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined
  // The frame's callback comes before its painting: what is asked for in it comes after.
  const frame = requestAnimationFrame(() => {
    timer = setTimeout(does)
  })
  return () => {
    cancelAnimationFrame(frame)
    clearTimeout(timer)
  }
}
/**
 * What a value was until the next frame is painted: for what is large and second, so that what one reads first does not wait for
 * it. Where the value changes again before, only the last one counts. `of`: whose change it waits for, if not its own.
 */
export function useAfterPaint<T>(value: () => T, of: () => unknown = value): Readonly<ShallowRef<T>> {
  const late = shallowRef(value()) as ShallowRef<T>
  let callOff = (): void => {}
  watch(of, () => {
    callOff()
    callOff = onNextPaint(() => {
      late.value = value()
    })
  })
  tryOnScopeDispose(() => callOff())
  return late
}
/** Whether a frame was painted since the component came: for what takes long to make and may come a moment later. */
export function useAfterFirstPaint(): Readonly<ShallowRef<boolean>> {
  const isPainted = shallowRef(false)
  const callOff = onNextPaint(() => {
    isPainted.value = true
  })
  tryOnScopeDispose(callOff)
  return isPainted
}
