import { describe, expect, test } from 'vitest'
import { strokeMarks, type StrokeState } from './strokes'

const stroke = (key: string, state: StrokeState['state'] = 'ink', credit = 1): StrokeState => ({ key, state, credit })
const many = (n: number) => Array.from({ length: n }, (_, i) => stroke(`${i}`))

describe('strokes', () => {
  test.each([0, 1, 4, 5, 7, 30])('%i strokes draw as many marks', (n) => {
    expect(strokeMarks(many(n), 15).marks).toHaveLength(n)
  })

  test('the fifth lies across the four', () => {
    const ends = strokeMarks(many(5), 15).marks.map((m) => m.d.match(/-?[\d.]+/g)!.map(Number))
    const [x1, , x2] = ends[4]!
    for (const [from, , to] of ends.slice(0, 4)) {
      expect(x1).toBeLessThan(Math.min(from!, to!))
      expect(x2).toBeGreaterThan(Math.max(from!, to!))
    }
  })

  test('half a credit is half as high and not counted into a five', () => {
    const marks = strokeMarks([...many(4), stroke('half', 'ink', 0.5)], 15).marks
    const [, top, , bottom] = marks[4]!.d.match(/-?[\d.]+/g)!.map(Number)
    expect(bottom! - top!).toBeLessThan(8)
  })

  test('a struck-out stroke is drawn last and counts for no five', () => {
    const marks = strokeMarks([stroke('gone', 'struck'), ...many(4)], 15).marks
    expect(marks.at(-1)).toMatchObject({ key: 'gone', state: 'struck' })
  })

  test('the same stroke always leans the same way', () => {
    expect(strokeMarks(many(3), 15)).toEqual(strokeMarks(many(3), 15))
  })
})
