import { describe, expect, test } from 'vitest'
import { actOnKey, acts } from './acts'

describe('keys of acts', () => {
  test('no two acts share a key, and none takes a letter', () => {
    expect(new Set(acts.map((a) => a.key)).size).toBe(acts.length)
    for (const act of acts) expect(act.key).not.toMatch(/[a-z]/i)
  })

  test.each([
    ['6', 'Digit6', 'full'],
    ['6', 'Numpad6', 'full'],
    ['&', 'Digit1', 'here'],
    ['§', 'Digit6', 'full'],
    ['é', 'Digit2', 'late'],
    ['*', 'NumpadMultiply', 'nod3'],
    [',', 'KeyM', 'question'],
    ['.', 'Period', 'answer'],
    ['+', 'NumpadAdd', 'nod2'],
  ])('%s on %s is %s', (key, code, name) => {
    expect(actOnKey({ key, code })?.name).toBe(name)
  })

  test.each([
    ['j', 'KeyJ'],
    ['Enter', 'Enter'],
    ['F1', 'F1'],
  ])('%s is no act', (key, code) => {
    expect(actOnKey({ key, code })).toBeUndefined()
  })
})
