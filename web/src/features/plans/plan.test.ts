import { effectScope, nextTick, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { copyOf, newQuestion, usePlan, type Plan } from './plan'

vi.mock('@tanstack/vue-query', () => ({ useQueryClient: () => ({ invalidateQueries: () => Promise.resolve() }) }))

/** The server: the plan that it has, what was sent to it, and whether it answers. */
const server = vi.hoisted(() => ({
  version: 1,
  plan: {} as unknown,
  sent: [] as { version: number; name: string }[],
  status: 200,
  merges: false,
}))
vi.mock('../../api/client', async (original) => {
  const { Problem } = await original<typeof import('../../api/client')>()
  const view = () => ({ plan: structuredClone(server.plan), version: server.version })
  const answer = <T>(data: () => T) =>
    server.status === 200 ? Promise.resolve(data()) : Promise.reject(new Problem('not now', server.status))
  return {
    Problem,
    ask: <T>(asked: Promise<T>) => asked,
    api: {
      GET: () => answer(view),
      PUT: (_: string, { body }: { body: { version: number; plan: Plan } }) =>
        answer(() => {
          server.sent.push({ version: body.version, name: body.plan.stages[0]!.name })
          server.plan = structuredClone(body.plan)
          server.version++
          const merged = server.merges
          server.merges = false
          return { view: view(), merged, conflicts: [] }
        }),
    },
  }
})

const withStage = (name: string) =>
  ({
    stages: [{ id: 's1', name, minutes: 10, directions: '' }],
    points: [],
    statements: [],
    together: [],
    apart: [],
    questions: [],
  }) as unknown as Plan
let kept: Map<string, string>
let scope: EffectScope

async function window_() {
  scope = effectScope()
  const opened = scope.run(() => usePlan('lesson 15'))!
  await vi.advanceTimersByTimeAsync(0)
  return opened
}
async function write(opened: Awaited<ReturnType<typeof window_>>, name: string, wait = 500) {
  opened.plan.value!.stages[0]!.name = name
  await nextTick()
  await vi.advanceTimersByTimeAsync(wait)
}

beforeEach(() => {
  vi.useFakeTimers()
  kept = new Map()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  })
  vi.stubGlobal('window', { addEventListener: () => undefined, removeEventListener: () => undefined })
  Object.assign(server, { version: 1, plan: withStage('Readings'), sent: [], status: 200, merges: false })
})
afterEach(() => {
  scope.stop()
  vi.unstubAllGlobals()
})

describe('what is written', () => {
  test('is stored half a second after the last letter, once', async () => {
    const opened = await window_()
    await write(opened, 'Readin', 200)
    await write(opened, 'Read', 200)
    expect([server.sent, opened.state.value]).toEqual([[], 'in pencil'])
    await vi.advanceTimersByTimeAsync(500)
    expect([server.sent, opened.state.value]).toEqual([[{ version: 1, name: 'Read' }], 'all stored'])
  })

  test('lies in the browser until then, so that a closed tab loses nothing', async () => {
    const first = await window_()
    server.status = 0
    await write(first, 'Read aloud')
    scope.stop()
    server.status = 200
    const again = await window_()
    expect(again.plan.value!.stages[0]!.name).toBe('Read aloud')
    expect(server.sent).toEqual([{ version: 1, name: 'Read aloud' }])
    expect(kept.size).toBe(0)
  })

  test('is tried again by itself when the server was away', async () => {
    const opened = await window_()
    server.status = 503
    await write(opened, 'Read aloud')
    expect(opened.state.value).toBe('no connection: kept here until there is one')
    server.status = 200
    await vi.advanceTimersByTimeAsync(3000)
    expect([server.sent.length, opened.state.value]).toEqual([1, 'all stored'])
  })

  test('and refused stays, with what was wrong', async () => {
    const opened = await window_()
    server.status = 422
    await write(opened, '')
    expect([opened.state.value, opened.problem.value, opened.plan.value!.stages[0]!.name]).toEqual([
      'not stored',
      'not now',
      '',
    ])
  })
})

describe('another window', () => {
  test('that changed the plan meanwhile is brought together with this one, and that is said', async () => {
    const opened = await window_()
    server.merges = true
    await write(opened, 'Read aloud')
    expect(opened.merged.value).toBe(true)
    opened.putAway()
    expect(opened.merged.value).toBe(false)
  })

  test('is caught up with at once if nothing waits here, and not if something does', async () => {
    const opened = await window_()
    Object.assign(server, { version: 2, plan: withStage('From elsewhere') })
    await opened.catchUp(2)
    expect(opened.plan.value!.stages[0]!.name).toBe('From elsewhere')
    opened.plan.value!.stages[0]!.name = 'Mine'
    await nextTick()
    Object.assign(server, { version: 3, plan: withStage('Theirs') })
    await opened.catchUp(3)
    expect(opened.plan.value!.stages[0]!.name).toBe('Mine')
  })
})

test('undo goes back a pause of writing at a time, and what it brings back is stored', async () => {
  const opened = await window_()
  await write(opened, 'Read')
  await write(opened, 'Read aloud')
  opened.undo()
  await nextTick()
  expect(opened.plan.value!.stages[0]!.name).toBe('Read')
  opened.undo()
  await nextTick()
  await vi.advanceTimersByTimeAsync(500)
  expect([server.sent.at(-1)!.name, opened.canUndo.value]).toEqual(['Readings', false])
})

test('a copied question has ids of its own, down to its choices', () => {
  const question = newQuestion('singleChoice')
  const copied = copyOf(question)
  expect(copied.kind).toBe('singleChoice')
  expect(
    new Set([question.id, copied.id, ...question.options.map((o) => o.id), ...copied.options.map((o) => o.id)]).size,
  ).toBe(6)
})
