import { timeZone } from '../api/session'

const two = (n: number) => String(n).padStart(2, '0')
const weekdays = ['Sunday', 'Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday']
const months = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
]
const shortMonth = (month: number) => months[month]!.slice(0, month === 8 ? 4 : 3)

const quarterHour = 15 * 60_000
// One for each zone, and what it said of a quarter of an hour: clocks change at none but their edges, and a page has many days and times.
const clocks = new Map<string, { clock: Intl.DateTimeFormat; ahead: Map<number, number> }>()

function clockOf(zone: string) {
  const known = clocks.get(zone)
  if (known) return known
  const [numeric, digits] = ['numeric', '2-digit'] as const
  const clock = new Intl.DateTimeFormat('en-GB', {
    timeZone: zone,
    hourCycle: 'h23',
    year: numeric,
    month: digits,
    day: digits,
    hour: digits,
    minute: digits,
  })
  const made = { clock, ahead: new Map<number, number>() }
  clocks.set(zone, made)
  return made
}

/** By how many milliseconds the school is ahead of UTC. */
function aheadAt(at: number) {
  const { clock, ahead } = clockOf(timeZone())
  const from = Math.floor(at / quarterHour) * quarterHour
  let by = ahead.get(from)
  if (by === undefined) {
    // 26/11/2026, 09:30
    const [day, month, year, hour, minute] = clock.format(from).split(/\D+/).map(Number) as number[]
    by = Date.UTC(year!, month! - 1, day, hour, minute) - from
    ahead.set(from, by)
  }
  return by
}

/** A moment at the school, as numbers: year, month from 1, day, hour, minute, second. */
function atSchool(at: number) {
  const there = new Date(at + aheadAt(at))
  return {
    year: there.getUTCFullYear(),
    month: there.getUTCMonth() + 1,
    day: there.getUTCDate(),
    hour: there.getUTCHours(),
    minute: there.getUTCMinutes(),
    second: there.getUTCSeconds(),
  }
}

/** How a day is said: with these of its parts. */
export interface DayParts {
  weekday?: 'long' | 'short'
  day?: 'numeric'
  month?: 'long' | 'short'
  year?: 'numeric'
}

function said({ year, month, day }: { year: number; month: number; day: number }, parts: DayParts) {
  const weekday = weekdays[new Date(Date.UTC(year, month - 1, day)).getUTCDay()]!
  return [
    parts.weekday === 'long' ? weekday : parts.weekday && weekday.slice(0, 3),
    parts.day && day,
    parts.month === 'long' ? months[month - 1] : parts.month && shortMonth(month - 1),
    parts.year && year,
  ]
    .filter(Boolean)
    .join(' ')
}

/** 09:31 */
export function hour(at: number) {
  const { hour, minute } = atSchool(at)
  return `${two(hour)}:${two(minute)}`
}

/** 09:31:07 */
export function second(at: number) {
  const { hour, minute, second } = atSchool(at)
  return `${two(hour)}:${two(minute)}:${two(second)}`
}

/** Thursday 26 November */
export const longDay = (at: number) => said(atSchool(at), { weekday: 'long', day: 'numeric', month: 'long' })

/** 26 Nov */
export const shortDay = (at: number) => said(atSchool(at), { day: 'numeric', month: 'short' })

/** Thu 26 Nov */
export const weekDay = (at: number) => said(atSchool(at), { weekday: 'short', day: 'numeric', month: 'short' })

/** 2026-11-26, the day at the school, for a day field */
export function isoDay(at: number) {
  const { year, month, day } = atSchool(at)
  return `${year}-${two(month)}-${two(day)}`
}

/** Minutes since midnight at the school. */
export function minuteOfDay(at: number) {
  const { hour, minute } = atSchool(at)
  return hour * 60 + minute
}

/** The moment of an hour ("09:47") at the school, the one that is nearest to another moment. */
export function atHour(time: string, near: number) {
  const [h, m] = time.split(':').map(Number)
  const day = 24 * 60
  const away = ((h! * 60 + m! - minuteOfDay(near) + day * 1.5) % day) - day / 2
  return near - (near % 60_000) + away * 60_000
}

/** Days after a day: 2026-11-26 and 7 make 2026-12-03. Days have no zone, and so no change of the clocks. */
export function addDays(day: string, days: number) {
  const at = new Date(`${day}T12:00:00Z`)
  at.setUTCDate(at.getUTCDate() + days)
  return at.toISOString().slice(0, 10)
}

/** The Monday of the week of a day. */
export const mondayOf = (day: string) => addDays(day, -((new Date(`${day}T12:00:00Z`).getUTCDay() + 6) % 7))

/** "Thursday 26 November" of a day. */
export function dayName(iso: string, parts: DayParts = { weekday: 'long', day: 'numeric', month: 'long' }) {
  const [year, month, day] = iso.split('-').map(Number) as [number, number, number]
  return said({ year, month, day }, parts)
}

/** 2:41, or 1:02:41 from an hour up; never negative. */
export function clock(milliseconds: number) {
  const seconds = Math.max(0, Math.floor(milliseconds / 1000))
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60]
  return h > 0 ? `${h}:${two(m)}:${two(s)}` : `${m}:${two(s)}`
}

/** What is left until a moment, as a clock; in words once it has passed. */
export const timeLeft = (to: number, now: number) => (to > now ? clock(to - now) : 'time is up')

/** Whole minutes with the unit, half away from zero. */
export const minutes = (milliseconds: number) => `${Math.round(Math.max(0, milliseconds) / 60_000)} min`

/** How much of a time is left in whole minutes, or by how much it is over; "time is up" in the minute about its end. */
export const minutesLeft = (milliseconds: number) =>
  Math.abs(milliseconds) < 30_000
    ? 'time is up'
    : milliseconds > 0
      ? `${minutes(milliseconds)} left`
      : `${minutes(-milliseconds)} over`

/** "1 row", "2 rows", "12,000 rows". */
export const count = (n: number, noun: string, nouns = `${noun}s`) =>
  `${String(n).replace(/\B(?=(\d{3})+$)/g, ',')} ${n === 1 ? noun : nouns}`

/** A score as it is shown, with so many places, half away from zero. */
export const shown = (score: number, places: number) =>
  (Math.round(score * 10 ** places + Number.EPSILON) / 10 ** places).toFixed(places)
