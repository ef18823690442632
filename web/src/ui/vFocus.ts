import type { ObjectDirective } from 'vue'

/** One writes here at once when it comes: the first thing to do on a page. Given false, it does not. */
export const vFocus: ObjectDirective<HTMLElement, boolean | undefined> = {
  mounted: (field, { value }) => {
    if (value !== false) field.focus()
  },
}
