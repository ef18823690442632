import { useEventListener } from '@vueuse/core'

const isTyping = (target: EventTarget | null) =>
  target instanceof HTMLElement && !!target.closest('input, textarea, select, [contenteditable]')

/** Takes what is pasted anywhere on the page: files, or text where nobody is typing. */
export function usePasting(file: (file: File) => void, text: (text: string) => void) {
  useEventListener(document, 'paste', (event) => {
    const files = [...(event.clipboardData?.files ?? [])]
    if (files.length) files.forEach((one) => file(one))
    else if (!isTyping(event.target)) text(event.clipboardData?.getData('text/plain') ?? '')
    else return
    event.preventDefault()
  })
}
