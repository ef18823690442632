import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, shallowRef, watch } from 'vue'
import { api, ask } from '../../api/client'
import { drawChat } from '../../live/chat'
import { useLive } from '../../live/lesson'
import type { Noted } from '../../live/outbox'

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
  // What the sheet shows already the chat, asked for a moment later, may not: until it does, it is not dropped, or messages would jump back for a moment.
  const position = () => data.value?.position ?? 0
  const isAhead = (n: Noted) => n.storedAt !== undefined && n.storedAt > position()
  const held = shallowRef<readonly Noted[]>([])
  watch(
    noted,
    (now, before) => {
      const left = before.filter((n) => !now.some((m) => m.id === n.id))
      held.value = [...held.value, ...left].filter(isAhead)
    },
    { flush: 'sync' },
  )
  return computed(() => drawChat(data.value?.messages ?? [], [...held.value.filter(isAhead), ...noted.value]))
}
