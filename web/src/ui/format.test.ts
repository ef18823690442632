import { afterEach, describe, expect, test } from 'vitest'
import { session } from '../api/session'
import {
  addDays,
  atHour,
  count,
  dayName,
  hour,
  isoDay,
  longDay,
  minuteOfDay,
  minutesLeft,
  mondayOf,
  second,
  shortDay,
  weekDay,
} from './format'

const at = (text: string) => Date.parse(text)
const inZone = (timeZone: string) => {
  session.value = {
    account: { name: '', school: '', timeZone, isDemo: false },
    offersDemo: false,
    awaitsFirstAccount: false,
    asksForWord: false,
  }
}
afterEach(() => (session.value = undefined))

test.each(['Atlantic/Faroe', 'Pacific/Auckland', 'America/St_Johns', 'Asia/Kathmandu'])(
  'in %s every moment is said as the browser itself says it in British English',
  (zone) => {
    inZone(zone)
    const by = (options: Intl.DateTimeFormatOptions) => {
      const format = new Intl.DateTimeFormat('en-GB', { ...options, timeZone: zone })
      return (moment: number) => format.format(moment).replace(',', '')
    }
    const day = { day: 'numeric', month: 'short' } as const
    const clock = { hour: '2-digit', minute: '2-digit', hourCycle: 'h23' } as const
    const says = [by(clock), by({ ...clock, second: '2-digit' }), by(day), by({ ...day, weekday: 'short' })]
    const long = by({ weekday: 'long', day: 'numeric', month: 'long' })
    // Some four years in steps that come to every day and every hour.
    for (let i = 0; i < 1500; i++) {
      const moment = at('2024-02-27T00:00:00Z') + i * 86_461_007
      expect([hour, second, shortDay, weekDay].map((said) => said(moment))).toEqual(says.map((said) => said(moment)))
      expect(longDay(moment)).toBe(long(moment))
    }
  },
)

test.each([
  [90_000, '2 min left'],
  [30_000, '1 min left'],
  [29_000, 'time is up'],
  [-29_000, 'time is up'],
  [-30_000, '1 min over'],
  [-60 * 60_000, '60 min over'],
])('%i ms before its end a stage has %s', (left, said) => expect(minutesLeft(left)).toBe(said))

describe('days and times are those of the school', () => {
  test.each([
    ['Atlantic/Faroe', '2026-10-25T00:30:00Z', '2026-10-25', '01:30'], // the night on which the clocks go back
    ['Atlantic/Faroe', '2026-10-25T01:30:00Z', '2026-10-25', '01:30'],
    ['Atlantic/Faroe', '2027-06-30T23:15:00Z', '2027-07-01', '00:15'],
    ['Pacific/Auckland', '2026-11-25T12:00:00Z', '2026-11-26', '01:00'],
    ['America/St_Johns', '2026-11-25T03:00:00Z', '2026-11-24', '23:30'],
  ])('in %s %s is %s %s', (zone, instant, day, time) => {
    inZone(zone)
    expect(isoDay(at(instant))).toBe(day)
    expect(hour(at(instant))).toBe(time)
    expect(minuteOfDay(at(instant))).toBe(Number(time.slice(0, 2)) * 60 + Number(time.slice(3)))
  })

  test.each([
    ['Atlantic/Faroe', '09:47', '2026-11-26T09:30:00Z', '2026-11-26T09:47:00Z'],
    ['Atlantic/Faroe', '09:20', '2026-11-26T09:30:41Z', '2026-11-26T09:20:00Z'],
    ['Atlantic/Faroe', '00:05', '2026-11-26T23:50:00Z', '2026-11-27T00:05:00Z'], // a lesson over midnight
    ['Atlantic/Faroe', '23:50', '2026-11-27T00:05:00Z', '2026-11-26T23:50:00Z'],
    ['America/St_Johns', '09:47', '2026-11-25T13:00:00Z', '2026-11-25T13:17:00Z'],
  ])('in %s %s near %s is %s', (zone, time, near, moment) => {
    inZone(zone)
    expect(atHour(time, at(near))).toBe(at(moment))
  })

  test.each([
    ['2026-10-24', 2, '2026-10-26'],
    ['2027-02-26', 3, '2027-03-01'],
    ['2028-02-26', 3, '2028-02-29'],
    ['2027-01-02', -3, '2026-12-30'],
  ])('%s and %i days make %s', (day, days, sum) => expect(addDays(day, days)).toBe(sum))

  test.each([
    ['2026-11-23', '2026-11-23'],
    ['2026-11-29', '2026-11-23'],
    ['2027-01-01', '2026-12-28'],
  ])('the week of %s begins on %s', (day, monday) => expect(mondayOf(day)).toBe(monday))

  test('a day is named whatever zone this is run in', () => expect(dayName('2026-11-26')).toBe('Thursday 26 November'))
})

test.each([
  [1, '1 row'],
  [999, '999 rows'],
  [12_000, '12,000 rows'],
])('%i of something are written %s', (n, written) => expect(count(n, 'row')).toBe(written))
