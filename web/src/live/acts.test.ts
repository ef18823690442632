import { describe, expect, test } from 'vitest'
import { actOnKey, actsOf, commandOnKey, commandsOf, nodKeys, studentKey } from './acts'

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

describe('commands', () => {
  const commands = commandsOf()

  test('no command shares a key with another, with an act or with a student', () => {
    const keys = [...commands, ...acts].map((one) => one.key)
    expect(new Set(keys).size).toBe(keys.length)
    for (const key of keys) expect(studentKey({ key, code: '' })).toBeUndefined()
  })

  test.each([
    ['Enter', 'Enter', 'callNext'],
    ['F8', 'F8', 'nextStage'],
    ['\\', 'Backslash', 'draw'],
    ['#', 'Backslash', 'aside'],
    ['^', 'Backquote', 'door'],
    ['~', 'Backquote', undefined],
    ['?', 'Slash', 'keys'],
    ['PageDown', 'PageDown', 'groups'],
  ])('%s on %s is %s', (key, code, name) => {
    expect(commandOnKey({ key, code }, commands, acts)?.name).toBe(name)
  })

  test('a changed key stands in place of the first one', () => {
    expect(commandOnKey({ key: 'F10', code: 'F10' }, commandsOf({ nextStage: 'F10' }))?.name).toBe('nextStage')
    expect(commandOnKey({ key: 'F8', code: 'F8' }, commandsOf({ nextStage: 'F10' }))).toBeUndefined()
    expect(actOnKey({ key: '%', code: 'Digit5' }, actsOf([], { pass: '%' }))?.name).toBe('pass')
  })
})

describe('keys of students', () => {
  test.each([
    ['j', 'KeyJ', 'j'],
    ['J', 'KeyJ', 'j'],
    ['q', 'KeyA', 'q'],
    ['[', 'BracketLeft', '['],
    ['{', 'BracketLeft', '['],
    ['ü', 'BracketLeft', '['],
    ['ö', 'Semicolon', ';'],
    ['m', 'Semicolon', 'm'],
    ['4', 'Digit4', undefined],
  ])('%s on %s picks %s', (key, code, letter) => {
    expect(studentKey({ key, code })).toBe(letter)
  })
})
