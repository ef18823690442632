import { describe, expect, test } from 'vitest'
import { newQuestion } from '../plans/plan'
import { blanksOf, filled, goesTo, onTheSpot, opening } from './asking'

const windy = {
  ...newQuestion('singleChoice'),
  text: 'Where did it blow harder, { island } or {other island}?',
  options: ['{island}', '{other island}', 'the same'].map((text, i) => ({
    id: String(i),
    text,
    right: false,
    picture: null,
    alternativeText: '',
  })),
}

describe('blanks', () => {
  test('are named once each, in the question and in its options', () => {
    expect(blanksOf(windy)).toEqual(['island', 'other island'])
    expect(blanksOf({ ...windy, text: 'none', options: [] })).toEqual([])
  })
  test('are filled in wherever they stand; what is not filled in stays a blank', () => {
    const half = filled(windy, { island: ' Nort ' })
    expect(half.text).toBe('Where did it blow harder, Nort or {other island}?')
    expect(half.options.map((o) => o.text)).toEqual(['Nort', '{other island}', 'the same'])
    expect(blanksOf(filled(windy, { island: 'Nort', 'other island': 'Westing' }))).toEqual([])
  })
})

describe('a question on the spot', () => {
  test('is yes or no', () => expect(onTheSpot(' Fog? ', '').options.map((o) => o.text)).toEqual(['yes', 'no']))
  test('or a choice between lines', () =>
    expect(onTheSpot('Which?', 'haar\n\n mist \n').options.map((o) => o.text)).toEqual(['haar', 'mist']))
  test('one line is no choice', () =>
    expect(onTheSpot('Which?', 'haar').options.map((o) => o.text)).toEqual(['yes', 'no']))
  test('has at most twelve choices, each with an id of its own', () => {
    const { options } = onTheSpot('Which?', Array.from({ length: 20 }, (_, i) => `c${i}`).join('\n'))
    expect(new Set(options.map((o) => o.id)).size).toBe(12)
  })
})

describe('opening', () => {
  const rows = [
    { id: 'pip', tags: 'Westing;extra time' },
    { id: 'ingvild', tags: 'Extra Time' },
    { id: 'juno', tags: 'Lantern Rock' },
  ]
  test('gives longer to whoever has the tag, by a share of the time', () =>
    expect(opening({ ...windy, timeLimitSeconds: 60 }, null, null, rows, 0.5)).toMatchObject({
      longerFor: ['pip', 'ingvild'],
      longerSeconds: 30,
    }))
  test('without a limit nobody has longer', () =>
    expect(opening(windy, 'g1', 'a1', rows, 0.5)).toMatchObject({
      group: 'g1',
      copyOf: 'a1',
      longerFor: [],
      longerSeconds: 0,
    }))
})

test.each([
  ['class', [null]],
  ['g2', ['g2']],
  ['each', ['g1', 'g2']],
  ['ask', [null]],
  ['a group that is gone', [null]],
])('a question to %s goes to %j', (choice, to) => expect(goesTo(choice, [{ id: 'g1' }, { id: 'g2' }])).toEqual(to))
