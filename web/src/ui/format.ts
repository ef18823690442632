import { timeZone } from '../api/session'

const formatters = new Map<string, Intl.DateTimeFormat>()

function formatter(options: Intl.DateTimeFormatOptions) {
  const key = timeZone() + JSON.stringify(options)
  if (!formatters.has(key)) formatters.set(key, new Intl.DateTimeFormat('en-GB', { ...options, timeZone: timeZone() }))
  return formatters.get(key)!
}

/** 09:31 */
export const hour = (at: number) => formatter({ hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(at)

/** 09:31:07 */
export const second = (at: number) =>
  formatter({ hour: '2-digit', minute: '2-digit', second: '2-digit', hourCycle: 'h23' }).format(at)

/** Thursday 26 November */
export const longDay = (at: number) =>
  formatter({ weekday: 'long', day: 'numeric', month: 'long' }).format(at).replace(',', '')

/** 26 Nov */
export const shortDay = (at: number) => formatter({ day: 'numeric', month: 'short' }).format(at)

/** Thu 26 Nov */
export const weekDay = (at: number) =>
  formatter({ weekday: 'short', day: 'numeric', month: 'short' }).format(at).replace(',', '')

/** 2026-11-26, the day at the school, for a day field */
export const isoDay = (at: number) => new Intl.DateTimeFormat('sv-SE', { timeZone: timeZone() }).format(at)

/** Minutes since midnight at the school. */
export function minuteOfDay(at: number) {
  const [h, m] = hour(at).split(':').map(Number)
  return h! * 60 + m!
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
export const dayName = (
  day: string,
  options: Intl.DateTimeFormatOptions = { weekday: 'long', day: 'numeric', month: 'long' },
) =>
  new Intl.DateTimeFormat('en-GB', { ...options, timeZone: 'UTC' })
    .format(new Date(`${day}T12:00:00Z`))
    .replace(',', '')

/** 2:41, or 1:02:41 from an hour up; never negative. */
export function clock(milliseconds: number) {
  const seconds = Math.max(0, Math.floor(milliseconds / 1000))
  const [h, m, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60]
  const two = (n: number) => String(n).padStart(2, '0')
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
  `${n.toLocaleString('en')} ${n === 1 ? noun : nouns}`

/** A score as it is shown, with so many places, half away from zero. */
export const shown = (score: number, places: number) =>
  (Math.round(score * 10 ** places + Number.EPSILON) / 10 ** places).toFixed(places)
