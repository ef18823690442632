import { expect, test } from 'vitest'
import { numberIn } from './numberIn'

test.each([
  ['1.5', 1.5],
  ['1,5', 1.5],
  [' -3 ', -3],
  ['0', 0],
  ['', NaN],
  ['  ', NaN],
  ['fog', NaN],
  ['1,5,2', NaN],
])('%j', (typed, number) => expect(numberIn(typed)).toBe(number))
