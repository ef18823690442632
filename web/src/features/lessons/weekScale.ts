import { minuteOfDay } from '../../ui/format'
import type { Lesson } from './lessons'

/** The hours that a week is drawn over. */
export interface Hours {
  first: number
  last: number
}

/** From eight to four, or as early and as late as the lessons of the week. */
export function hoursOf(lessons: readonly Lesson[]): Hours {
  const starts = lessons.map((l) => Math.floor(minuteOfDay(l.plannedStart) / 60))
  const ends = lessons.map((l) => Math.ceil((minuteOfDay(l.plannedStart) + lengthOf(l)) / 60))
  return { first: Math.min(8, ...starts), last: Math.min(24, Math.max(16, ...ends)) }
}

const lengthOf = (lesson: Lesson) => (lesson.plannedEnd - lesson.plannedStart) / 60_000

/** Where a minute of the day lies between the hours, in percent. */
export const share = (minute: number, { first, last }: Hours) => ((minute - first * 60) / ((last - first) * 60)) * 100

const left = (lesson: Lesson, hours: Hours) => share(minuteOfDay(lesson.plannedStart), hours)
const width = (lesson: Lesson, hours: Hours) =>
  Math.min(100 - left(lesson, hours), share(hours.first * 60 + lengthOf(lesson), hours))

/** The words of a lesson may run on until the next one of the day begins. */
function room(day: readonly Lesson[], lesson: Lesson, hours: Hours) {
  const here = left(lesson, hours)
  const next = day.map((l) => left(l, hours)).filter((l) => l > here)
  return (next.length ? Math.min(...next) : 100) - here
}

/** Whether there is no room to the right, so that the words end with the lesson instead of beginning with it. */
export const isLate = (lesson: Lesson, hours: Hours) => left(lesson, hours) > 84

/** Where a lesson and its words stand in its day, as styles; `--bar` is how much of their width the lesson itself takes. */
export function placed(day: readonly Lesson[], lesson: Lesson, hours: Hours) {
  const [from, long, space] = [left(lesson, hours), width(lesson, hours), room(day, lesson, hours)]
  return isLate(lesson, hours)
    ? { right: `${100 - from - long}%`, width: '16%', textAlign: 'right' as const, '--bar': `${(long / 16) * 100}%` }
    : { left: `${from}%`, width: `${space}%`, '--bar': `${(long / space) * 100}%` }
}
