import type { DrawnRow, Head } from '../../live/drawn'
import { count, minutes } from '../../ui/format'

/** Whether an act shows that somebody may be here, though nothing has them there; for a while, and for as long as their page is open. */
export const mayBeHere = (row: DrawnRow, now: number) =>
  ['missing', 'left'].includes(row.whereabouts) && row.shownUntil !== null && (row.page || now < row.shownUntil)

/** What stands beside a name on the sheet: where its student is, else the one thing about them that matters now; empty if nothing does. */
export function wordsBeside(row: DrawnRow, head: Head, now: number, group?: string): string {
  if (row.sentOutSince !== null) return `sent out ${minutes(now - row.sentOutSince)}`
  if (mayBeHere(row, now)) return 'here?'
  switch (row.whereabouts) {
    case 'missing':
      return head.stage === 'live' && now > head.countedFrom ? `missing ${minutes(now - head.countedFrom)}` : 'missing'
    case 'late':
      return row.lateSeconds === null ? 'late' : `late ${minutes(row.lateSeconds * 1000)}`
    case 'left':
      // Under a minute there is no number worth reading.
      if (row.since !== null && now - row.since < 60_000) return 'just gone'
      return row.since === null ? 'left' : `gone ${minutes(now - row.since)}`
    case 'excused':
      return 'excused'
    default:
      // A signal is of the moment: after a minute the place is for what lasts.
      return row.signal && now - row.signal.at < 60_000
        ? row.signal.what
        : row.paused
          ? 'cannot speak'
          : group
            ? group
            : row.dropouts > 0
              ? count(row.dropouts, 'dropout')
              : ''
  }
}
