<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { count, hour, minutes, shortDay } from '../../ui/format'
import { callTo, cameOf, channels, channelWords, isUnwritten, useReaching, type Channel } from '../reaching/reaching'
import WriteMessage from '../reaching/WriteMessage.vue'
import SidePanel from './SidePanel.vue'

/** The missing: what is known of them, a message with the way in, and a note of every attempt. */
const props = defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const { head, drawn, note, minute, serverTime } = useLive()
const { data, missing, message, writing, problem, sending, write, refresh } = useReaching(props.id, serverTime)
watch(() => head.value?.position, refresh)

const opened = ref<string>()
const unwritten = computed(() => missing.value.filter((m) => isUnwritten(m) && isMissing(m.student)))
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

const onlineWords = { online: 'online', away: 'online, away', offline: 'not online' } as const

const tried = (student: string, channel: Channel, outcome: 'reached' | 'noAnswer') => {
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
          >{{ i ? ', ' : '' }}{{ shortDay(need.start) }} {{ cameOf(need.outcome) }}</template
        >
      </p>
      <p v-for="(a, i) in m.attempts" :key="i">
        {{ hour(a.at) }} {{ channelWords[a.channel] }}, {{ cameOf(a.outcome, data?.toOutbox) }} {{ a.note }}
      </p>
      <p v-if="m.phone">
        <a class="quiet" :href="callTo(m.phone)">{{ m.phone }}</a>
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
      <WriteMessage
        v-if="writing"
        v-model="message"
        :to="writing.map(toWhom).join(', ')"
        :sending="sending"
        :to-outbox="!!data?.toOutbox"
        :link="head?.meetingLink ?? null"
        @send="write(writing!)"
        @leave="writing = undefined"
      />
      <p v-if="problem" role="alert" class="text-small">{{ problem }}</p>
    </template>
  </SidePanel>
</template>
