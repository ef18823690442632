import Sortable from 'sortablejs'
import type { ObjectDirective } from 'vue'

/** A directive for a list of members that can be dragged from and to, by mouse or touch; its value is the id of the group, empty for none. */
export function membersThatMove(
  move: (student: string, group: string | null) => void,
): ObjectDirective<HTMLElement, string> {
  const sortables = new Map<HTMLElement, Sortable>()
  return {
    mounted(element) {
      sortables.set(
        element,
        Sortable.create(element, {
          group: 'members',
          draggable: '.member',
          // Its own dragging, since browsers do not drag what is a button; a few pixels tell a drag from a press.
          forceFallback: true,
          fallbackTolerance: 4,
          animation: matchMedia('(prefers-reduced-motion: reduce)').matches ? 0 : 120,
          onEnd({ item, from, to, oldIndex }) {
            // Put back where it was: the lists are drawn from the data, and the data change next.
            from.insertBefore(item, from.children[oldIndex ?? 0] ?? null)
            const student = item.dataset.student
            if (student && from !== to) move(student, to.dataset.group || null)
          },
        }),
      )
    },
    unmounted(element) {
      sortables.get(element)?.destroy()
      sortables.delete(element)
    },
  }
}
