/** A stroke: inked when it is safely stored, pencilled until then, struck when it no longer counts. */
export interface StrokeState {
  key: string
  credit: number
  state: 'ink' | 'pencil' | 'struck'
}

interface Mark {
  key: string
  d: string
  state: StrokeState['state']
}

const step = 5
const between = 6

/** A little of the hand: the same stroke always leans the same way. */
function lean(key: string) {
  let sum = 0
  for (const letter of key) sum = (sum * 31 + letter.charCodeAt(0)) % 997
  return (sum / 997 - 0.5) * 2.4
}

/**
 * Draws strokes in fives, the fifth across the four. Half a credit is a half-height stroke and stands apart, after the
 * whole ones; struck-out strokes come last, since they are not counted.
 */
export function strokeMarks(strokes: readonly StrokeState[], height: number): { width: number; marks: Mark[] } {
  const counted = strokes.filter((s) => s.state !== 'struck' && s.credit >= 1)
  const halves = strokes.filter((s) => s.state !== 'struck' && s.credit < 1)
  const struck = strokes.filter((s) => s.state === 'struck')
  const marks: Mark[] = []
  const round = (n: number) => Math.round(n * 10) / 10
  let x = 2

  counted.forEach((stroke, i) => {
    if (i % 5 === 4) {
      const from = x - 4 * step - 3
      marks.push({ key: stroke.key, state: stroke.state, d: `M${round(from)} ${height - 3}L${round(x + 0.5)} 3` })
      x += between
    } else {
      const tilt = lean(stroke.key)
      marks.push({
        key: stroke.key,
        state: stroke.state,
        d: `M${round(x + tilt / 2)} 1.5L${round(x - tilt / 2)} ${height - 1.5}`,
      })
      x += step
    }
  })
  for (const stroke of [...halves, ...struck]) {
    const top = stroke.credit < 1 ? height / 2 : 1.5
    const tilt = lean(stroke.key) / 2
    marks.push({
      key: stroke.key,
      state: stroke.state,
      d: `M${round(x + tilt)} ${round(top)}L${round(x - tilt)} ${height - 1.5}`,
    })
    x += step
  }

  return { width: Math.max(4, x), marks }
}

/** Strokes that are all stored: so many whole ones, and so many half ones. */
export const inked = (id: string, whole: number, half = 0): StrokeState[] => [
  ...Array.from({ length: whole }, (_, i) => ({ key: `${id}${i}`, credit: 1, state: 'ink' as const })),
  ...Array.from({ length: half }, (_, i) => ({ key: `${id}h${i}`, credit: 0.5, state: 'ink' as const })),
]
