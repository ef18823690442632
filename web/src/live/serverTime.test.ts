import { describe, expect, test } from 'vitest'
import { ServerTime } from './serverTime'

describe('the time by the server’s clock', () => {
  let here = 0
  const time = () => ((here = 1_000_000), new ServerTime(() => here))

  /** The server is `ahead`; what it says takes `delay` to come. */
  const hear = (of: ServerTime, ahead: number, delay: number) => of.heard(here + ahead - delay)

  test('is believed from the answer that came quickest', () => {
    const of = time()
    hear(of, 5000, 800)
    expect(of.now() - here).toBe(4200)
    hear(of, 5000, 20)
    expect(of.now() - here).toBe(4980)
    hear(of, 5000, 3000)
    expect(of.now() - here).toBe(4980)
  })

  test('follows clocks that drift apart', () => {
    const of = time()
    hear(of, 5000, 20)
    for (let minute = 1; minute <= 60; minute++) {
      here += 60_000
      hear(of, 5000 - minute * 5, 20)
    }
    expect(of.now() - here).toBeCloseTo(4680, 0)
  })

  test('follows a clock that was set', () => {
    const of = time()
    hear(of, 5000, 20)
    here += 3_600_000
    hear(of, 5000 - 3_600_000, 20)
    expect(of.now() - here).toBe(4980 - 3_600_000)
  })

  test('never runs backwards for what is noted', () => {
    const of = time()
    hear(of, 5000, 20)
    const first = of.note()
    here += 100
    hear(of, -40_000, 0)
    expect(of.note()).toBeGreaterThanOrEqual(first)
    here -= 10_000
    expect(of.note()).toBeGreaterThanOrEqual(first)
    // A clock that was an hour ahead and is put right: what is noted from then on is not to lie in the future for an hour.
    here -= 3_600_000
    expect(of.note()).toBe(of.now())
  })
})
