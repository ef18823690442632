import Sortable from 'sortablejs'
import { onBeforeUnmount, watch, type Ref } from 'vue'

/** Lets the children of a list be dragged by their handle, by mouse or by touch; says from which place to which. */
export function useReorder(list: Ref<HTMLElement | undefined>, moved: (from: number, to: number) => void) {
  let sortable: Sortable | undefined
  watch(list, (element) => {
    sortable?.destroy()
    sortable = element
      ? Sortable.create(element, {
          handle: '.handle',
          animation: matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 120,
          ghostClass: 'dragged',
          onEnd({ item, oldIndex, newIndex, from }) {
            if (oldIndex === undefined || newIndex === undefined || oldIndex === newIndex) return
            // Put back where it was: the list is drawn from the data, and the data change next.
            from.insertBefore(item, from.children[oldIndex + (oldIndex > newIndex ? 1 : 0)] ?? null)
            moved(oldIndex, newIndex)
          },
        })
      : undefined
  })
  onBeforeUnmount(() => sortable?.destroy())
}
