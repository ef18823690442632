import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { Problem, type Schemas } from '../api/client'

export type Act = Schemas['Act']

/** An entry that this browser noted. Pencilled until it is stored; refused ones stay, with the reason. */
export interface Noted {
  id: string
  lesson: string
  happenedAt: number
  act: Act
  /** Counts the entries of this browser, so that they go out in the order in which they were tapped. */
  order: number
  refused?: string
  /** The position of the ledger that holds it; drawn as ink until the sheet itself shows it. */
  storedAt?: number
}

interface OutboxFile extends DBSchema {
  noted: { key: string; value: Noted; indexes: { lesson: string } }
}

const mostAtOnce = 100
let file: Promise<IDBPDatabase<OutboxFile>> | undefined

const open = () =>
  (file ??= openDB<OutboxFile>('polite-tally', 1, {
    upgrade: (db) => db.createObjectStore('noted', { keyPath: 'id' }).createIndex('lesson', 'lesson'),
  }))

/** A UUIDv7 (RFC 9562): made where the act was noted, so that sending it twice is harmless. */
export function entryId(now: number): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  for (let i = 0; i < 6; i++) bytes[i] = Math.floor(now / 2 ** (8 * (5 - i))) % 256
  bytes[6] = (bytes[6]! & 0x0f) | 0x70
  bytes[8] = (bytes[8]! & 0x3f) | 0x80
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`
}

/**
 * Keeps entries that are not stored yet, over a closed tab and a lost network, and sends them in order until the server
 * has said what became of each.
 */
export class Outbox {
  private sending = false
  private again: ReturnType<typeof setTimeout> | undefined
  private failures = 0
  private nextOrder = Date.now()
  private shownUpTo = -1

  constructor(
    /** Which entries of this browser's file are this outbox's. */
    private readonly lesson: string,
    private readonly post: (entries: { id: string; happenedAt: number; act: Act }[]) => Promise<Schemas['WriteResult']>,
    private readonly changed: (noted: readonly Noted[]) => void,
    private readonly told: (state: 'stored' | 'away' | 'signedOut', position?: number) => void,
  ) {}

  private noted: Noted[] = []

  /** Picks up what an earlier tab left behind. */
  async wake() {
    const left = await (await open()).getAllFromIndex('noted', 'lesson', this.lesson)
    const here = new Set(this.noted.map((n) => n.id))
    this.set([...left.filter((n) => !here.has(n.id)), ...this.noted].sort((a, b) => a.order - b.order))
    void this.send()
  }

  /** Notes entries: on screen at once, in the browser's own file next, then out. */
  async add(entries: { id: string; happenedAt: number; act: Act }[]) {
    // As it will be sent: what a form still holds on to could change, and could not be kept.
    const added = entries.map(({ act, ...entry }) => ({
      ...entry,
      act: JSON.parse(JSON.stringify(act)) as Act,
      lesson: this.lesson,
      order: this.nextOrder++,
    }))
    this.set([...this.noted, ...added])
    const write = (await open()).transaction('noted', 'readwrite')
    const put = added.map((entry) => write.store.put(entry))
    // At once, not when the browser gets round to it: the tab may be closed next.
    write.commit()
    await Promise.all([...put, write.done])
    void this.send()
  }

  /** A refused entry that was read can go. */
  async dismiss(id: string) {
    this.set(this.noted.filter((n) => n.id !== id))
    await (await open()).delete('noted', id)
  }

  /** The sheet shows everything up to this position: what it holds need not be drawn over it. */
  shown(position: number) {
    this.shownUpTo = position
    if (this.noted.some((n) => n.storedAt !== undefined && n.storedAt <= position))
      this.set(this.noted.filter((n) => n.storedAt === undefined || n.storedAt > position))
  }

  /** Tries at once instead of at the next turn. */
  hurry() {
    clearTimeout(this.again)
    void this.send()
  }

  close() {
    clearTimeout(this.again)
    this.sending = true
  }

  private set(noted: Noted[]) {
    this.noted = noted
    this.changed(noted)
  }

  private async send() {
    if (this.sending) return
    this.sending = true
    try {
      for (;;) {
        const waiting = this.noted.filter((n) => !n.refused && n.storedAt === undefined).slice(0, mostAtOnce)
        if (waiting.length === 0) break
        await this.deliver(waiting)
        this.failures = 0
      }
      this.told('stored')
    } catch (problem) {
      this.failures++
      this.told(problem instanceof Problem && problem.status === 401 ? 'signedOut' : 'away')
      this.again = setTimeout(() => void this.send(), Math.min(5000, 300 * 2 ** this.failures))
    } finally {
      this.sending = false
    }
  }

  private async deliver(waiting: Noted[]) {
    const result = await this.post(waiting.map(({ id, happenedAt, act }) => ({ id, happenedAt, act })))
    const why = new Map(result.refused.map((r) => [r.id, r.why]))
    const accepted = new Set(result.accepted)
    const write = (await open()).transaction('noted', 'readwrite')
    for (const entry of waiting) {
      if (accepted.has(entry.id)) void write.store.delete(entry.id)
      else if (why.has(entry.id)) void write.store.put({ ...entry, refused: why.get(entry.id)! })
    }
    await write.done
    this.set(
      this.noted.map((n) =>
        accepted.has(n.id)
          ? { ...n, storedAt: result.position }
          : why.has(n.id)
            ? { ...n, refused: why.get(n.id)! }
            : n,
      ),
    )
    // The patch may have come before this answer.
    this.shown(this.shownUpTo)
    this.told('stored', result.position)
  }
}
