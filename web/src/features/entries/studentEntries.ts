import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask } from '../../api/client'
import { noteOne } from '../../live/noteOne'
import { strikeOf, type Act } from '../../live/outbox'
import { ServerTime } from '../../live/serverTime'

/** All that was noted of one student in one lesson, and how any of it is put right: at once, or with what the server says against it. */
export function useStudentEntries(lesson: string, student: string) {
  const queries = useQueryClient()
  const time = new ServerTime()
  const problem = ref('')
  const path = { id: lesson, student }
  const {
    data: list,
    error,
    refetch,
  } = useQuery({
    queryKey: ['entries', lesson, student],
    queryFn: async () => {
      const found = await ask(api.GET('/api/lessons/{id}/students/{student}/entries', { params: { path } }))
      time.heard(found.now)
      return found
    },
  })

  /** Notes an act as of a moment, or of now. */
  async function note(act: Act, at = time.note()) {
    problem.value = ''
    try {
      problem.value = (await noteOne(lesson, act, at)).refused ?? ''
      await queries.invalidateQueries()
    } catch (failure) {
      problem.value = (failure as Error).message
    }
  }

  return {
    list,
    problem: computed(() => problem.value || error.value?.message),
    note,
    strike: (...entries: string[]) => note(strikeOf(entries)),
    now: time.now,
    again: () => void refetch(),
  }
}
