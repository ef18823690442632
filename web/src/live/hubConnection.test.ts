import { effectScope } from 'vue'
import { beforeEach, expect, test, vi } from 'vitest'
import { keepConnected } from './hubConnection'

/** A hub that does what a test tells it to. */
const hub = {
  state: 'Disconnected',
  starts: 0,
  failStarts: 0,
  stopped: false,
  heard: new Map<string, (message: unknown) => void>(),
  invoked: [] as unknown[][],
  breaks: () => {},
  again: () => {},
  isClosed: () => {},
  on: (name: string, hear: (message: unknown) => void) => void hub.heard.set(name, hear),
  onreconnecting: (breaks: () => void) => void (hub.breaks = breaks),
  onreconnected: (again: () => void) => void (hub.again = again),
  onclose: (isClosed: () => void) => void (hub.isClosed = isClosed),
  start: () => {
    hub.starts++
    if (hub.failStarts-- > 0) return Promise.reject(new Error('nobody there'))
    hub.state = 'Connected'
    return Promise.resolve()
  },
  stop: () => {
    hub.stopped = true
    return Promise.resolve()
  },
  invoke: (...words: unknown[]) => {
    hub.invoked.push(words)
    return Promise.resolve()
  },
}

vi.mock('@microsoft/signalr', () => {
  class Builder {
    withUrl = () => this
    configureLogging = () => this
    withAutomaticReconnect = () => this
    build = () => hub
  }
  return { HubConnectionBuilder: Builder, HubConnectionState: { Connected: 'Connected' }, LogLevel: { None: 0 } }
})

beforeEach(() => {
  vi.useFakeTimers()
  Object.assign(hub, { state: 'Disconnected', starts: 0, failStarts: 0, stopped: false, invoked: [] })
})
const settled = (ms = 0) => vi.advanceTimersByTimeAsync(ms)
const watch = (invoke: (method: string, ...words: unknown[]) => Promise<unknown>) => invoke('Watch', 'lesson 14')

test('says what is to be heard as soon as it stands, and again after each break', async () => {
  effectScope().run(() => keepConnected('/live', {}, watch))
  await settled()
  hub.again()
  await settled()
  expect(hub.invoked).toEqual([
    ['Watch', 'lesson 14'],
    ['Watch', 'lesson 14'],
  ])
})

test('closed by the server for good, it is begun anew after a pause; who waits hears of each break', async () => {
  let lost = 0
  effectScope().run(() => keepConnected('/live', {}, watch, { lost: () => lost++ }))
  await settled()
  hub.breaks()
  hub.isClosed()
  expect(lost).toBe(1)
  await settled(1000)
  expect(hub.starts).toBe(2)
  expect(hub.invoked).toHaveLength(2)
})

test('with nobody there it is tried again every second until somebody is', async () => {
  hub.failStarts = 2
  effectScope().run(() => keepConnected('/live', {}, watch))
  await settled()
  expect([hub.starts, hub.invoked.length]).toEqual([1, 0])
  await settled(2000)
  expect([hub.starts, hub.invoked.length]).toEqual([3, 1])
})

test('what was missed is asked for again if that failed, as long as the connection stands', async () => {
  let tries = 0
  const fail = () => (++tries === 1 ? Promise.reject(new Error('busy')) : Promise.resolve())
  effectScope().run(() => keepConnected('/live', {}, fail))
  await settled(1000)
  expect(tries).toBe(2)
})

test('a message goes to whoever hears it', async () => {
  const patches: unknown[] = []
  effectScope().run(() => keepConnected('/live', { patch: (p: never) => patches.push(p) }, watch))
  hub.heard.get('patch')!('a patch')
  expect(patches).toEqual(['a patch'])
})

test('ends with its scope, and does not come back', async () => {
  hub.failStarts = 1
  const scope = effectScope()
  scope.run(() => keepConnected('/live', {}, watch))
  await settled()
  scope.stop()
  await settled(5000)
  expect([hub.stopped, hub.starts]).toEqual([true, 1])
})
