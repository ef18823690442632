import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { useDone } from '../../ui/done'
import { count } from '../../ui/format'
import type { Rules } from '../ground-rules/rules'

const quiet = 40
const look = 500

/** The scheme of a class while it is changed: as it is, as it is to be, and what the change makes of everybody. */
export function useScheme(id: string) {
  const params = { path: { id } }
  const queries = useQueryClient()
  const { done, problem, tried } = useDone()
  const query = useQuery({
    queryKey: ['scheme', id],
    queryFn: () => ask(api.GET('/api/classes/{id}/scheme', { params })),
    // Scores that are due are reckoned beside everything else: the page says how far that has come.
    refetchInterval: (q) => (q.state.data?.lessons.some((l) => l.due) ? look : false),
  })
  const view = query.data
  const copy = (scheme: Schemas['Scheme']) => JSON.parse(JSON.stringify({ scheme })) as Rules

  /** The scheme as it is to be; it stands in a record of rules, as its fields do. */
  const rules = ref<Rules>()
  const why = ref('')
  const chosen = ref<string[]>([])
  const compared = ref<Schemas['SchemeCompared']>()
  const wrong = ref<string>()
  const known = ref(0)
  const stored = computed(() => view.value && copy(view.value.scheme))
  const changed = computed(() => JSON.stringify(rules.value) !== JSON.stringify(stored.value))
  const due = computed(() => view.value?.lessons.filter((l) => l.due).length ?? 0)

  function begin() {
    rules.value = copy(view.value!.scheme)
    chosen.value = view.value!.lessons.map((l) => l.id)
    known.value = view.value!.version
    why.value = ''
  }
  watch(view, (now) => now && !rules.value && begin(), { immediate: true })

  let asked = 0
  const compare = useDebounceFn(async () => {
    const mine = ++asked
    try {
      const body = { scheme: rules.value!.scheme, lessons: chosen.value }
      const answer = await ask(api.POST('/api/classes/{id}/scheme/try', { params, body }))
      if (mine !== asked) return
      compared.value = answer
      wrong.value = undefined
    } catch (failure) {
      if (mine === asked) wrong.value = (failure as Error).message
    }
  }, quiet)
  watch([rules, chosen, due], () => rules.value && void compare(), { deep: true, immediate: true })

  const send = (scheme: Schemas['Scheme'], reason: string, after: number, lessons: string[]) =>
    ask(api.POST('/api/classes/{id}/scheme', { params, body: { scheme, why: reason, after, lessons } }))

  /** Stores it, for lessons to come and for those settled ones that were chosen; one undo takes back all of it. */
  const store = (lessons: string[]) =>
    tried(async () => {
      const before = view.value!
      const result = await send(rules.value!.scheme, why.value, known.value, lessons)
      queries.setQueryData(['scheme', id], result.view)
      begin()
      const news = result.view.version > before.version
      return {
        said: [
          news ? `Version ${result.view.version} is in force from the next lesson on.` : '',
          result.lessons ? `${count(result.lessons, 'settled lesson')} scored by it.` : '',
        ].join(' '),
        undo: async () => {
          if (result.together) {
            const body = { together: result.together }
            await ask(api.POST('/api/classes/{id}/scheme/take-back', { params, body }))
          }
          if (news) await send(before.scheme, `version ${result.view.version} taken back`, result.view.version, [])
          queries.setQueryData(['scheme', id], await ask(api.GET('/api/classes/{id}/scheme', { params })))
          begin()
        },
      }
    })

  return { query, view, rules, stored, changed, why, chosen, compared, wrong, due, done, problem, begin, store }
}
