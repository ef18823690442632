import { ref } from 'vue'
import { beforeEach, expect, test, vi } from 'vitest'
import { Problem } from '../../api/client'
import type { LiveLesson } from '../../live/lesson'
import { useDraw } from './draw'
import type { Sheet } from './sheet'

/** The server: what it was asked to draw, and when it answers. */
const server = vi.hoisted(() => ({ ids: [] as string[], answers: [] as { done: () => void; lost: () => void }[] }))
vi.mock('../../api/client', async (original) => {
  const { Problem } = await original<typeof import('../../api/client')>()
  const POST = (_: string, { body }: { body: { id: string } }) => {
    server.ids.push(body.id)
    return new Promise((done, lost) =>
      server.answers.push({
        done: () => done({ student: 'juno', why: 'not heard yet today' }),
        lost: () => lost(new Problem('The server does not answer.', 0)),
      }),
    )
  }
  return { Problem, ask: <T>(asked: Promise<T>) => asked, api: { POST } }
})

let stored: () => Promise<void>
let drawn: { value: { entries: { entries: string[] }[] } }
function teacher() {
  const telling = { said: ref(''), wrong: ref('') }
  const live = { serverTime: () => 1000, stored: () => stored(), drawn }
  const sheet = { running: ref(true), nameOf: () => 'Juno' }
  return { ...useDraw('lesson 14', live as unknown as LiveLesson, sheet as unknown as Sheet, telling), ...telling }
}
const settled = () => new Promise((done) => setTimeout(done))

beforeEach(() => {
  Object.assign(server, { ids: [], answers: [] })
  stored = () => Promise.resolve()
  drawn = { value: { entries: [] } }
})

test('a draw waits until what was noted before it is stored', async () => {
  let store = () => undefined as void
  stored = () => new Promise((done) => (store = done))
  const { drawName, said } = teacher()
  const drawing = drawName()
  await settled()
  expect(server.ids).toHaveLength(0)
  store()
  await settled()
  server.answers[0]!.done()
  await drawing
  expect(said.value).toBe('Drawn: Juno, not heard yet today')
})

test('a draw does not begin as long as that cannot be stored, and says why', async () => {
  stored = () => Promise.reject(new Problem('The server does not answer.', 0))
  const { drawName, wrong } = teacher()
  await drawName()
  expect([server.ids, wrong.value]).toEqual([[], 'The server does not answer.'])
})

test('a draw whose answer was lost is asked for again, not drawn anew', async () => {
  const { drawName } = teacher()
  const first = drawName()
  await settled()
  server.answers[0]!.lost()
  await first
  void drawName()
  await settled()
  expect(server.ids[1]).toBe(server.ids[0])
})

test('a press after the name stands on the sheet draws another, also before the answer is here', async () => {
  const { drawName } = teacher()
  void drawName()
  await settled()
  drawn.value.entries = [{ entries: [server.ids[0]!] }]
  void drawName()
  await settled()
  expect(server.ids[1]).not.toBe(server.ids[0])
  // The answer to the first has no say in what the second is.
  server.answers[0]!.done()
  await settled()
  void drawName()
  await settled()
  expect(server.ids[2]).toBe(server.ids[1])
})
