<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, watch } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { entryId } from '../../live/outbox'
import { count, hour, minutes, shortDay } from '../../ui/format'
import SidePanel from './SidePanel.vue'

/** The missing: what is known of them, a message with the way in, and a note of every attempt. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const { head, drawn, note, minute, serverTime } = useLive()
const queries = useQueryClient()
const key = computed(() => ['reaching', props.id])
const { data } = useQuery({
  queryKey: key,
  queryFn: () => ask(api.GET('/api/lessons/{id}/reaching', { params: { path: { id: props.id } } })),
})
watch(
  () => head.value?.position,
  () => void queries.invalidateQueries({ queryKey: key.value }),
)

const subject = ref('')
const text = ref('')
watch(data, (view) => {
  if (!view || text.value) return
  subject.value = view.subject
  text.value = view.text
})
/** To whom the message that is looked at goes; undefined while none is. */
const writing = ref<string[]>()
const problem = ref('')
const sending = ref(false)
const opened = ref<string>()
const missing = computed(() => data.value?.missing ?? [])
const unwritten = computed(() =>
  missing.value.filter(
    (m) => m.addresses.length && isMissing(m.student) && !m.attempts.some((a) => a.channel === 'email'),
  ),
)
/** When we saw them last ourselves, before what anybody else knew a while ago. */
function seenLast(student: string) {
  const row = drawn.value?.rows.find((r) => r.id === student)
  if (!row) return ''
  const until = row.stretches.at(-1)?.to ?? row.since
  const seen = until === null ? 'not seen in this lesson' : `left ${hour(until)}`
  return row.page ? `${seen}, page open` : seen
}
const isMissing = (student: string) => {
  const row = drawn.value?.rows.find((r) => r.id === student)
  return !row || ['missing', 'left'].includes(row.whereabouts)
}

const channels = { phone: 'call', message: 'message', somebody: 'through somebody' } as const
const outcomeWords = { sent: 'sent', reached: 'reached', noAnswer: 'no answer', failed: 'could not go' } as const
const channelWords = { email: 'e-mail', ...channels } as const
const onlineWords = { online: 'online', away: 'online, away', offline: 'not online' } as const

// The ids are made once for a message, so that pressing again after a lost answer sends nothing twice.
let pending: { id: string; student: string }[] = []
async function write(students: string[]) {
  const wanted = pending.map((p) => p.student).join() === students.join()
  if (!wanted) pending = students.map((student) => ({ id: entryId(serverTime()), student }))
  sending.value = true
  problem.value = ''
  try {
    const view = await ask(
      api.POST('/api/lessons/{id}/reaching', {
        params: { path: { id: props.id } },
        body: { messages: pending, subject: subject.value, text: text.value },
      }),
    )
    queries.setQueryData(key.value, view)
    pending = []
    writing.value = undefined
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    sending.value = false
  }
}
const tried = (student: string, channel: keyof typeof channels, outcome: 'reached' | 'noAnswer') => {
  note({ type: 'contactTried', student, channel, outcome, note: '' })
  opened.value = undefined
}
const nameOf = (student: string) => drawn.value?.rows.find((r) => r.id === student)?.shortName ?? 'a student'
/** Their name, and that it goes to two places where it does. */
const toWhom = (student: string) =>
  (missing.value.find((m) => m.student === student)?.addresses.length ?? 0) > 1
    ? `${nameOf(student)} (both addresses)`
    : nameOf(student)
const last = (m: Schemas['MissingStudent']) => m.attempts.at(-1)
</script>

<template>
  <SidePanel title="Missing" @close="emit('close')">
    <p v-if="data && !missing.length" class="py-2 text-ink-soft">Everybody is here.</p>
    <div v-for="m in missing" :key="m.student" class="border-b border-rule py-1.5 text-small">
      <p class="flex items-baseline justify-between gap-2">
        <span class="truncate text-base"
          ><b>{{ m.called }}</b> {{ m.rest }}</span
        >
        <span class="shrink-0 text-ink-soft">{{ isMissing(m.student) ? '' : 'came' }}</span>
      </p>
      <p v-if="isMissing(m.student)">{{ seenLast(m.student) }}</p>
      <p v-if="m.online" class="text-ink-soft">
        {{ onlineWords[m.online.status] }} {{ minutes(minute - m.online.at) }} ago <i>(may be out of date)</i>
      </p>
      <p v-if="m.earlier.length" class="text-ink-soft">
        before:
        <template v-for="(need, i) in m.earlier.slice(0, 3)" :key="need.number"
          >{{ i ? ', ' : '' }}{{ shortDay(need.start) }} {{ outcomeWords[need.outcome] }}</template
        >
      </p>
      <p v-for="(a, i) in m.attempts" :key="i">
        {{ hour(a.at) }} {{ channelWords[a.channel] }},
        {{ a.outcome === 'sent' && data?.toOutbox ? 'in the outbox' : outcomeWords[a.outcome] }} {{ a.note }}
      </p>
      <p v-if="m.phone">
        <a class="quiet" :href="`tel:${m.phone.replace(/[^+0-9]/g, '')}`">{{ m.phone }}</a>
      </p>
      <p class="flex flex-wrap gap-x-3">
        <button v-if="m.addresses.length" class="quiet" @click="writing = [m.student]">
          {{ last(m)?.channel === 'email' ? 'write again' : 'write' }}
        </button>
        <i v-else class="text-ink-soft">no e-mail address</i>
        <button
          class="quiet"
          :aria-expanded="opened === m.student"
          @click="opened = opened === m.student ? undefined : m.student"
        >
          note an attempt
        </button>
      </p>
      <div v-if="opened === m.student" class="mt-1 border-l-2 border-ink pl-2">
        <p v-for="(word, channel) in channels" :key="channel" class="flex gap-x-3">
          <span class="flex-1">{{ word }}</span>
          <button class="quiet" @click="tried(m.student, channel, 'reached')">reached</button>
          <button class="quiet" @click="tried(m.student, channel, 'noAnswer')">no answer</button>
        </p>
      </div>
    </div>
    <template v-if="missing.length">
      <p v-if="!writing && unwritten.length" class="mt-2 text-small">
        <button class="press" @click="writing = unwritten.map((m) => m.student)">
          Write to {{ count(unwritten.length, 'student') }}…
        </button>
      </p>
      <form v-if="writing" class="mt-2 text-small" @submit.prevent="write(writing)">
        <p class="font-semibold">To {{ writing.map(toWhom).join(', ') }}</p>
        <input v-model="subject" class="field" aria-label="Subject" />
        <textarea v-model="text" class="field" rows="9" aria-label="Message" />
        <p class="flex gap-x-4">
          <button class="press-first" :disabled="sending">{{ sending ? 'Sending…' : 'Send it' }}</button>
          <button type="button" class="quiet" @click="writing = undefined">not now</button>
        </p>
        <p v-if="data?.toOutbox" class="pt-1 text-ink-soft italic">
          No mail server is set up: it lies in the outbox until somebody sends it.
        </p>
      </form>
      <p v-if="problem" role="alert" class="text-small">{{ problem }}</p>
    </template>
  </SidePanel>
</template>
