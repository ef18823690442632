import { beforeEach, describe, expect, test, vi } from 'vitest'
import { Problem } from '../api/client'
import { Outbox, type Noted, type OutboxState } from './outbox'

/** The browser's own file: entries by id, or nothing at all as in a private window. */
const file = vi.hoisted(() => ({ kept: new Map<string, Noted>(), missing: false }))
vi.mock('idb', () => ({
  openDB: () =>
    file.missing
      ? Promise.reject(new Error('A mutation operation was attempted on a database that did not allow mutations.'))
      : Promise.resolve({
          getAllFromIndex: () => Promise.resolve([...file.kept.values()]),
          transaction: () => ({
            store: {
              put: (entry: Noted) => Promise.resolve(file.kept.set(entry.id, entry)),
              delete: (id: string) => Promise.resolve(file.kept.delete(id)),
            },
            commit: () => undefined,
            done: Promise.resolve(),
          }),
        }),
}))

let told: OutboxState[]
let seen: readonly Noted[]
let sent: string[][]
/** What the server says to an entry, by id; everything else is accepted. */
let says: Record<string, number>
/** Entries of which its answer says nothing. */
let unsaid: Set<string>

const nod = (id: string) => ({
  id,
  happenedAt: 1000,
  together: null,
  act: { type: 'nodGiven', student: 's1', reason: 'on time' } as never,
})
const box = () =>
  new Outbox(
    'lesson',
    (entries) => {
      sent.push(entries.map((e) => e.id))
      const wrong = entries.find((e) => e.id in says)
      return wrong
        ? Promise.reject(new Problem(`said of ${wrong.id}`, says[wrong.id]!))
        : Promise.resolve({
            position: 7,
            accepted: entries.map((e) => e.id).filter((id) => !unsaid.has(id)),
            refused: [],
          })
    },
    (noted) => (seen = noted),
    (state) => told.push(state),
  )
const waiting = () => seen.filter((n) => !n.refused && n.storedAt === undefined).map((n) => n.id)

beforeEach(() => {
  vi.useFakeTimers()
  ;[told, seen, sent, says, unsaid] = [[], [], [], {}, new Set()]
  file.kept.clear()
  file.missing = false
})

describe('an entry that the server does not take', () => {
  test.each([400, 404, 413, 422])(
    '(%i) is set aside with its reason, and what was tapped before and after goes out',
    async (status) => {
      says = { bad: status }
      const outbox = box()
      await outbox.add([nod('before'), nod('bad'), nod('after')])
      await vi.advanceTimersByTimeAsync(0)
      await outbox.add([nod('later')])
      await vi.advanceTimersByTimeAsync(60_000)
      expect(waiting()).toEqual([])
      expect(seen.filter((n) => n.refused).map((n) => [n.id, n.refused])).toEqual([['bad', 'said of bad']])
      expect([...file.kept.keys()]).toEqual(['bad'])
      expect(told.at(-1)).toBe('stored')
    },
  )

  test.each([0, 408, 425, 429, 500, 503])('just now (%i) goes out when it is taken, in order', async (status) => {
    says = { one: status }
    const outbox = box()
    await outbox.add([nod('one'), nod('two')])
    await vi.advanceTimersByTimeAsync(10_000)
    expect(told.at(-1)).toBe('away')
    expect(waiting()).toEqual(['one', 'two'])
    says = {}
    await vi.advanceTimersByTimeAsync(10_000)
    expect(waiting()).toEqual([])
    expect(sent.at(-1)).toEqual(['one', 'two'])
  })

  test.each([401, 403])('because nobody is signed in (%i) waits for that', async (status) => {
    says = { one: status }
    await box().add([nod('one')])
    await vi.advanceTimersByTimeAsync(10_000)
    expect(told.at(-1)).toBe('signedOut')
    expect(waiting()).toEqual(['one'])
  })
})

test('an entry of which the answer says nothing is asked for again, after a pause', async () => {
  unsaid = new Set(['two'])
  await box().add([nod('one'), nod('two')])
  await vi.advanceTimersByTimeAsync(500)
  expect([sent.length, told.at(-1), waiting()]).toEqual([1, 'away', ['two']])
  unsaid.clear()
  await vi.advanceTimersByTimeAsync(1000)
  expect([sent.length, told.at(-1), waiting()]).toEqual([2, 'stored', []])
})

test('a window that can keep nothing sends all the same, and says so once', async () => {
  file.missing = true
  const outbox = box()
  await outbox.wake()
  await outbox.add([nod('one')])
  await outbox.add([nod('two')])
  await vi.advanceTimersByTimeAsync(1000)
  expect(sent.flat()).toEqual(['one', 'two'])
  expect(told.filter((t) => t === 'unkept')).toHaveLength(1)
})

describe('what has to be stored before something else is asked', () => {
  test('is waited for, also what is noted meanwhile', async () => {
    const outbox = box()
    void outbox.add([nod('one')])
    const stored = outbox.stored()
    void outbox.add([nod('two')])
    await stored
    expect(sent.flat()).toEqual(['one', 'two'])
  })

  test('is not waited for for ever', async () => {
    says = { one: 503 }
    const outbox = box()
    await outbox.add([nod('one')])
    await expect(outbox.stored()).rejects.toThrow('said of one')
  })

  test('and was refused, need not be waited for', async () => {
    says = { one: 422 }
    const outbox = box()
    await outbox.add([nod('one')])
    await outbox.stored()
    expect(waiting()).toEqual([])
  })
})
