import { Problem, type Schemas } from '../api/client'
import { Drawer } from './drawer'
import { mayPass, pauseAfter } from './tryAgain'

export type Act = Schemas['Act']

/** An entry that this browser noted. Pencilled until it is stored; refused ones stay, with the reason. */
export interface Noted {
  id: string
  lesson: string
  happenedAt: number
  act: Act
  /** Shared by what one press noted; null if it noted one act alone. */
  together: string | null
  /** Counts the entries of this browser, so that they go out in the order in which they were tapped. */
  order: number
  refused?: string
  /** The position of the ledger that holds it; drawn as ink until the sheet itself shows it. */
  storedAt?: number
}

const mostAtOnce = 100

/** What becomes of entries: stored, waiting for a connection or for somebody to sign in, or kept nowhere but in this window. */
export type OutboxState = 'stored' | 'away' | 'signedOut' | 'unkept'

/** Whether it is a matter of who is signed in. */
const isSignedOut = (status: number) => status === 401 || status === 403

/** A UUIDv7 (RFC 9562): made where the act was noted, so that sending it twice is harmless. */
export function entryId(now: number): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16))
  for (let i = 0; i < 6; i++) bytes[i] = Math.floor(now / 2 ** (8 * (5 - i))) % 256
  bytes[6] = (bytes[6]! & 0x0f) | 0x70
  bytes[8] = (bytes[8]! & 0x3f) | 0x80
  const hex = [...bytes].map((b) => b.toString(16).padStart(2, '0')).join('')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`
}

/** An entry as it is sent. */
export type Sent = Pick<Noted, 'id' | 'happenedAt' | 'act' | 'together'>

/** The entries of one press: what it notes together is taken back together. */
export function entriesOf(acts: readonly Act[], at: number): Sent[] {
  const together = acts.length > 1 ? entryId(at) : null
  return acts.map((act, i) => ({ id: entryId(at + i), happenedAt: Math.round(at), act, together }))
}

/** All entries that a strike is about. */
export const struckOf = (act: { entry: string; others?: readonly string[] | null }) => [
  act.entry,
  ...(act.others ?? []),
]

/** What this browser struck out and has not put back, by which strike; a strike comes after what it is about. */
export function struckIn(noted: readonly Noted[]) {
  const struck = new Map<string, string>()
  for (const { id, act, refused } of noted.toReversed())
    if (act.type === 'struck' && !refused && !struck.has(id)) for (const entry of struckOf(act)) struck.set(entry, id)
  return struck
}

/** The strike of all entries of a press. */
export const strikeOf = ([entry, ...others]: readonly string[]): Act => ({ type: 'struck', entry: entry!, others })

/**
 * Keeps entries that are not stored yet, over a closed tab and a lost network, and sends them in order until the server
 * has said what became of each.
 */
export class Outbox {
  private sending: Promise<Error | undefined> | undefined
  private closed = false
  private again: ReturnType<typeof setTimeout> | undefined
  private failures = 0
  private nextOrder = Date.now()
  private shownUpTo = -1

  constructor(
    /** Which entries of this browser's file are this outbox's. */
    private readonly lesson: string,
    private readonly post: (entries: Sent[]) => Promise<Schemas['WriteResult']>,
    private readonly changed: (noted: readonly Noted[]) => void,
    private readonly told: (state: OutboxState, position?: number) => void,
  ) {}

  private readonly drawer = new Drawer(() => this.told('unkept'))

  private noted: Noted[] = []

  /** Picks up what an earlier tab left behind. */
  async wake() {
    const left = await this.drawer.all(this.lesson)
    const here = new Set(this.noted.map((n) => n.id))
    this.set([...left.filter((n) => !here.has(n.id)), ...this.noted].sort((a, b) => a.order - b.order))
    void this.send()
  }

  /** Notes entries: on screen at once, in the browser's own file next, then out. */
  async add(entries: Sent[]) {
    // As it will be sent: what a form still holds on to could change, and could not be kept.
    const added = entries.map(({ act, ...entry }) => ({
      ...entry,
      act: JSON.parse(JSON.stringify(act)) as Act,
      lesson: this.lesson,
      order: this.nextOrder++,
    }))
    this.set([...this.noted, ...added])
    await this.drawer.change(added)
    void this.send()
  }

  /** A refused entry that was read can go. */
  async dismiss(id: string) {
    this.set(this.noted.filter((n) => n.id !== id))
    await this.drawer.change([], [id])
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
    this.closed = true
  }

  /** Done when all that was noted before has been answered: for what the server decides by what it has stored. Throws if it does not get there. */
  async stored() {
    while (!this.closed && this.waiting().length > 0) {
      const problem = await this.send()
      if (problem) throw problem
    }
  }

  private set(noted: Noted[]) {
    this.noted = noted
    this.changed(noted)
  }

  private readonly waiting = () => this.noted.filter((n) => !n.refused && n.storedAt === undefined)

  /** Gives what kept it from sending all. Whoever calls while it sends waits for the same. */
  private send() {
    return (this.sending ??= this.sendAll())
  }

  private async sendAll() {
    // Whoever began it has to know that it is going on before it can end.
    await Promise.resolve()
    try {
      while (!this.closed && this.waiting().length > 0) {
        await this.deliver(this.waiting().slice(0, mostAtOnce))
        this.failures = 0
        this.told('stored')
      }
      return undefined
    } catch (problem) {
      this.failures++
      this.told(problem instanceof Problem && isSignedOut(problem.status) ? 'signedOut' : 'away')
      this.again = setTimeout(() => void this.send(), pauseAfter(this.failures))
      return problem as Error
    } finally {
      this.sending = undefined
    }
  }

  private async deliver(waiting: Noted[]) {
    try {
      const sent = waiting.map(({ id, happenedAt, act, together }) => ({
        id,
        happenedAt,
        act,
        together: together ?? null,
      }))
      await this.settle(waiting, await this.post(sent))
    } catch (problem) {
      if (!(problem instanceof Problem) || mayPass(problem.status) || isSignedOut(problem.status)) throw problem
      // One that the server does not understand must not keep the others: each goes by itself, and that one is set aside.
      if (waiting.length > 1) for (const entry of waiting) await this.deliver([entry])
      else
        await this.settle(waiting, {
          position: -1,
          accepted: [],
          refused: [{ id: waiting[0]!.id, why: problem.message }],
        })
    }
  }

  private async settle(waiting: Noted[], result: Schemas['WriteResult']) {
    const why = new Map(result.refused.map((r) => [r.id, r.why]))
    const accepted = new Set(result.accepted)
    await this.drawer.change(
      waiting.filter((n) => why.has(n.id)).map((n) => ({ ...n, refused: why.get(n.id)! })),
      result.accepted,
    )
    this.set(
      this.noted.map((n) =>
        accepted.has(n.id)
          ? { ...n, storedAt: result.position }
          : why.has(n.id)
            ? { ...n, refused: why.get(n.id)! }
            : n,
      ),
    )
    // An answer that leaves something unsaid is none: it is asked for again, after a pause.
    if (!waiting.every((n) => accepted.has(n.id) || why.has(n.id))) throw new Problem('Not all was answered.', 0)
    // The patch may have come before this answer.
    this.shown(this.shownUpTo)
    if (result.position >= 0) this.told('stored', result.position)
  }
}
