import { readFileSync } from 'node:fs'
import { describe, expect, test } from 'vitest'
import type { Rules } from '../ground-rules/rules'
import { fromFile, written } from './file'

const read = (path: string) => JSON.parse(readFileSync(new URL(path, import.meta.url), 'utf8'))
const names = (schema: { properties: object }) => Object.keys(schema.properties).sort()
const scheme = {
  weights: { speaking: 3, chat: 1 },
  speakingTarget: 1,
  openLineIsChance: true,
  bands: [],
} as unknown as Rules['scheme']

test('the schema names what the server takes, and nothing else', () => {
  const told = read('../../../../docs/scheme.schema.json').properties.scheme
  const { components } = read('../../api/openapi.json')
  expect(names(told)).toEqual(names(components.schemas.Scheme))
  expect(names(told.properties.attendance)).toEqual(names(components.schemas.AttendancePolicy))
  expect(Object.keys(told.properties.weights.properties)).toEqual(components.schemas.Strand.enum)
})

describe('a scheme from a file', () => {
  const file = (part: object) => JSON.stringify({ format: 'polite-tally-scheme', version: 1, scheme: part })

  test('is what was written', () => expect(fromFile(written(scheme), scheme)).toEqual(scheme))

  test('leaves what it says nothing of as it is', () =>
    expect(fromFile(file({ weights: { chat: 2 } }), scheme)).toEqual({ ...scheme, weights: { speaking: 3, chat: 2 } }))

  test.each([
    ['', 'This file is not JSON.'],
    ['[]', 'This file holds no scheme.'],
    ['{"format":"polite-tally-plan","version":1,"scheme":{}}', 'This file holds no scheme.'],
    [
      '{"format":"polite-tally-scheme","version":2,"scheme":{}}',
      'of version 2, and this program reads up to version 1',
    ],
    [
      '{"format":"polite-tally-scheme","version":1,"scheme":{"speakingTarget":"1"}}',
      'scheme.speakingTarget is no number',
    ],
    ['{"format":"polite-tally-scheme","version":1,"scheme":{"bands":{}}}', 'scheme.bands is no list'],
    ['{"format":"polite-tally-scheme","version":1,"scheme":{"weights":3}}', 'scheme.weights has no parts'],
    ['{"format":"polite-tally-scheme","version":1,"scheme":{"glory":1}}', '“glory” that no scheme has'],
  ])('%s is refused with a reason', (text, why) => expect(() => fromFile(text, scheme)).toThrow(why))
})
