import { effectScope, type EffectScope } from 'vue'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { usePage } from './page'

// The line to the hub never stands here: what a page does goes by HTTP and must not wait for it.
vi.mock('@microsoft/signalr', () => {
  class Builder {
    withUrl = () => this
    configureLogging = () => this
    withAutomaticReconnect = () => this
    build = () => ({
      state: 'Disconnected',
      on: () => undefined,
      onreconnecting: () => undefined,
      onreconnected: () => undefined,
      onclose: () => undefined,
      start: () => new Promise(() => undefined),
      stop: () => Promise.resolve(),
    })
  }
  return { HubConnectionBuilder: Builder, HubConnectionState: { Disconnected: 'Disconnected' }, LogLevel: { None: 0 } }
})

function store() {
  const kept = new Map<string, string>()
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    clear: () => kept.clear(),
    all: () => [...kept].flat().join(' '),
  }
}

interface Sent {
  path: string
  body: { id: string; doing: string; answer?: { options: string[] } }
}
const question = (asking: string, anonymous = false) => ({ asking, anonymous, text: 'The wind backs when…' })
const own = (more: object = {}) => ({
  standing: 'in',
  called: 'Juno',
  questions: [question('q1'), question('q2', true)],
  ...more,
})
const view = (more: object = {}) => ({ now: 1000, lesson: { title: 'Why the wind backs' }, own: own(more) })

let sent: Sent[]
/** What the server says next, by path; a number alone is a status without words. */
let says: Record<string, { status: number; body?: unknown; after?: number }>
let device: ReturnType<typeof store>
let tab: ReturnType<typeof store>
let scopes: EffectScope[]

const inTheLesson = () => {
  const scope = effectScope()
  scopes.push(scope)
  return scope.run(() => usePage('tavo-kile'))!
}
const settled = () => vi.advanceTimersByTimeAsync(0)

beforeEach(() => {
  vi.useFakeTimers()
  sent = []
  scopes = []
  says = { '': { status: 200, body: view() }, '/acts': { status: 200, body: own() } }
  device = store()
  tab = store()
  vi.stubGlobal('localStorage', device)
  vi.stubGlobal('sessionStorage', tab)
  vi.stubGlobal('window', { addEventListener: () => undefined, removeEventListener: () => undefined })
  vi.stubGlobal('fetch', (address: string, init: RequestInit) => {
    const path = address.replace('/api/page/tavo-kile', '')
    if (init.body) sent.push({ path, body: JSON.parse(init.body as string) as Sent['body'] })
    const { status, body, after = 0 } = says[path] ?? { status: 404 }
    if (status === 0) return Promise.reject(new Error('no line'))
    const answer = { status, ok: status < 300, json: () => Promise.resolve(body) }
    return after ? new Promise((done) => setTimeout(() => done(answer), after)) : Promise.resolve(answer)
  })
})
afterEach(() => {
  for (const scope of scopes) scope.stop()
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('without a connection', () => {
  test('what is done waits on the device and goes out under the id it had, once', async () => {
    const page = inTheLesson()
    await settled()
    says['/acts'] = { status: 0 }
    page.act({ doing: 'raiseHand' } as never)
    await settled()
    expect(page.away.value).toBe(true)
    expect(page.handUp.value).toBe(true)
    expect(device.all()).toContain('raiseHand')

    says['/acts'] = { status: 200, body: own({ hand: { place: 1, of: 1 } }) }
    await vi.advanceTimersByTimeAsync(2000)
    expect(sent.map((s) => s.body.id)).toEqual([sent[0]!.body.id, sent[0]!.body.id])
    expect(page.own.value?.hand).toMatchObject({ place: 1 })
    expect(device.all()).toBe('')
    await vi.advanceTimersByTimeAsync(10_000)
    expect(sent).toHaveLength(2)
  })

  test('a page that is loaded anew sends what the one before left behind', async () => {
    const before = inTheLesson()
    await settled()
    says['/acts'] = { status: 503 }
    before.act({ doing: 'sayReady' } as never)
    await settled()
    scopes[0]!.stop()

    says['/acts'] = { status: 200, body: own() }
    sent = []
    inTheLesson()
    await settled()
    expect(sent.map((s) => s.body.doing)).toEqual(['sayReady'])
  })

  test('of two answers to one question only the later goes out', async () => {
    const page = inTheLesson()
    await settled()
    says['/acts'] = { status: 0 }
    page.act({ doing: 'answer', asking: 'q1', answer: { options: ['backs'] } } as never)
    await settled()
    page.act({ doing: 'answer', asking: 'q1', answer: { options: ['veers'] } } as never)
    await settled()
    says['/acts'] = { status: 200, body: own() }
    sent = []
    await vi.advanceTimersByTimeAsync(2000)
    expect(sent.map((s) => s.body.answer?.options)).toEqual([['veers']])
  })
})

test('what was asked for before an act and comes after it does not undo what the page shows', async () => {
  says[''] = { status: 200, body: view({ called: 'before' }), after: 500 }
  const page = inTheLesson()
  says['/acts'] = { status: 200, body: own({ called: 'after' }) }
  page.act({ doing: 'raiseHand' } as never)
  await settled()
  says[''] = { status: 200, body: view({ called: 'after, too' }) }
  await vi.advanceTimersByTimeAsync(1000)
  expect(page.own.value?.called).toBe('after, too')
})

describe('an anonymous answer', () => {
  test('is not kept on the device, only in this tab so that it can be changed', async () => {
    const page = inTheLesson()
    await settled()
    says['/acts'] = { status: 0 }
    page.act({ doing: 'answer', asking: 'q2', answer: { options: ['backs'] } } as never)
    await settled()
    expect(device.all()).toBe('')
    expect(tab.all()).toContain(sent[0]!.body.id)
    page.act({ doing: 'answer', asking: 'q2', answer: { options: ['veers'] } } as never)
    await vi.advanceTimersByTimeAsync(2000)
    expect(new Set(sent.map((s) => s.body.id)).size).toBe(1)
    expect(page.answeredHere('q2')).toBe(false)
    says['/acts'] = { status: 200, body: own() }
    await vi.advanceTimersByTimeAsync(2000)
    expect(page.answeredHere('q2')).toBe(true)
    expect(page.answeredHere('q1')).toBe(false)
  })

  test('that is refused does not count as given', async () => {
    const page = inTheLesson()
    await settled()
    says['/acts'] = { status: 409, body: { detail: 'Your time for this question is up.' } }
    page.act({ doing: 'answer', asking: 'q2', answer: { options: ['backs'] } } as never)
    await settled()
    expect(page.answeredHere('q2')).toBe(false)
    expect(tab.all()).not.toContain('backs')
  })

  test('is sent again, under its id, when the server had to start anew, and forgotten when its question is closed', async () => {
    const page = inTheLesson()
    await settled()
    const asked = (more: object) => view({ questions: [{ ...question('q2', true), open: true, ...more }] })
    says['/acts'] = { status: 200, body: asked({ answered: true }).own }
    page.act({ doing: 'answer', asking: 'q2', answer: { options: ['backs'] } } as never)
    await settled()
    expect(sent).toHaveLength(1)

    says[''] = { status: 200, body: asked({ answered: false }) }
    inTheLesson()
    await settled()
    expect(sent.map((s) => s.body.answer?.options)).toEqual([['backs'], ['backs']])
    expect(new Set(sent.map((s) => s.body.id)).size).toBe(1)

    says[''] = { status: 200, body: asked({ answered: true, open: false }) }
    inTheLesson()
    await settled()
    expect(sent).toHaveLength(2)
    expect(tab.all()).not.toContain('backs')
  })

  test('to a question with names has an id of its own each time', async () => {
    const page = inTheLesson()
    await settled()
    for (const option of ['backs', 'veers']) {
      page.act({ doing: 'answer', asking: 'q1', answer: { options: [option] } } as never)
      await settled()
    }
    expect(new Set(sent.map((s) => s.body.id)).size).toBe(2)
  })
})

test('what is refused is said and not sent again', async () => {
  const page = inTheLesson()
  await settled()
  says['/acts'] = { status: 409, body: { detail: 'Your time for this question is up.' } }
  page.act({ doing: 'answer', asking: 'q1', answer: { options: ['backs'] } } as never)
  await vi.advanceTimersByTimeAsync(10_000)
  expect(page.problem.value).toBe('Your time for this question is up.')
  expect(sent).toHaveLength(1)
  expect(device.all()).toBe('')
})

test('a session that was ended asks for the pass again', async () => {
  const page = inTheLesson()
  await settled()
  expect(page.door.value).toBe('open')
  says['/acts'] = { status: 401 }
  says['/door'] = { status: 200, body: { byName: true } }
  page.act({ doing: 'raiseHand' } as never)
  await settled()
  expect(page.door.value).toBe('closed')
  expect(page.byName.value).toBe(true)
  expect(page.own.value).toBeUndefined()
})

test('a wrong pass is said, a right one opens the page', async () => {
  says = { '': { status: 401 }, '/door': { status: 200, body: { byName: false } } }
  const page = inTheLesson()
  await settled()
  says['/enter'] = { status: 401, body: { detail: 'This pass does not open this lesson.' } }
  await page.enter('no such pass', null, false)
  expect(page.problem.value).toContain('does not open')
  says['/enter'] = { status: 200, body: view() }
  await page.enter('mimi-zavi-buva', null, false)
  expect(page.door.value).toBe('open')
  expect(page.problem.value).toBe('')
})

test('a lesson that is over says so and asks nothing more', async () => {
  says = { '': { status: 401 }, '/door': { status: 410, body: { detail: 'This lesson is over.' } } }
  const page = inTheLesson()
  await vi.advanceTimersByTimeAsync(10_000)
  expect(page.door.value).toBe('closed')
  expect(page.problem.value).toBe('This lesson is over.')
})
