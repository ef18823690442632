import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, watch } from 'vue'
import { api, ask } from '../../api/client'
import { drawChat } from '../../live/chat'
import { useLive } from '../../live/lesson'

/** The chat of a lesson with this browser's own words on it, asked for as often as something changed. */
export function useChatMessages(lesson: string) {
  const { head, noted } = useLive()
  const queries = useQueryClient()
  const queryKey = ['chat', lesson]
  const { data } = useQuery({
    queryKey,
    queryFn: () => ask(api.GET('/api/lessons/{id}/chat', { params: { path: { id: lesson } } })),
  })
  watch(
    () => head.value?.position,
    () => void queries.invalidateQueries({ queryKey }),
  )
  return computed(() => drawChat(data.value?.messages ?? [], noted.value))
}
