import { computed, effectScope, onScopeDispose, ref, shallowRef, watch } from 'vue'
import { api, ask, Problem, type Schemas } from '../api/client'
import { keepConnected } from './hubConnection'
import { entriesOf, Outbox, type Act, type Noted } from './outbox'
import { type DrawnHand } from './drawn'
import { drawChat } from './chat'
import { ServerTime } from './serverTime'

/**
 * A helper's window on a lesson: the key of the link is the right to it. What may be seen is asked for with the key; the hub only says that
 * something changed.
 */
export function useHelp(key: string) {
  const view = shallowRef<Schemas['HelpView']>()
  const noted = shallowRef<readonly Noted[]>([])
  const away = ref(false)
  const closed = ref('')
  const now = ref(Date.now())
  const time = new ServerTime()
  const headers = { Authorization: `Bearer ${key}` }

  const outbox = new Outbox(
    // One box for each key, so that nothing of one helper goes out under another's.
    `help ${key.slice(0, 12)}`,
    (entries) => ask(api.POST('/api/help/entries', { body: { entries }, headers })),
    (list) => (noted.value = list),
    (state, position) => {
      if (state !== 'unkept') away.value = state === 'away'
      if (position !== undefined && (view.value?.position ?? 0) < position) setTimeout(() => void load(), 100)
    },
  )

  async function load() {
    try {
      const next = await ask(api.GET('/api/help', { headers }))
      time.heard(next.now)
      if (next.position >= (view.value?.position ?? 0)) view.value = next
      outbox.shown(next.position)
      closed.value = ''
    } catch (failure) {
      if (failure instanceof Problem && failure.status === 401) closed.value = failure.message
      else if (!view.value) setTimeout(() => void load(), 1000)
    }
  }

  void load()
  const line = effectScope()
  line.run(() =>
    keepConnected('/help/live', { changed: () => void load() }, async (invoke) => {
      try {
        await invoke('Watch', key)
      } finally {
        // Whether the link was taken back meanwhile, only this says.
        await load()
      }
      outbox.hurry()
    }),
  )
  // A link that opens nothing any more is not asked again.
  watch(closed, (why) => {
    if (!why) return
    line.stop()
    outbox.close()
  })
  const ticking = setInterval(() => (now.value = time.now()), 1000)
  onScopeDispose(() => {
    clearInterval(ticking)
    outbox.close()
  })
  void outbox.wake()

  function note(...acts: Act[]) {
    const at = time.note()
    void outbox.add(entriesOf(acts, at))
  }

  /** The line with this browser's own hands on it. */
  const hands = computed(() => {
    let line: DrawnHand[] = (view.value?.hands ?? []).map((h) => ({ ...h, pencil: false }))
    for (const { id, act, refused, happenedAt } of noted.value) {
      if (refused) continue
      if (act.type === 'handRaised' && !line.some((h) => h.student === act.student))
        line.push({
          student: act.student,
          raisedAt: happenedAt,
          entry: id,
          lapsed: false,
          ready: act.ready ?? false,
          stranger: null,
          gone: false,
          pencil: true,
        })
      if (act.type === 'handEnded') line = line.filter((h) => h.student !== act.student)
    }
    return line
  })

  return {
    view,
    hands,
    messages: computed(() => drawChat(view.value?.chat?.messages ?? [], noted.value)),
    refused: computed(() => noted.value.filter((n) => n.refused)),
    waiting: computed(() => noted.value.filter((n) => !n.refused && n.storedAt === undefined).length),
    away,
    closed,
    now,
    note,
    dismiss: (id: string) => void outbox.dismiss(id),
  }
}
