import type { Drawn, Head } from '../../live/drawn'
import { count } from '../../ui/format'
import type { Doing } from './teaching'

/** Something that is still to do when a lesson is about to end, and what opens it; null if it stands on the sheet. */
export interface LeftOver {
  text: string
  opens: Doing | null
}

/** What is left to do in a lesson, in the order in which it is best seen to. */
export function leftOver(
  drawn: Pick<Drawn, 'beforeEnd' | 'hands' | 'askings' | 'door' | 'callers'>,
  head: Pick<Head, 'chatWaiting'>,
) {
  const reminders = drawn.beforeEnd.filter((r) => r.ticked === null)
  const open = drawn.askings.filter((a) => a.closedAt === null)
  const door = drawn.door.length + drawn.callers.length
  const left: (LeftOver & { many: number })[] = [
    ...reminders.map((r) => ({ many: 1, text: r.text, opens: null })),
    { many: open.length, text: `${count(open.length, 'question')} open`, opens: 'questions' },
    { many: drawn.hands.length, text: `${count(drawn.hands.length, 'hand')} up`, opens: null },
    { many: head.chatWaiting, text: `${count(head.chatWaiting, 'message')} to sweep`, opens: 'chat' },
    { many: door, text: `${count(door, 'name')} at the door`, opens: 'door' },
  ]
  return left.filter((l) => l.many > 0).map(({ text, opens }): LeftOver => ({ text, opens }))
}
