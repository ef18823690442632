import { expect, test } from 'vitest'
import { wordsMoved } from './reminders'

const words = { 'Read the notice': 'This lesson is recorded.', 'Ask about the tide': 'Who has the table?' }
const [notice, tide] = Object.keys(words)

test.each([
  ['a letter more in a line', [notice!, tide!], [notice!, `${tide}s`], { [notice!]: 0, [`${tide}s`]: 1 }],
  ['the lines in another order', [notice!, tide!], [tide!, notice!], { [notice!]: 0, [tide!]: 1 }],
  ['a line added', [notice!, tide!], [notice!, 'Mute', tide!], { [notice!]: 0, [tide!]: 1 }],
  ['a line taken out', [notice!, tide!], [tide!], { [tide!]: 1 }],
  ['one of the other list', [notice!], [notice!, ''], { [notice!]: 0, [tide!]: 1 }],
])('%s', (_, before, after, kept) => {
  const texts = Object.values(words)
  expect(wordsMoved(words, before, after)).toEqual(
    Object.fromEntries(Object.entries(kept).map(([line, i]) => [line, texts[i]])),
  )
})
