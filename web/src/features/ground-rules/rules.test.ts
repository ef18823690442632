import { describe, expect, test } from 'vitest'
import { ruleSections, shownValue, storedValue, type Rules } from './rules'

const rules = (): Rules =>
  ({
    scheme: {
      chatCounts: true,
      attendance: {
        lateAfter: 300,
        enoughShare: 0.75,
        absentBelowShare: 0.1,
        bridge: 90,
        creditBy: 'status',
        lateCredit: 0.75,
      },
      marksShare: 0.5,
      lowestLeftOut: 2,
      absenceScoresZero: false,
    },
  }) as unknown as Rules
const field = (rule: string) => ruleSections.flatMap((s) => s.fields).find((f) => f.rule === rule)!

describe('rules as they stand in their fields', () => {
  test.each([
    ['lateAfter', 5],
    ['bridge', 1.5],
    ['enoughShare', 75],
    ['absentBelowShare', 10],
    ['lateCredit', 0.75],
    ['marksShare', 50],
    ['lowestLeftOut', 2],
    ['creditBy', 'status'],
    ['absenceScoresZero', false],
    ['chatCounts', true],
  ])('%s shows %s', (rule, shown) => expect(shownValue(field(rule), rules())).toBe(shown))

  test.each([
    ['lateAfter', 7, 420],
    ['bridge', 0.5, 30],
    ['enoughShare', 66.6, 0.666],
    ['lateCredit', 0.35, 0.35],
  ])('%s written as %s is stored as %s', (rule, written, stored) => {
    const changed = rules()
    field(rule).set(changed, storedValue(field(rule), written))
    expect(field(rule).get(changed)).toBe(stored)
    expect(shownValue(field(rule), changed)).toBe(written)
  })

  test('every rule stands on the page once', () => {
    const names = ruleSections.flatMap((s) => s.fields.map((f) => f.rule))
    expect(new Set(names).size).toBe(names.length)
  })
})
