/**
 * The second half of a double press counts only on what the first half was on: what has come to lie under the pointer meanwhile was not meant.
 * So a double press on the way to a lesson does not note anything in it.
 */
export function watchPresses(root: EventTarget) {
  let first: Element | null = null
  root.addEventListener(
    'click',
    (event) => {
      const on =
        (event.target as Element).closest('button, a, label, summary, input, select') ?? (event.target as Element)
      // Of the keyboard, and the first of a row of presses.
      if ((event as MouseEvent).detail <= 1) first = on
      else if (on !== first) {
        event.preventDefault()
        event.stopImmediatePropagation()
      }
    },
    true,
  )
}
