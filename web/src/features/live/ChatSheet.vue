<script setup lang="ts">
import { computed, nextTick, ref, watch } from 'vue'
import type { Schemas } from '../../api/client'
import type { Act } from '../../live/outbox'
import { count, hour } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import { digitOf } from '../../live/acts'

/**
 * The sweep: through the messages by keyboard, each with the kind it probably is. What is settled here counts; until then nothing does.
 */
const props = defineProps<{ messages: readonly Schemas['ChatLine'][]; canNote: boolean; plain?: boolean }>()
const emit = defineEmits<{ note: [...acts: Act[]]; close: [] }>()

type Kind = Schemas['ChatKind']
const kinds: { kind: Kind; label: string; key: string }[] = [
  { kind: 'question', label: 'question', key: '1' },
  { kind: 'answer', label: 'answer', key: '2' },
  { kind: 'idea', label: 'idea', key: '3' },
  { kind: 'social', label: 'social', key: '4' },
  { kind: 'offTask', label: 'off task', key: '5' },
]
const labelOf = (kind: Kind) => kinds.find((k) => k.kind === kind)?.label ?? 'unsorted'

const shown = ref<'waiting' | 'all' | 'questions'>('waiting')
const byStudent = ref(false)
/** Only what was written in one stage; empty for all. */
const stage = ref('')
const at = ref<string>()
const list = ref<HTMLElement>()
const waits = (m: Schemas['ChatLine']) => !m.sorted && !m.repeat
const isOpen = (m: Schemas['ChatLine']) => m.kind === 'question' && !m.dealtWith && !m.repeat
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
const proposed = computed(() => lines.value.filter((m) => waits(m) && m.proposal !== 'unsorted'))
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
const show = (m: Schemas['ChatLine'], withoutName: boolean) =>
  emit('note', { type: 'messageShown', message: m.entry, withoutName })
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
        <li
          v-for="m in lines"
          :key="m.entry"
          class="message"
          :class="{ here: m.entry === current?.entry }"
          :aria-current="m.entry === current?.entry ? 'true' : undefined"
          @click="at = m.entry"
        >
          <span class="text-ink-soft">{{ hour(m.at) }}</span>
          <b class="who truncate"
            ><bdi>{{ m.who }}</bdi></b
          >
          <span class="min-w-0"
            ><bdi>{{ m.text }}</bdi> <i v-if="m.shown" class="text-small">from a student page, shown to the class</i
            ><i v-else-if="m.private" class="text-small">{{
              m.fromPage ? 'from a student page, to you alone' : 'to you alone'
            }}</i>
            <i v-if="m.repeat" class="text-small text-ink-soft">again, not counted</i></span
          >
          <span class="kind" :class="m.sorted ? 'sorted' : 'proposed'">{{
            m.repeat ? '' : m.sorted ? labelOf(m.kind) : m.proposal === 'unsorted' ? '' : `${labelOf(m.proposal)}?`
          }}</span>
        </li>
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
      <aside v-if="current" class="one" tabindex="0" aria-label="The message looked at">
        <p class="text-lead leading-snug">
          <bdi>{{ current.text }}</bdi>
        </p>
        <p class="text-small text-ink-soft">
          <b class="text-ink">{{ current.who }}</b>, {{ hour(current.at) }}
        </p>
        <p v-if="!current.student" class="text-small italic">
          This name belongs to no student yet, so it counts for nobody.
        </p>
        <div v-if="canNote" class="choices mt-2">
          <button
            v-for="k in kinds"
            :key="k.kind"
            class="choice"
            :class="{ proposed: !current.sorted && current.proposal === k.kind }"
            @click="sort(k.kind)"
          >
            <span
              >{{ k.label
              }}<i v-if="!current.sorted && current.proposal === k.kind" class="text-ink-soft">
                probably, <KeyCap k="Enter" /></i
            ></span>
            <KeyCap :k="k.key" />
          </button>
          <button
            v-if="isOpen(current)"
            class="choice"
            @click="settle({ type: 'chatDealtWith', message: current.entry })"
          >
            <span>answered</span><KeyCap k="0" />
          </button>
          <template v-if="current.fromPage && !current.shown">
            <button class="choice" @click="show(current, false)"><span>show to the class</span><KeyCap k="6" /></button>
            <button class="choice" @click="show(current, true)">
              <span>show without the name</span><KeyCap k="7" />
            </button>
          </template>
          <button class="choice" @click="settle({ type: 'chatHidden', message: current.entry })">
            <span>hide</span><KeyCap k="Delete" />
          </button>
        </div>
        <template v-if="ofOne.length">
          <p class="mt-3 border-b-[1.5px] border-ink text-small font-semibold">Also from {{ current.who }}</p>
          <p v-for="m in ofOne.slice(-8)" :key="m.entry" class="border-b border-rule py-1 text-small">
            <span class="text-ink-soft">{{ hour(m.at) }}</span> <bdi>{{ m.text }}</bdi>
            <i class="text-ink-soft"> {{ m.sorted ? labelOf(m.kind) : '' }}</i>
          </p>
        </template>
      </aside>
    </div>
  </section>
</template>

<style scoped>
.chat {
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
.message {
  display: grid;
  grid-template-columns: 44px 130px minmax(0, 1fr) 84px;
  gap: 10px;
  align-items: baseline;
  min-height: 30px;
  padding: 4px 6px 3px;
  border-bottom: 1px solid var(--rule);
  cursor: pointer;
  overflow-wrap: anywhere;
}
.here {
  background: var(--paper-deep);
  box-shadow: inset 3px 0 0 var(--ink);
}
.kind {
  text-align: right;
  font-size: var(--text-small);
}
.kind.sorted {
  font-weight: 650;
}
.kind.proposed {
  font-style: italic;
  color: var(--ink-soft);
}
.one {
  overflow-y: auto;
  border-left: 1px solid var(--rule);
  padding: 8px 4px 8px 16px;
  overflow-wrap: anywhere;
}
.choice {
  display: flex;
  width: 100%;
  justify-content: space-between;
  align-items: baseline;
  min-height: 30px;
  border-bottom: 1px solid var(--rule);
}
.choice:hover {
  background: var(--paper-deep);
}
.choice.proposed {
  font-weight: 650;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
  .one {
    grid-row: 1;
    border-left: 0;
    padding-left: 4px;
    max-height: 42dvh;
  }
  .choices {
    columns: 2;
  }
  .message {
    grid-template-columns: 46px 84px minmax(0, 1fr) 62px;
    gap: 6px;
  }
}
</style>
