import { combine } from '@atlaskit/pragmatic-drag-and-drop/combine'
import { draggable, dropTargetForElements } from '@atlaskit/pragmatic-drag-and-drop/element/adapter'
import { onMounted, onUnmounted, ref, type Ref } from 'vue'

interface Draggable {
  element: Ref<HTMLElement | undefined>
  /** By what the row is known. */
  key: () => string
  mayDrag: () => boolean
  /** Whether another can be dropped onto it. */
  takes: () => boolean
  dropped: (key: string) => void
}
/** Makes a row that can be dragged onto another, and be dropped on. Answers whether one hovers over it. */
export function useDragging({ element, key, mayDrag, takes, dropped }: Draggable): Ref<boolean> {
  const over = ref(false)
  let end = (): void => {}
  onMounted(() => {
    if (!element.value) return
    end = combine(
      draggable({ element: element.value, canDrag: mayDrag, getInitialData: () => ({ key: key() }) }),
      dropTargetForElements({
        element: element.value,
        canDrop: ({ source }) => takes() && source.data.key !== key(),
        onDragEnter: () => {
          over.value = true
        },
        onDragLeave: () => {
          over.value = false
        },
        onDrop: ({ source }) => {
          over.value = false
          dropped(String(source.data.key))
        },
      }),
    )
  })
  onUnmounted(() => end())
  return over
}
