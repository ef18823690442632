import { expect, test } from 'vitest'
import { dueIn } from './due'

const due = Date.UTC(2026, 10, 23, 16)
const minute = 60_000

test.each([
  [-320, 'due by 16:00, in 5 h 20 min'],
  [-120, 'due by 16:00, in 2 h'],
  [-1, 'due by 16:00, in 1 min'],
  [0, 'overdue since 16:00'],
  [61, 'overdue since 16:00'],
  [-4320, 'due by Mon 23 Nov, 16:00, in 3 days'],
  [8 * 60, 'overdue since Mon 23 Nov, 16:00'],
])('%i minutes after it was due', (after, said) => {
  expect(dueIn(due, due + after * minute)).toBe(said)
})
