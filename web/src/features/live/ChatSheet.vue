<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Act } from '../../live/outbox'
import { count } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import { digitOf } from '../../live/acts'
import { isOpen, kinds, waits, type Kind, type Message } from './chatKinds'
import ChatMessage from './ChatMessage.vue'
import ChatMessageSeen from './ChatMessageSeen.vue'

/**
 * The sweep: through the messages by keyboard, each with the kind it probably is. What is settled here counts; until then nothing does.
 */
const props = defineProps<{ messages: readonly Message[]; canNote: boolean; plain?: boolean }>()
const emit = defineEmits<{ note: [...acts: Act[]]; close: [] }>()

const shown = ref<'waiting' | 'all' | 'questions'>('waiting')
const byStudent = ref(false)
/** Only what was written in one stage; empty for all. */
const stage = ref('')
const at = ref<string>()
const list = ref<HTMLElement>()
const stages = computed(() => [...new Set(props.messages.flatMap((m) => (m.stage ? [m.stage] : [])))])
const lines = computed(() => {
  const chosen = props.messages.filter(
    (m) =>
      (shown.value === 'all' || (shown.value === 'questions' ? isOpen(m) : waits(m))) &&
      (!stage.value || m.stage === stage.value),
  )
  return byStudent.value ? [...chosen].sort((a, b) => a.who.localeCompare(b.who) || a.at - b.at) : chosen
})
const waiting = computed(() => props.messages.filter(waits).length)
const open = computed(() => props.messages.filter(isOpen).length)
/** Messages of the list whose kind is only proposed: one press takes all of them. */
const proposed = computed(() => lines.value.filter((m) => waits(m) && m.proposal !== 'unsorted' && !canPause(m)))
const takeProposals = () =>
  emit('note', ...proposed.value.map((m): Act => ({ type: 'chatSorted', message: m.entry, kind: m.proposal })))
const current = computed(() => lines.value.find((m) => m.entry === at.value) ?? lines.value[0])
/** Everything of the one whose message is looked at. */
const ofOne = computed(() =>
  props.messages.filter((m) => m.who === current.value?.who && m.entry !== current.value?.entry),
)

function move(step: number) {
  const index = lines.value.findIndex((m) => m.entry === current.value?.entry)
  at.value = lines.value[Math.max(0, Math.min(lines.value.length - 1, index + step))]?.entry
}
/** Settles a message; the one behind it is next. */
function settle(act: Act) {
  const index = lines.value.findIndex((m) => m.entry === current.value?.entry)
  const next = lines.value[index + 1] ?? lines.value[index - 1]
  emit('note', act)
  if (shown.value !== 'all' || act.type !== 'chatDealtWith') at.value = next?.entry
}
/** Somebody asks not to be called: that is noted of them, and the message is no contribution. */
const canPause = (m: Message) => m.cannotSpeak && !props.plain
function pause(m: Message) {
  if (m.student) emit('note', { type: 'speakingPaused', student: m.student, paused: true })
  sort('social')
}
const show = (m: Message, withoutName: boolean) => emit('note', { type: 'messageShown', message: m.entry, withoutName })
const sort = (kind: Kind) => current.value && settle({ type: 'chatSorted', message: current.value.entry, kind })
function onKey(event: KeyboardEvent) {
  const m = current.value
  const digit = digitOf(event)
  const kind = kinds.find((k) => k.key === digit)
  if (event.key === 'ArrowDown') move(1)
  else if (event.key === 'ArrowUp') move(-1)
  else if (event.key === '+' && props.canNote && proposed.value.length) takeProposals()
  else if (!m || !props.canNote) return false
  else if (kind) sort(kind.kind)
  else if ((event.key === 'Enter' || digit === '8') && canPause(m)) pause(m)
  else if (event.key === 'Enter') {
    if (m.proposal === 'unsorted') move(1)
    else sort(m.proposal)
  } else if (digit === '0' && isOpen(m)) settle({ type: 'chatDealtWith', message: m.entry })
  else if ((digit === '6' || digit === '7') && m.fromPage && !m.shown) show(m, digit === '7')
  else if (event.key === 'Delete') settle({ type: 'chatHidden', message: m.entry })
  else return false
  return true
}
watch(
  current,
  () => void nextTick(() => list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' })),
)
defineExpose({ onKey })
</script>

<template>
  <section class="chat" aria-label="Sweep the chat">
    <div class="rule-head">
      <h2>Chat</h2>
      <span class="flex flex-wrap gap-x-4 text-small font-normal">
        <button class="quiet" :aria-pressed="shown === 'waiting'" @click="shown = 'waiting'">
          {{ waiting }} to sweep
        </button>
        <button class="quiet" :aria-pressed="shown === 'questions'" @click="shown = 'questions'">
          {{ count(open, 'open question') }}
        </button>
        <button class="quiet" :aria-pressed="shown === 'all'" @click="shown = 'all'">all {{ messages.length }}</button>
        <button class="quiet" :aria-pressed="byStudent" @click="byStudent = !byStudent">by student</button>
        <select v-if="stages.length > 1" v-model="stage" class="quiet max-w-36" aria-label="Written in which stage">
          <option value="">in any stage</option>
          <option v-for="name in stages" :key="name" :value="name">in “{{ name }}”</option>
        </select>
        <button v-if="canNote && proposed.length" class="quiet font-semibold" @click="takeProposals">
          take {{ proposed.length === 1 ? 'the proposal' : `all ${proposed.length} proposals` }} <KeyCap k="+" />
        </button>
        <button v-if="!plain" class="quiet" @click="emit('close')">back to the sheet <KeyCap k="Esc" /></button>
      </span>
    </div>
    <div class="two">
      <ol ref="list" class="messages" tabindex="0" aria-label="Messages">
        <ChatMessage
          v-for="m in lines"
          :key="m.entry"
          :m="m"
          :here="m.entry === current?.entry"
          @click="at = m.entry"
        />
      </ol>
      <p v-if="!lines.length" class="py-6 text-ink-soft">
        {{
          shown === 'questions'
            ? 'No question is open.'
            : shown === 'all'
              ? 'Nothing was written yet. Messages come from the meeting, or by your taps.'
              : 'Everything is swept.'
        }}
      </p>
      <ChatMessageSeen
        v-if="current"
        :can-pause="canPause(current)"
        :m="current"
        :others="ofOne"
        :can-note="canNote"
        @sort="sort"
        @pause="pause(current)"
        @settle="settle"
        @show="(withoutName) => show(current!, withoutName)"
      />
    </div>
  </section>
</template>

<style scoped>
.chat {
  /* It stands beside a sheet and on the page of a helper: its own width counts. */
  container: chat / inline-size;
  display: flex;
  flex-direction: column;
  height: 100%;
}
.rule-head {
  flex: none;
}
[aria-pressed='true'] {
  font-weight: 700;
  text-decoration-color: var(--ink);
}
.two {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 270px;
  gap: 24px;
  flex: 1;
  min-height: 0;
}
.messages {
  overflow-y: auto;
}
@container chat (max-width: 780px) {
  .two {
    grid-template-columns: minmax(0, 1fr) 210px;
  }
}
@container chat (max-width: 640px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
