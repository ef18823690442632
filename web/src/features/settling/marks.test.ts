import { expect, test } from 'vitest'
import { exampleOf, markOf } from './marks'

const lines = ['09:41 Juno: low water', '', '09:42 Pip: why?']
const all = lines.join('\n')
const marked = (part: string) => {
  const at = all.indexOf(part)
  return markOf(lines, 'name', at, at + part.length)
}

test('what is selected is marked in its line, without the spaces around', () => {
  expect(marked('Juno')).toEqual({ field: 'name', line: 0, from: 6, to: 10 })
  expect(marked(' Pip')).toEqual({ field: 'name', line: 2, from: 6, to: 9 })
  expect(marked('09:41')).toEqual({ field: 'name', line: 0, from: 0, to: 5 })
  expect(marked('why?')).toEqual({ field: 'name', line: 2, from: 11, to: 15 })
})

test('nothing, spaces, and what goes over the end of a line are no marks', () => {
  expect(markOf(lines, 'time', 3, 3)).toBeUndefined()
  expect(markOf(lines, 'time', 5, 6)).toBeUndefined()
  expect(marked('water\n\n09')).toBeUndefined()
})

test('an example is the marked lines alone', () => {
  expect(exampleOf(lines, [marked('Pip')!])).toEqual({
    lines: ['09:42 Pip: why?'],
    parts: [{ field: 'name', line: 0, from: 6, to: 9 }],
  })
  expect(exampleOf(lines, [marked('Pip')!, marked('09:41')!]).lines).toEqual(lines)
})
