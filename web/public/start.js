// Runs before everything else, and on its own. On a bad line one of the pieces of a page may not come; the page would stay as it is for good. So it
// is loaded again, when the server answers, and only what is missing is fetched.
;(() => {
  const key = 'polite-tally-again'
  let again = false
  const tries = (set) => {
    try {
      if (set === undefined) return Number(sessionStorage.getItem(key))
      sessionStorage.setItem(key, String(set))
    } catch {
      // No memory of its own: each try is like the first.
    }
    return 0
  }
  const load = () =>
    fetch(location.href, { cache: 'no-store' })
      .then((answer) => (answer.ok ? location.reload() : Promise.reject()))
      .catch(() => setTimeout(load, 2000))
  const failed = (event) => {
    if (again || !(event.target instanceof HTMLScriptElement || event.target instanceof HTMLLinkElement)) return
    // What is only asked for early is asked for again by whoever needs it.
    if (event.target.as === 'fetch') return
    again = true
    tries(tries() + 1)
    setTimeout(load, Math.min(10_000, 250 * 2 ** tries()))
  }
  window.addEventListener('error', failed, true)
  window.addEventListener('load', () => {
    // From here on whoever asks for a piece looks after it.
    window.removeEventListener('error', failed, true)
    if (!again) tries(0)
  })
})()
