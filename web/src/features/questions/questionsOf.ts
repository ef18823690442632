import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, ask } from '../../api/client'
import { useLive } from '../../live/lesson'
import { usePlan } from '../plans/plan'

/** The questions of a lesson: those that were opened, the newest first, those that wait, and the one that is looked at. */
export function useQuestionsOf(id: string) {
  const { head, drawn } = useLive()
  const { plan, state: stored, catchUp } = usePlan(id)
  const queries = useQueryClient()

  const key = ['questions', id]
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET('/api/lessons/{id}/questions', { params: { path: { id: id } } })),
  })
  watch(
    () => [head.value?.position, head.value?.plan.version, drawn.value?.askings.map((a) => a.answered).join()],
    () => void queries.invalidateQueries({ queryKey: key }),
  )

  const lines = computed(() => [...(drawn.value?.askings ?? [])].reverse())
  /** To whom a question went; null is the whole class. */
  const hadBy = (question: string) => lines.value.filter((a) => a.question === question).map((a) => a.group)
  const groups = computed(() => drawn.value?.groups ?? [])
  /** What is prepared for groups waits until the class or each of its groups has had it. */
  const waiting = computed(
    () =>
      plan.value?.questions.filter((q) => {
        const had = hadBy(q.id)
        if (!had.length) return true
        return q.audience === 'group' && !had.includes(null) && groups.value.some((g) => !had.includes(g.id))
      }) ?? [],
  )
  const order = computed(() => [...lines.value.map((a) => a.asking), ...waiting.value.map((q) => q.id)])
  const at = ref<string>()
  const current = computed(
    () =>
      (at.value && order.value.includes(at.value) ? at.value : undefined) ??
      lines.value.find((a) => a.closedAt === null)?.asking ??
      waiting.value[0]?.id ??
      order.value[0],
  )
  const currentAsked = computed(() => data.value?.askings.find((a) => a.asking === current.value))
  const earlier = computed(() => data.value?.askings.find((a) => a.asking === currentAsked.value?.copyOf))
  const place = computed(() => plan.value?.questions.findIndex((q) => q.id === current.value) ?? -1)
  const isWaiting = computed(() => waiting.value.some((q) => q.id === current.value))
  const lackOf = (question: string) => data.value?.lacks.find((l) => l.question === question)?.what
  watch(
    () => head.value?.plan.version,
    () => void catchUp(head.value?.plan.version),
  )

  return {
    plan,
    stored,
    at,
    lines,
    waiting,
    groups,
    order,
    current,
    currentAsked,
    earlier,
    place,
    isWaiting,
    hadBy,
    lackOf,
  }
}
