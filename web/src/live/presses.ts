import { count } from '../ui/format'
import { wordsOf } from './words'
import type { Noted } from './outbox'
import type { DrawnEntry } from './drawn'

const mostNamed = 3

/** What this browser noted, press by press: what one press noted is one line, and is struck out together. */
export class Presses {
  private readonly list: {
    noted: Noted
    names: (string | undefined)[]
    undone: string | undefined
    entries: Noted[]
  }[] = []

  add(noted: Noted, name: string | undefined, undone: string | undefined) {
    const known = noted.together && this.list.find((p) => p.noted.together === noted.together)
    if (!known) this.list.push({ noted, names: [name], undone, entries: [noted] })
    else {
      known.names.push(name)
      known.entries.push(noted)
      known.undone &&= undone
    }
  }

  /** The newest first. */
  all = (): DrawnEntry[] =>
    this.list.toReversed().map(({ noted, names, undone, entries }) => ({
      id: noted.id,
      entries: entries.map((e) => e.id),
      struckBy: undone ? [undone] : [],
      at: noted.happenedAt,
      text: textOf(entries, names),
      state: undone ? 'struck' : entries.some((e) => e.storedAt === undefined) ? 'pencil' : 'ink',
      canStrike: !entries.some((e) => ['lessonStarted', 'lessonEnded', 'lessonSettled'].includes(e.act.type!)),
      helper: null,
    }))
}

/** The same of several students in one line: "Juno, Eino, hand up". */
function textOf(entries: readonly Noted[], names: readonly (string | undefined)[]) {
  const words = entries.map((e) => wordsOf(e.act))
  const one = (i: number) => (names[i] ? `${names[i]}, ${words[i]}` : words[i]!)
  if (names.includes(undefined) || words.some((w) => w !== words[0])) {
    const more = entries.length - mostNamed
    return (
      words
        .slice(0, mostNamed)
        .map((_, i) => one(i))
        .join('; ') + (more > 0 ? `, and ${more} more` : '')
    )
  }
  const who = names.length > mostNamed ? count(names.length, 'student') : names.join(', ')
  return `${who}, ${words[0]}`
}
