import { expect, test, vi } from 'vitest'
import { inTurn } from './inTurn'

test('what is asked for while something is on its way waits for it, and goes in the order of the asking', async () => {
  const next = inTurn()
  const log: string[] = []
  let arrive!: () => void
  const first = next(() => new Promise<void>((done) => (arrive = done)).then(() => void log.push('first')))
  const second = next(async () => log.push('second'))
  const third = next(async () => log.push('third'))
  await vi.waitUntil(() => arrive)
  expect(log).toEqual([])
  arrive()
  await Promise.all([first, second, third])
  expect(log).toEqual(['first', 'second', 'third'])
})

test('one that failed says so to whoever asked for it, and the next goes all the same', async () => {
  const next = inTurn()
  const failed = next(() => Promise.reject(new Error('no line')))
  const after = next(async () => 'stored')
  await expect(failed).rejects.toThrow('no line')
  await expect(after).resolves.toBe('stored')
})
