import { describe, expect, test } from 'vitest'
import { actOnKey, actsOf, nodKeys } from './acts'

const acts = actsOf(['helped someone', 'kept going', 'on time'])

describe('keys of acts', () => {
  test('no two acts share a key, and none takes a letter', () => {
    expect(new Set(acts.map((a) => a.key)).size).toBe(acts.length)
    for (const act of acts) expect(act.key).not.toMatch(/[a-z]/i)
  })

  test('a class has as many nods as reasons, each on a key of its own', () => {
    const five = actsOf(['a', 'b', 'c', 'd', 'e', 'one too many']).filter((a) => a.pen === 'nods')
    expect(five.map((a) => a.key)).toEqual([...nodKeys])
    expect(five[3]!.make('juno')).toEqual({ type: 'nodGiven', student: 'juno', reason: 'd' })
    expect(actsOf(['only one']).filter((a) => a.pen === 'nods')).toHaveLength(1)
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
    expect(actOnKey({ key, code }, acts)?.name).toBe(name)
  })

  test.each([
    ['j', 'KeyJ'],
    ['Enter', 'Enter'],
    ['F1', 'F1'],
  ])('%s is no act', (key, code) => {
    expect(actOnKey({ key, code }, acts)).toBeUndefined()
  })
})
