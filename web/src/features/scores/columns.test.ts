import { expect, test } from 'vitest'
import { columnsIn, widths } from './columns'

// 60 lessons that begin 300 px from the left, in a frame 1,000 px wide.
const start = 300
const at = (left: number, lessons = 60) => columnsIn({ left, width: 1000 }, start, lessons)
const seen = (left: number, i: number) => {
  const x = start + i * widths.lesson
  return x + widths.lesson > left && x < left + 1000
}

test('every lesson that can be seen is drawn, wherever the frame stands', () => {
  for (let left = 0; left <= start + 60 * widths.lesson; left += 7) {
    const { from, to } = at(left)
    for (let i = 0; i < 60; i++) if (seen(left, i)) expect(i >= from && i < to, `lesson ${i} at ${left}`).toBe(true)
    expect(to - from).toBeLessThanOrEqual(40)
  }
})

test('the sheet is as wide however much of it is drawn', () => {
  for (let left = 0; left <= 4000; left += 31) {
    const { from, to, before, after } = at(left)
    expect(before + (to - from) * widths.lesson + after).toBe(60 * widths.lesson)
  }
})

test('no more than there is, and nothing of nothing', () => {
  expect(at(0, 3)).toEqual({ from: 0, to: 3, before: 0, after: 0 })
  expect(at(9000, 3)).toMatchObject({ to: 3, after: 0 })
  expect(at(0, 0)).toEqual({ from: 0, to: 0, before: 0, after: 0 })
})
