import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { entryId } from '../../live/outbox'

/** By what somebody is tried to be reached, besides a message that goes from here. */
export const channels = { phone: 'call', message: 'message', somebody: 'through somebody' } as const
export const channelWords = { email: 'e-mail', ...channels } as const
export type Channel = keyof typeof channels

const outcomeWords = { sent: 'sent', reached: 'reached', noAnswer: 'no answer', failed: 'could not go' } as const

/** What came of an attempt, in words. */
export const cameOf = (outcome: Schemas['ContactOutcome'], toOutbox = false) =>
  outcome === 'sent' && toOutbox ? 'in the outbox' : outcomeWords[outcome]

/** Whether somebody has an address, and nobody has written to them in this lesson yet. */
export const isUnwritten = ({ addresses, attempts }: Schemas['MissingStudent']) =>
  addresses.length > 0 && !attempts.some((a) => a.channel === 'email')

/** What calls a number: its digits alone. */
export const callTo = (phone: string) => `tel:${phone.replace(/[^+0-9]/g, '')}`

/** Who is missing from a lesson, and a message that goes to some of them. */
export function useReaching(lesson: string, now: () => number) {
  const queries = useQueryClient()
  const key = ['reaching', lesson]
  const path = { id: lesson }
  const { data } = useQuery({
    queryKey: key,
    queryFn: () => ask(api.GET('/api/lessons/{id}/reaching', { params: { path } })),
  })
  const message = ref({ subject: '', text: '' })
  watch(data, (view) => {
    if (view && !message.value.text) message.value = { subject: view.subject, text: view.text }
  })
  /** To whom the message that is looked at goes; undefined while none is. */
  const writing = ref<string[]>()
  const problem = ref('')
  const sending = ref(false)
  // The ids are made once for a message, so that pressing again after a lost answer sends nothing twice.
  let pending: { id: string; student: string }[] = []

  async function write(students: string[]) {
    const wanted = pending.map((p) => p.student).join() === students.join()
    if (!wanted) pending = students.map((student) => ({ id: entryId(now()), student }))
    sending.value = true
    problem.value = ''
    try {
      const body = { messages: pending, ...message.value }
      queries.setQueryData(key, await ask(api.POST('/api/lessons/{id}/reaching', { params: { path }, body })))
      pending = []
      writing.value = undefined
    } catch (failure) {
      problem.value = (failure as Error).message
    } finally {
      sending.value = false
    }
  }

  return {
    data,
    missing: computed(() => data.value?.missing ?? []),
    message,
    writing,
    problem,
    sending,
    write,
    refresh: () => void queries.invalidateQueries({ queryKey: key }),
  }
}
