import { describe, expect, test } from 'vitest'
import { leftOver } from './leftOver'

const nothing = { beforeEnd: [], hands: [], askings: [], door: [], callers: [] }
const left = (drawn: object, chatWaiting = 0) => leftOver({ ...nothing, ...drawn } as never, { chatWaiting })

describe('what is left when a lesson is about to end', () => {
  test('nothing, if all is done', () => {
    expect(left({ beforeEnd: [{ text: 'Save the chat', ticked: 'an entry' }], askings: [{ closedAt: 1 }] })).toEqual([])
  })

  test.each([
    [{ beforeEnd: [{ text: 'Save the chat', ticked: null }] }, 0, { text: 'Save the chat', opens: null }],
    [{ askings: [{ closedAt: null }, { closedAt: null }] }, 0, { text: '2 questions open', opens: 'questions' }],
    [{ hands: [{}] }, 0, { text: '1 hand up', opens: null }],
    [{}, 54, { text: '54 messages to sweep', opens: 'chat' }],
    [{ door: [{}], callers: [{}, {}] }, 0, { text: '3 names at the door', opens: 'door' }],
  ])('%j with %i messages', (drawn, chatWaiting, said) => {
    expect(left(drawn, chatWaiting)).toEqual([said])
  })
})
