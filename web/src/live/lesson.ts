import { computed, inject, onScopeDispose, ref, shallowRef, type InjectionKey } from 'vue'
import { api, ask, Problem, type Schemas } from '../api/client'
import { keepConnected } from './hubConnection'
import { patched } from './patch'
import type { View } from './drawn'
import { draw } from './pencil'
import { entriesOf, Outbox, strikeOf, type Act, type Noted } from './outbox'
import { ServerTime } from './serverTime'

/**
 * A lesson that is going on, in this window: the server's sheet, kept in step by patches, with this browser's own
 * entries drawn over it.
 */
export function useLesson(lesson: string) {
  const view = shallowRef<View>()
  const noted = shallowRef<readonly Noted[]>([])
  const problem = ref<string>()
  const away = ref<'no' | 'away' | 'signedOut'>('no')
  /** Entries are kept nowhere but in this window: they go out, and would be gone with the tab. */
  const unkept = ref(false)
  const now = ref(Date.now())
  // Entries carry right times however wrong the clock of this machine is.
  const time = new ServerTime()

  const outbox = new Outbox(
    lesson,
    (entries) => ask(api.POST('/api/lessons/{id}/entries', { params: { path: { id: lesson } }, body: { entries } })),
    (list) => (noted.value = list),
    (state, position) => {
      if (state === 'unkept') unkept.value = true
      else away.value = state === 'stored' ? 'no' : state
      if (position !== undefined) setTimeout(() => void catchUpTo(position), 250)
    },
  )

  function show(next: View) {
    time.heard(next.head.now)
    view.value = next
    outbox.shown(next.head.position)
  }

  async function load() {
    try {
      show(await ask(api.GET('/api/lessons/{id}/live', { params: { path: { id: lesson } } })))
      problem.value = undefined
    } catch (failure) {
      if (failure instanceof Problem && failure.status === 0) setTimeout(load, 1000)
      if (!view.value) problem.value = (failure as Error).message
    }
  }

  function patch(change: Schemas['LivePatch']) {
    if (!view.value) return
    const next = patched(view.value, change)
    if (next === 'gap') void catchUp()
    else if (next === 'unknown') void load()
    else if (next !== 'old') show(next)
  }

  async function catchUp() {
    const seen = view.value
    if (!seen) return load()
    const path = { id: lesson, position: seen.head.position }
    await ask(api.GET('/api/lessons/{id}/live/since/{position}', { params: { path } })).then(
      patch,
      (failure: unknown) => {
        if (failure instanceof Problem && failure.status === 401) away.value = 'signedOut'
      },
    )
  }

  /** Somebody signed in again in this window. */
  function signedInAgain() {
    away.value = 'no'
    outbox.hurry()
    void catchUp()
  }

  async function catchUpTo(position: number) {
    if (view.value && view.value.head.position < position) await catchUp()
  }

  const loaded = load()
  keepConnected(
    '/live',
    { patch },
    async (invoke) => {
      await invoke('Watch', lesson)
      await loaded
      await catchUp()
      outbox.hurry()
    },
    { lost: () => void catchUp() },
  )
  const ticking = setInterval(() => (now.value = time.now()), 1000)
  const online = () => outbox.hurry()
  window.addEventListener('online', online)
  onScopeDispose(() => {
    clearInterval(ticking)
    window.removeEventListener('online', online)
    outbox.close()
  })
  void outbox.wake()

  /** Notes acts as of now and returns the ids of their entries at once; storing follows. */
  function note(...acts: Act[]) {
    const at = time.note()
    now.value = at
    const entries = entriesOf(acts, at)
    void outbox.add(entries)
    return entries.map((entry) => entry.id)
  }

  const drawn = computed(() => (view.value ? draw(view.value, noted.value) : undefined))
  const head = computed(() => drawn.value?.head)
  const isOver = computed(() => head.value?.stage === 'ended' || head.value?.stage === 'settled')
  // When the lesson is over its time stands still: who waited then waits no longer.
  const moment = computed(() => (isOver.value && head.value?.endedAt) || now.value)
  // What is shown in minutes is drawn anew every quarter of a minute, not every second: a large class has many rows.
  const minute = computed(() => Math.floor(moment.value / 15_000) * 15_000)

  return {
    head,
    /** The lesson has ended, if only in pencil: what is noted then is not undone in passing. */
    isOver,
    drawn,
    problem,
    away,
    unkept,
    now: moment,
    minute,
    noted,
    /** The time by the server's clock. */
    serverTime: time.now,
    waiting: computed(() => noted.value.filter((n) => !n.refused && n.storedAt === undefined).length),
    note,
    /** Strikes out entries, all of them together; of strikes, it puts back what they struck out. */
    strike: (...entries: string[]) => note(strikeOf(entries)),
    /** Done when all that was noted so far is stored; throws if it cannot be. */
    stored: () => outbox.stored(),
    signedInAgain,
    dismiss: (entry: string) => void outbox.dismiss(entry),
    /** Strikes out what the teacher's newest press noted that still stands. */
    undo() {
      if (isOver.value) return undefined
      const last = drawn.value?.entries.find((e) => e.state !== 'struck' && e.canStrike && !e.helper)
      if (last) note(strikeOf(last.entries))
      return last
    },
  }
}

export type LiveLesson = ReturnType<typeof useLesson>

const key: InjectionKey<LiveLesson> = Symbol('the lesson of this window')
export const liveLesson = key

/** The lesson of the window, for the parts of the live screen. */
export const useLive = () => inject(key)!
