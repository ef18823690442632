import { computed, effectScope, onScopeDispose, ref, shallowRef, watch, type EffectScope } from 'vue'
import type { Schemas } from '../api/client'
import { keepConnected } from '../live/hubConnection'
import { ServerTime } from '../live/serverTime'
import { mayPass, pauseAfter } from '../live/tryAgain'
import { ballotOf, keepBallot } from './ballots'
import { callPage } from './call'

export type Doing = Omit<Schemas['PageAct'], 'id'>
export type PageQuestion = Schemas['PageQuestion']

interface Waiting {
  id: string
  act: Doing
}
const beat = 500

/** Somebody's page of one lesson, kept in step with it; what was done while there was no connection goes out when there is one. */
export function usePage(code: string) {
  const lesson = shallowRef<Schemas['PageLesson']>()
  const own = shallowRef<Schemas['PageOwn']>()
  const now = ref(Date.now())
  const door = ref<'asking' | 'closed' | 'open'>('asking')
  const byName = ref(false)
  const problem = ref('')
  const away = ref(false)
  const waiting = ref<Waiting[]>([])
  const time = new ServerTime()
  let failures = 0
  let sending = false
  // How often what concerns the student was told: an answer to what was asked before that is out of date.
  let told = 0

  const kept = `polite-tally-waiting-${code}`
  function castAgain() {
    for (const q of own.value?.questions ?? []) {
      const ballot = q.anonymous ? ballotOf(q.asking) : null
      if (ballot?.answer && !q.open) keepBallot(q.asking, { ...ballot, answer: undefined })
      else if (ballot?.answer && !q.answered && !waiting.value.some((w) => w.act.asking === q.asking))
        act({ doing: 'answer', asking: q.asking, answer: ballot.answer } as Doing)
    }
  }

  async function call<T>(path: string, body?: unknown) {
    const called = await callPage<T>(code, path, body)
    failures = mayPass(called.status) ? failures + 1 : 0
    return called
  }

  const later = (what: () => Promise<void>) => setTimeout(() => void what(), pauseAfter(failures))

  function show(view: Schemas['PageView']) {
    time.heard(view.now)
    lesson.value = view.lesson ?? undefined
    own.value = view.own
    door.value = 'open'
    away.value = false
    castAgain()
  }

  async function load(): Promise<void> {
    const before = told
    const { status, data } = await call<Schemas['PageView']>('')
    if (data && told !== before) return load()
    if (data) {
      show(data)
      void send()
    } else if (mayPass(status)) {
      away.value = true
      later(load)
    } else await ask()
  }

  /** Nobody is known here: what it takes to come in. */
  async function ask() {
    own.value = undefined
    const { status, data, detail } = await call<Schemas['PageDoor']>('/door')
    if (data) {
      byName.value = data.byName
      door.value = 'closed'
    } else if (mayPass(status) && status !== 429) later(ask)
    else {
      problem.value = detail
      door.value = 'closed'
    }
  }

  async function enter(pass: string | null, name: string | null, remember: boolean) {
    problem.value = ''
    const { data, detail } = await call<Schemas['PageView']>('/enter', { pass, name, remember })
    if (!data) {
      problem.value = detail || 'That did not work. Try once more.'
      return
    }
    show(data)
  }

  async function leave() {
    await call('/leave', {})
    sessionStorage.clear()
    localStorage.removeItem(kept)
    waiting.value = []
    await ask()
  }

  function keep() {
    // An anonymous answer is not kept on the device, only in this tab.
    const named = waiting.value.filter((w) => !isAnonymous(w.act))
    if (named.length) localStorage.setItem(kept, JSON.stringify(named))
    else localStorage.removeItem(kept)
  }
  const isAnonymous = (act: Doing) => !!own.value?.questions.find((q) => q.asking === act.asking)?.anonymous

  function act(doing: Doing) {
    problem.value = ''
    const isBallot = doing.doing === 'answer' && isAnonymous(doing)
    const ballot = isBallot ? ballotOf(doing.asking!) : null
    const id = ballot?.id ?? crypto.randomUUID()
    if (isBallot) keepBallot(doing.asking!, { ...ballot, id, answer: doing.answer })
    // Of two answers to one question that wait, the later is meant.
    const before = waiting.value.filter((w) => !(doing.asking && w.act.asking === doing.asking))
    waiting.value = [...before, { id, act: doing }]
    keep()
    void send()
  }

  async function send() {
    if (sending) return
    sending = true
    while (waiting.value.length) {
      const next = waiting.value[0]!
      const { status, data, detail } = await call<Schemas['PageOwn']>('/acts', { id: next.id, ...next.act })
      if (mayPass(status)) {
        away.value = true
        later(send)
        break
      }
      away.value = false
      waiting.value = waiting.value.filter((w) => w.id !== next.id || w.act !== next.act)
      keep()
      const ballot = next.act.asking ? ballotOf(next.act.asking) : null
      const cast = ballot?.id === next.id ? ballot : null
      if (data) {
        own.value = data
        told++
        if (cast) keepBallot(next.act.asking!, { ...cast, taken: true })
      } else if (status === 401) await ask()
      else {
        problem.value = detail
        // What was refused is not sent again by itself.
        if (cast) keepBallot(next.act.asking!, { ...cast, answer: undefined })
      }
    }
    sending = false
  }

  const heard = {
    lesson: (next: Schemas['PageLesson']) => (lesson.value = next),
    own: (next: Schemas['PageOwn']) => {
      own.value = next
      told++
      castAgain()
    },
  }
  let line: EffectScope | undefined
  // Anew whenever somebody comes in: the hub knows by the cookie who it is.
  function connect() {
    line?.stop()
    line = effectScope(true)
    line.run(() =>
      keepConnected('/page/live', heard, (invoke) => invoke('Watch', code).then(load, ask), {
        lost: () => (away.value = true),
        seldom: true,
      }),
    )
  }
  watch(door, () => (door.value === 'open' ? connect() : line?.stop()), { flush: 'sync' })
  // By hand: the library for it weighs more than all of this page.
  const ticking = setInterval(() => (now.value = time.now()), beat)
  const online = () => void send()
  window.addEventListener('online', online)
  onScopeDispose(() => {
    line?.stop()
    clearInterval(ticking)
    window.removeEventListener('online', online)
  })

  if (code) {
    waiting.value = JSON.parse(localStorage.getItem(kept) ?? '[]') as Waiting[]
    void load()
  }

  const waits = (doing: Schemas['PageDoing']) => waiting.value.some((w) => w.act.doing === doing)
  return {
    lesson,
    own,
    now,
    door,
    byName,
    problem,
    away,
    act,
    enter,
    leave,
    waits,
    /** The answer to a question that is on its way. */
    onItsWay: (asking: string) => waiting.value.find((w) => w.act.asking === asking)?.act,
    /** What was written and is on its way. */
    writing: computed(() => waiting.value.filter((w) => w.act.doing === 'write')),
    /** Whether an anonymous question was answered from this tab; it alone can change the answer, and knows of it when all are counted. */
    answeredHere: (asking: string) => ballotOf(asking)?.taken === true,
    handUp: computed(() => (waits('raiseHand') || waits('sayReady') || !!own.value?.hand) && !waits('lowerHand')),
  }
}
