import { describe, expect, test } from 'vitest'
import { ref } from 'vue'
import { useChoosing } from './choosing'

const row = (id: string, key: string, whereabouts = 'here') => ({ id, key, whereabouts })
const roster = [row('juno', 'j'), row('saga', 's'), row('sipho', 's', 'late'), row('wojtek', 'w', 'missing')]
const choosing = (rows = roster) => useChoosing(ref(rows))

describe('by letter', () => {
  test.each([
    ['once', ['j'], ['juno']],
    ['another replaces the first', ['j', 'w'], ['wojtek']],
    ['a shared letter takes turns', ['s', 's'], ['sipho']],
    ['and comes round again', ['s', 's', 's'], ['saga']],
    ['a letter of nobody changes nothing', ['j', 'x'], ['juno']],
  ])('%s', (_, letters, expected) => {
    const { chosen, pick } = choosing()
    for (const letter of letters) pick(letter, false)
    expect(chosen.value).toEqual(expected)
  })

  test('with more, a letter adds and takes out again', () => {
    const { chosen, pick } = choosing()
    pick('j', false)
    pick('s', true)
    expect(chosen.value).toEqual(['juno', 'saga'])
    pick('s', true)
    expect(chosen.value).toEqual(['juno'])
  })
})

test('a press on a name chooses it, once more puts it back; with more it joins the others', () => {
  const { chosen, toggle } = choosing()
  toggle('juno', false)
  toggle('saga', true)
  expect(chosen.value).toEqual(['juno', 'saga'])
  toggle('saga', true)
  toggle('juno', false)
  expect(chosen.value).toEqual([])
})

test('arrows go down and up, round and round, from nowhere to an end', () => {
  const { chosen, move } = choosing()
  move(-1)
  expect(chosen.value).toEqual(['wojtek'])
  move(1)
  expect(chosen.value).toEqual(['juno'])
  const empty = choosing([])
  empty.move(1)
  expect(empty.chosen.value).toEqual([])
})

test('all are those who are here, and once more everybody; with nobody here it is everybody at once', () => {
  const { chosen, chooseAll } = choosing()
  chooseAll()
  expect(chosen.value).toEqual(['juno', 'saga', 'sipho'])
  chooseAll()
  expect(chosen.value).toEqual(['juno', 'saga', 'sipho', 'wojtek'])
  const nobody = choosing([row('juno', 'j', 'missing')])
  nobody.chooseAll()
  expect(nobody.chosen.value).toEqual(['juno'])
})
