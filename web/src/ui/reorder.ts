import Sortable from 'sortablejs'
import { onBeforeUnmount, watch, type Ref } from 'vue'

/** A list with one of its items elsewhere; the same list if that is no place in it. */
export function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const copy = [...list]
  if (to < 0 || to >= copy.length) return copy
  copy.splice(to, 0, ...copy.splice(from, 1))
  return copy
}

/** Lets the children of a list be dragged by their handle, by mouse or by touch; says from which place to which. */
export function useReorder(list: Ref<HTMLElement | undefined>, onMove: (from: number, to: number) => void) {
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
            onMove(oldIndex, newIndex)
          },
        })
      : undefined
  })
  onBeforeUnmount(() => sortable?.destroy())
}
