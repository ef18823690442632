/** How long one thing may take, in milliseconds, before the next goes on without it. */
const longest = 20_000

/** Does one thing after the other, in the order in which they were asked for; one that failed, or takes too long, does not stop the next. */
export function inTurn() {
  let last: Promise<unknown> = Promise.resolve()
  return function next<T>(act: (signal: AbortSignal) => Promise<T>): Promise<T> {
    const mine = last.catch(() => {}).then(() => act(AbortSignal.timeout(longest)))
    last = mine
    return mine
  }
}
