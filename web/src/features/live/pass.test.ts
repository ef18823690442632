import { ref } from 'vue'
import { beforeEach, expect, test } from 'vitest'
import type { LiveLesson } from '../../live/lesson'
import type { Act } from '../../live/outbox'
import { usePass } from './pass'

let noted: Act[]
/** A pass over a class, each student where they are said to be: "juno:here eino:missing". */
function over(class_: string, board: string[] = []) {
  const rows = class_.split(' ').map((part) => {
    const [id, whereabouts] = part.split(':')
    return { id, whereabouts }
  })
  const drawn = ref({ rows, board: board.map((item) => ({ item })) })
  return usePass({ drawn, note: (...acts: Act[]) => void noted.push(...acts) } as unknown as LiveLesson)
}
beforeEach(() => (noted = []))

test.each([
  ['nobody seen yet: all are here', 'juno:missing eino:missing', ['juno', 'eino']],
  ['whoever is excused is not', 'juno:missing eino:excused', ['juno']],
  ['half of the class seen: as they were seen', 'juno:here eino:missing', ['juno']],
  ['whoever left is not here', 'juno:here eino:late zainab:left', ['juno', 'eino']],
])('a roll call begins from what is known; %s', (_, class_, here) => {
  const { begin, finish } = over(class_)
  begin({ kind: 'rollCall' })
  expect(finish()).toBe(`Roll call: ${here.length} here`)
  expect(noted).toEqual([{ type: 'rollCallTaken', here }])
})

test('somebody is taken out, and back in', () => {
  const { begin, takeOut, out } = over('juno:here eino:here')
  begin({ kind: 'rollCall' })
  takeOut('eino')
  expect([...out.value]).toEqual(['eino'])
  takeOut('eino')
  expect([...out.value]).toEqual([])
})

test('in a signal round whoever is here and was taken out is silent; whoever is not here is neither', () => {
  const { begin, takeOut, finish } = over('juno:here eino:here zainab:missing')
  begin({ kind: 'signal', statement: 'Fog is a cloud.', ledBy: null })
  takeOut('eino')
  finish()
  expect(noted).toEqual([
    { type: 'signalRoundHeld', statement: 'Fog is a cloud.', answered: ['juno'], silent: ['eino'], ledBy: null },
  ])
})

test('a round takes its statement off the board, in the same press', () => {
  const { begin, finish } = over('juno:here', ['statement'])
  begin({ kind: 'signal', statement: 'Fog is a cloud.', ledBy: 'juno' })
  finish()
  expect(noted.map((a) => a.type)).toEqual(['signalRoundHeld', 'boardTaken'])
})

test('finished twice, a pass is noted once', () => {
  const { begin, finish } = over('juno:here')
  begin({ kind: 'rollCall' })
  finish()
  expect(finish()).toBeUndefined()
  expect(noted.length).toBe(1)
})
