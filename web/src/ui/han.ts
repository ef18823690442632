const han = /[\u3000-\u30ff\u3400-\u4dbf\u4e00-\u9fff\uf900-\ufaff\uff00-\uffef]/
const whenIdle: (act: () => void) => unknown = window.requestIdleCallback ?? setTimeout

/** Fetches the faces of Han letters and kana once such a letter stands on the page, and not before: what says which face holds which letter is long. */
export function watchForHan(page: HTMLElement) {
  const found = new MutationObserver((changes) => {
    const isThere = changes.some(({ target, addedNodes }) =>
      (target.nodeType === Node.TEXT_NODE ? [target] : [...addedNodes]).some((n) => han.test(n.textContent ?? '')),
    )
    if (!isThere) return
    found.disconnect()
    whenIdle(() => void import('virtual:han-faces.css'))
  })
  found.observe(page, { childList: true, characterData: true, subtree: true })
}
