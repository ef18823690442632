<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Act } from '../../live/outbox'
import { count, hour, shortDay } from '../../ui/format'
import { callTo, cameOf, channels, channelWords, isUnwritten, useReaching, type Channel } from '../reaching/reaching'
import WriteMessage from '../reaching/WriteMessage.vue'

/** After the lesson: who was missing without an excuse or went early, what was tried, and what came of it. */
const props = defineProps<{ lesson: string; locked: boolean; position: unknown }>()
const emit = defineEmits<{ note: [act: Act, text: string] }>()
const { data, missing, message, writing, problem, sending, write, refresh } = useReaching(props.lesson, Date.now)
watch(() => props.position, refresh)

const noting = ref<string>()
const about = ref('')
const nameOf = (student: string) => {
  const m = missing.value.find((one) => one.student === student)
  return m ? `${m.called} ${m.rest}`.trim() : ''
}
const unwritten = computed(() => missing.value.filter(isUnwritten))

function tried(student: string, channel: Channel, outcome: 'reached' | 'noAnswer') {
  const act: Act = { type: 'contactTried', student, channel, outcome, note: about.value.trim() }
  emit('note', act, `${channels[channel]} to ${nameOf(student)} noted`)
  noting.value = undefined
  about.value = ''
}

function excuse(student: string) {
  emit(
    'note',
    { type: 'excuseRecorded', student, reason: about.value.trim() },
    `excuse for ${nameOf(student)} recorded`,
  )
  noting.value = undefined
  about.value = ''
}
</script>

<template>
  <section v-if="missing.length" aria-labelledby="contacts" class="no-print">
    <h2 id="contacts" class="head flex flex-wrap items-baseline justify-between">
      To be reached
      <button v-if="unwritten.length > 1" class="quiet font-normal" @click="writing = unwritten.map((m) => m.student)">
        write to all {{ unwritten.length }}
      </button>
    </h2>
    <ul>
      <li v-for="m in missing" :key="m.student" class="contact">
        <b>{{ m.called }} {{ m.rest }}</b>
        <span>
          {{ m.stands || 'came after all' }}
          <span v-if="m.earlier.length" class="block text-small text-ink-soft"
            >{{ count(m.earlier.length, 'lesson') }} before, last {{ shortDay(m.earlier[0]!.start) }}
            {{ cameOf(m.earlier[0]!.outcome) }}</span
          >
        </span>
        <span class="text-small">
          <span v-for="(a, i) in m.attempts" :key="i" class="block"
            >{{ hour(a.at) }} {{ channelWords[a.channel] }}, {{ cameOf(a.outcome, data?.toOutbox) }} {{ a.note }}</span
          >
          <i v-if="!m.attempts.length" class="text-ink-soft">nothing tried yet</i>
        </span>
        <span class="flex flex-wrap gap-x-4 justify-self-end">
          <a v-if="m.phone" class="quiet" :href="callTo(m.phone)">{{ m.phone }}</a>
          <button
            v-if="m.addresses.length"
            class="quiet"
            :aria-label="`Write to ${nameOf(m.student)}`"
            @click="writing = [m.student]"
          >
            write
          </button>
          <button
            class="quiet"
            :aria-label="`Note what came of it with ${nameOf(m.student)}`"
            :aria-expanded="noting === m.student"
            @click="noting = noting === m.student ? undefined : m.student"
          >
            note
          </button>
        </span>
        <div v-if="noting === m.student" class="col-span-full flex flex-wrap items-baseline gap-x-5 gap-y-1 pb-2">
          <input
            v-model="about"
            class="field w-[18rem]"
            placeholder="what was said, or the excuse"
            aria-label="What was said"
          />
          <span v-for="(word, channel) in channels" :key="channel"
            >{{ word }}: <button class="quiet" @click="tried(m.student, channel, 'reached')">reached</button>
            <button class="quiet ml-2" @click="tried(m.student, channel, 'noAnswer')">no answer</button></span
          >
          <button v-if="!locked" class="press" :disabled="!about.trim()" @click="excuse(m.student)">
            it is an excuse
          </button>
          <i v-else class="text-small text-ink-soft">open the lesson again to record an excuse</i>
        </div>
      </li>
    </ul>
    <WriteMessage
      v-if="writing"
      v-model="message"
      :to="writing.map(nameOf).join(', ')"
      :sending="sending"
      :to-outbox="!!data?.toOutbox"
      @send="write(writing!)"
      @leave="writing = undefined"
    />
    <p v-if="problem" role="alert" class="text-small">{{ problem }}</p>
  </section>
</template>

<style scoped>
.head {
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 3px;
  font-weight: 650;
}
.contact {
  display: grid;
  grid-template-columns: minmax(10rem, 1fr) minmax(12rem, 1.4fr) minmax(12rem, 1.4fr) auto;
  align-items: baseline;
  gap: 2px 18px;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}
@media (max-width: 60rem) {
  .contact {
    grid-template-columns: 1fr;
  }
  .contact > * {
    justify-self: start;
  }
}
</style>
