import { describe, expect, test } from 'vitest'
import type { Schemas } from '../api/client'
import { patched } from './patch'
import type { View } from './drawn'

const row = (id: string, called = id) => ({ id, called }) as Schemas['LiveRow']
const at = (position: number, ...rows: Schemas['LiveRow'][]) => ({ head: { position }, rows }) as View
const change = (from: number, to: number, order: string[], ...rows: Schemas['LiveRow'][]) =>
  ({ from, head: { position: to }, order, rows }) as Schemas['LivePatch']
const seen = at(7, row('juno'), row('eino'))

describe('a patch', () => {
  test('replaces whole rows, keeps the others as the same objects, and brings the head', () => {
    const next = patched(seen, change(7, 8, ['juno', 'eino'], row('eino', 'Eino R'))) as View
    expect(next.head.position).toBe(8)
    expect(next.rows.map((r) => r.called)).toEqual(['juno', 'Eino R'])
    expect(next.rows[0]).toBe(seen.rows[0])
  })

  test('says the order, and who has left the class is gone', () => {
    const next = patched(seen, change(7, 8, ['zainab', 'juno'], row('zainab'))) as View
    expect(next.rows.map((r) => r.id)).toEqual(['zainab', 'juno'])
  })

  test.each([
    ['from before what is shown is old', change(3, 6, ['juno', 'eino']), 'old'],
    ['after something that was missed is a gap', change(8, 9, ['juno', 'eino']), 'gap'],
    ['with somebody unknown asks for the whole sheet', change(7, 8, ['juno', 'eino', 'zainab']), 'unknown'],
  ])('%s', (_, patch, expected) => expect(patched(seen, patch)).toBe(expected))

  test('that reaches back behind what is shown is taken: rows are whole', () => {
    const next = patched(seen, change(5, 8, ['juno', 'eino'], row('juno', 'Juno Q'))) as View
    expect(next.rows[0]!.called).toBe('Juno Q')
  })

  test('without a new entry, of names at the door or a clock, is taken too', () => {
    expect((patched(seen, change(7, 7, ['juno', 'eino'])) as View).rows).toHaveLength(2)
  })
})
