import { expect, test, vi } from 'vitest'
import { watchPresses } from './samePress'

/** A press in a row of presses at one place, on an element that is found by what lies under it. */
function press(root: EventTarget, on: unknown, detail: number) {
  const event = Object.assign(new Event('click', { cancelable: true }), { detail })
  Object.defineProperty(event, 'target', { value: { closest: () => on } })
  root.dispatchEvent(event)
  return !event.defaultPrevented
}

test.each([
  ['a press', ['start'], [true]],
  ['two presses on the same', ['more', 'more'], [true, true]],
  ['a double press on what was there and on what came instead', ['start', 'row'], [true, false]],
  ['three in a row', ['start', 'row', 'row'], [true, false, false]],
])('%s', (_, on, counts) => {
  const root = new EventTarget()
  watchPresses(root)
  const later = vi.fn()
  root.addEventListener('click', later)
  expect(on.map((what, i) => press(root, what, i + 1))).toEqual(counts)
  expect(later).toHaveBeenCalledTimes(counts.filter(Boolean).length)
})

test('a new press on what came instead counts, and so does the keyboard', () => {
  const root = new EventTarget()
  watchPresses(root)
  expect([press(root, 'start', 1), press(root, 'row', 2), press(root, 'row', 1), press(root, 'other', 0)]).toEqual([
    true,
    false,
    true,
    true,
  ])
})
