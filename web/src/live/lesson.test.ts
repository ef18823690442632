import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { useLesson } from './lesson'

/** The server: its sheet at each position, what it was asked for, and the hub. */
const server = vi.hoisted(() => ({
  position: 10,
  stage: 'live',
  status: 200,
  asked: [] as string[],
  entries: [] as unknown[],
  patch: undefined as unknown as (change: unknown) => void,
  stand: () => Promise.resolve() as Promise<unknown>,
}))
vi.mock('idb', () => ({ openDB: () => Promise.reject(new Error('a private window')) }))
vi.mock('./hubConnection', () => ({
  keepConnected: (_: string, hears: { patch: never }, watch: (invoke: () => Promise<void>) => Promise<unknown>) => {
    server.patch = hears.patch
    server.stand = () => watch(() => Promise.resolve())
  },
}))
vi.mock('../api/client', async (original) => {
  const { Problem } = await original<typeof import('../api/client')>()
  const head = () => ({
    position: server.position,
    now: 1_000_000,
    stage: server.stage,
    endedAt: null,
    lastEntries: [],
    reminders: [],
    beforeStart: [],
    beforeEnd: [],
    hands: [],
    turn: null,
    timers: [],
    groups: [],
    board: [],
    rounds: [],
    door: [],
    callers: [],
    askings: [],
    signals: [],
    plan: { stages: [], points: [], statements: [], stage: null, version: 1 },
  })
  const answer = <T>(what: string, data: () => T) => {
    server.asked.push(what)
    return server.status === 200 ? Promise.resolve(data()) : Promise.reject(new Problem('away', server.status))
  }
  return {
    Problem,
    ask: <T>(asked: Promise<T>) => asked,
    api: {
      GET: (path: string, { params }: { params: { path: { position?: number } } }) =>
        path.endsWith('/live')
          ? answer('sheet', () => ({ head: head(), rows: [] }))
          : answer(`since ${params.path.position}`, () => ({
              from: params.path.position,
              head: head(),
              order: [],
              rows: [],
            })),
      POST: (_: string, { body }: { body: { entries: { id: string }[] } }) =>
        answer('entries', () => {
          server.entries.push(...body.entries)
          server.position += body.entries.length
          return { position: server.position, accepted: body.entries.map((e) => e.id), refused: [] }
        }),
    },
  }
})

let scope: EffectScope
async function opened() {
  scope = effectScope()
  const lesson = scope.run(() => useLesson('lesson 14'))!
  await vi.advanceTimersByTimeAsync(0)
  return lesson
}

beforeEach(() => {
  vi.useFakeTimers()
  vi.stubGlobal('window', { addEventListener: () => undefined, removeEventListener: () => undefined })
  Object.assign(server, { position: 10, stage: 'live', status: 200, asked: [], entries: [] })
})
afterEach(() => {
  scope.stop()
  vi.unstubAllGlobals()
})
const patch = (from: number, to: number) => {
  server.position = to
  return { from, head: { position: to, now: 1_000_000 }, order: [], rows: [] }
}

describe('the sheet', () => {
  test('is asked for once, and again as long as nobody answers', async () => {
    server.status = 0
    const lesson = await opened()
    expect([lesson.head.value, lesson.problem.value]).toEqual([undefined, 'away'])
    server.status = 200
    await vi.advanceTimersByTimeAsync(1000)
    expect(lesson.head.value!.position).toBe(10)
  })

  test('that saw a gap asks for what it missed', async () => {
    await opened()
    server.asked = []
    server.patch(patch(12, 13))
    await vi.advanceTimersByTimeAsync(0)
    expect(server.asked).toEqual(['since 10'])
  })

  test('asks for what it missed whenever the connection stands again', async () => {
    const lesson = await opened()
    server.position = 15
    await server.stand()
    expect(lesson.head.value!.position).toBe(15)
  })
})

describe('what is noted', () => {
  test('is here at once, and goes out; what one press notes goes out as one', async () => {
    const lesson = await opened()
    const ids = lesson.note({ type: 'lessonEnded' }, { type: 'groupsDissolved' })
    await vi.advanceTimersByTimeAsync(0)
    expect(lesson.noted.value.map((n) => n.id)).toEqual(ids)
    const [first, second] = server.entries as { together: string }[]
    expect([server.entries.length, first!.together === second!.together, !!first!.together]).toEqual([2, true, true])
  })

  test('waits while nobody answers, and says so', async () => {
    const lesson = await opened()
    server.status = 0
    lesson.note({ type: 'groupsDissolved' })
    await vi.advanceTimersByTimeAsync(0)
    expect([lesson.waiting.value, lesson.away.value]).toEqual([1, 'away'])
  })

  test('in a lesson that is over, is not undone in passing', async () => {
    server.stage = 'ended'
    const lesson = await opened()
    expect([lesson.isOver.value, lesson.undo()]).toEqual([true, undefined])
  })
})
