/** Words that are read aloud, by their reminders, after the reminders were written anew: a line that was changed keeps its words, one that is gone loses them. */
export function wordsMoved(words: Record<string, string>, before: readonly string[], after: readonly string[]) {
  const gone = before.filter((line) => !after.includes(line))
  const come = after.filter((line) => !before.includes(line))
  const renamed = before.length === after.length && gone.length === 1 && come.length === 1 ? gone[0] : undefined
  return Object.fromEntries(
    Object.entries(words).flatMap(([line, text]) =>
      line === renamed ? [[come[0]!, text]] : gone.includes(line) ? [] : [[line, text]],
    ),
  )
}
