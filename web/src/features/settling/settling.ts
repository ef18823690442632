import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { entriesOf, strikeOf, type Act } from '../../live/outbox'
import { inTurn } from '../../ui/inTurn'

/** What is noted if something is answered, and when that happened; a decision has no moment. */
export interface Answer {
  acts: Act[]
  at?: number | null
}

/** A lesson while it is settled: what it says, how it stands with its register, and how something is noted of it. */
export function useSettling(id: string) {
  const queries = useQueryClient()
  const path = { id }
  const settling = useQuery({
    queryKey: ['settling', id],
    queryFn: () => ask(api.GET('/api/lessons/{id}/settling', { params: { path } })),
    // Another window may settle it as well; its end may still be on the way.
    refetchInterval: (query) => (query.state.data?.lesson.stage === 'live' ? 1500 : 5000),
  })
  const register = useQuery({
    queryKey: ['settling', id, 'register'],
    queryFn: () => ask(api.GET('/api/lessons/{id}/register', { params: { path } })),
    refetchInterval: 5000,
  })
  const view = computed(() => settling.data.value)
  const problem = ref<string>()
  const onTheirWay = ref(0)
  const next = inTurn()
  const lastWord = ref<{ entries: string[]; text: string }>()
  const serverNow = () => (view.value ? view.value.now + Date.now() - settling.dataUpdatedAt.value : Date.now())

  async function attempt(action: () => Promise<void>) {
    problem.value = undefined
    onTheirWay.value++
    try {
      await action()
    } catch (failure) {
      problem.value = (failure as Error).message
    } finally {
      onTheirWay.value--
    }
  }

  const taken = (changed: Schemas['SettlingView']) => queries.setQueryData(['settling', id], changed)

  /** Notes answers, each with its moment if it has one, as one press, and says what the server refused. */
  const noteAll = (answers: Answer[], text: string) =>
    attempt(async () => {
      // As of the server's own clock: a decision has no moment in the lesson.
      const now = Math.min(Date.now(), serverNow())
      const each = answers.flatMap(({ acts, at }) => entriesOf(acts, at ?? now))
      const entries = each.map((e) => ({ ...e, together: each.length > 1 ? each[0]!.id : null }))
      // A key pressed while the answer before is on its way counts too, and after that one.
      const { refused } = await next((signal) =>
        ask(api.POST('/api/lessons/{id}/entries', { params: { path }, body: { entries }, signal })),
      )
      if (refused[0]) problem.value = refused[0].why
      else lastWord.value = { entries: entries.map((e) => e.id), text }
      await queries.invalidateQueries()
    })

  const note = (acts: Act[], text: string) => noteAll([{ acts, at: null }], text)

  async function takeBack() {
    const last = lastWord.value
    if (last) await note([strikeOf(last.entries)], '')
    lastWord.value = undefined
  }

  /** Hands the register in, once: with how many hand-ins this window knows, so that two windows do not send two. */
  const handIn = (way: Schemas['HandInWay'], why: string) =>
    attempt(async () => {
      const after = register.data.value?.handIns[0]?.version ?? 0
      const stands = await ask(api.POST('/api/lessons/{id}/register', { params: { path }, body: { way, why, after } }))
      queries.setQueryData(['settling', id, 'register'], stands)
    })

  const again = ({ name, beside }: Schemas['NameLine']) =>
    attempt(async () => {
      const body = { name, beside, student: null, notAStudent: false }
      taken(await ask(api.PUT('/api/lessons/{id}/names', { params: { path }, body })))
    })

  return {
    settling,
    view,
    stands: register.data,
    problem,
    busy: computed(() => onTheirWay.value > 0),
    lastWord,
    taken,
    note,
    noteAll,
    takeBack,
    handIn,
    again,
  }
}
