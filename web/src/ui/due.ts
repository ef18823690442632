import { hour, isoDay, weekDay } from './format'

/** "5 h 20 min", "12 min". */
function span(milliseconds: number) {
  const all = Math.round(milliseconds / 60_000)
  const [days, h, m] = [Math.floor(all / 1440), Math.floor(all / 60), all % 60]
  if (days >= 2) return `${days} days`
  return h ? `${h} h${m ? ` ${m} min` : ''}` : `${m} min`
}

/** Until when something is due, in plain words; when it is overdue, since when. */
export function dueIn(due: number, now: number) {
  const at = isoDay(due) === isoDay(now) ? hour(due) : `${weekDay(due)}, ${hour(due)}`
  return due > now ? `due by ${at}, in ${span(due - now)}` : `overdue since ${at}`
}
