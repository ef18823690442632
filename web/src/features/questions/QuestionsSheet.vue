<script setup lang="ts">
import { computed, nextTick, useTemplateRef, watch } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { clock, count, hour } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import { digitOf } from '../../live/acts'
import type { Question } from '../plans/plan'
import AskedQuestion from './AskedQuestion.vue'
import { opening } from './asking'
import { useQuestionsOf } from './questionsOf'
import SpotQuestion from './SpotQuestion.vue'
import WaitingQuestion from './WaitingQuestion.vue'

/** Questions of the lesson: those that wait, to be edited and opened here, and those that were opened, with who has answered and what came of it. */
const props = defineProps<{ id: string; openKey: string }>()
const emit = defineEmits<{ close: [] }>()
const { head, drawn, now, note } = useLive()
const {
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
} = useQuestionsOf(props.id)
const rows = computed(() => drawn.value?.rows ?? [])
const running = computed(() => head.value?.stage === 'live')
const list = useTemplateRef<HTMLElement>('list')
watch(current, async () => {
  // What is opened moves to the top of the list, and what is looked at may be anywhere in it.
  await nextTick()
  list.value?.querySelector('[aria-current]')?.scrollIntoView({ block: 'nearest' })
})
const spot = useTemplateRef<InstanceType<typeof SpotQuestion>>('spot')
const looked = useTemplateRef<InstanceType<typeof WaitingQuestion>>('looked')

/** Opens a question to the class or to groups, as one press. */
function open(question: Question, to: (string | null)[], copy: string | null = null) {
  if (!running.value) return []
  const share = head.value?.plan.extraTimeShare ?? 0
  const entries = note(...to.map((group) => opening(question, group, copy, rows.value, share)))
  at.value = entries[0]
  return entries
}
/** Opens the waiting question that is looked at, or else the next one, as soon as the plan is here. */
function openNext() {
  const go = () => {
    if (!isWaiting.value) at.value = waiting.value[0]?.id
    void nextTick(() => looked.value?.open())
  }
  if (plan.value) go()
  else {
    const stop = watch(plan, () => {
      stop()
      go()
    })
  }
}
function askAgain(view: Schemas['AskingView']) {
  const question = JSON.parse(JSON.stringify(view.question)) as Question
  // Options keep their ids, so that before and after can be laid side by side.
  const to = groups.value.some((g) => g.id === view.group) ? view.group : null
  open({ ...question, id: crypto.randomUUID() }, [to], view.asking)
}

function move(step: number) {
  const index = order.value.indexOf(current.value ?? '')
  at.value = order.value[Math.max(0, Math.min(order.value.length - 1, index + step))]
}
function onKey(event: KeyboardEvent) {
  if (event.key === 'ArrowDown') move(1)
  else if (event.key === 'ArrowUp') move(-1)
  else if (digitOf(event) === '0') spot.value?.focus()
  else if (event.key === 'Enter' && isWaiting.value) void looked.value?.open()
  else return false
  return true
}
defineExpose({ onKey, openNext })

const timeOf = (line: Schemas['AskingLine']) => {
  if (line.closedAt !== null) return hour(line.openedAt)
  if (line.seconds === null) return clock(now.value - line.openedAt)
  const left = line.openedAt + line.seconds * 1000 - now.value
  return left > 0 ? `${clock(left)} left` : 'time is up'
}
</script>

<template>
  <section class="questions" aria-label="Questions and answers">
    <div class="rule-head">
      <h2>Questions</h2>
      <span class="flex flex-wrap gap-x-4 text-small font-normal">
        <span v-if="stored !== 'all stored'" class="italic">{{ stored }}</span>
        <button class="quiet" @click="emit('close')">back to the sheet <KeyCap k="Esc" /></button>
      </span>
    </div>
    <div class="two">
      <nav ref="list" class="list" aria-label="Questions of this lesson">
        <SpotQuestion v-if="running" ref="spot" :note="open" />
        <button
          v-for="line in lines"
          :key="line.asking"
          class="line"
          :class="{ here: line.asking === current, open: line.closedAt === null }"
          :aria-current="line.asking === current ? 'true' : undefined"
          @click="at = line.asking"
        >
          <span class="text"
            ><bdi>{{ line.text }}</bdi></span
          >
          <span class="text-small"
            ><b v-if="line.closedAt === null">open, </b>{{ timeOf(line) }}, {{ line.answered }} of
            {{ line.goesTo - line.cannot }}</span
          >
        </button>
        <p v-if="waiting.length" class="mt-3 border-b-[1.5px] border-ink text-small font-semibold">
          {{ count(waiting.length, 'question') }} waiting
        </p>
        <button
          v-for="q in waiting"
          :key="q.id"
          class="line"
          :class="{ here: q.id === current }"
          :aria-current="q.id === current ? 'true' : undefined"
          @click="at = q.id"
        >
          <span class="text">{{ q.text || 'A question without words' }}</span>
          <i v-if="lackOf(q.id)" class="text-small">{{ lackOf(q.id) }}</i>
        </button>
        <p v-if="!order.length" class="py-3 text-ink-soft">
          Nothing is prepared for this lesson. Ask on the spot, or write questions in the plan.
        </p>
      </nav>

      <div class="one">
        <AskedQuestion
          v-if="currentAsked"
          :key="currentAsked.asking"
          :view="currentAsked"
          :earlier="earlier"
          :close-key="openKey"
          @again="askAgain(currentAsked)"
        />
        <WaitingQuestion
          v-else-if="isWaiting && plan?.questions[place]"
          ref="looked"
          v-model="plan.questions[place]!"
          :lack="lackOf(current!)"
          :groups="groups"
          :had="hadBy(current!)"
          :running="running"
          :open-key="lines.some((l) => l.closedAt === null) ? 'Enter' : openKey"
          @open="open"
        />
        <p v-else-if="lines.some((l) => l.asking === current)" class="text-ink-soft italic">In pencil…</p>
      </div>
    </div>
  </section>
</template>

<style scoped>
.questions {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.rule-head {
  flex: none;
}
.two {
  display: grid;
  grid-template-columns: 270px minmax(0, 1fr);
  gap: 24px;
  flex: 1;
  min-height: 0;
}
.list,
.one {
  overflow-y: auto;
  padding: 8px 2px 16px;
}
.line {
  display: block;
  width: 100%;
  padding: 5px 6px 4px 10px;
  border-bottom: 1px solid var(--rule);
  text-align: start;
  overflow-wrap: anywhere;
}
.line:hover {
  background: var(--paper-deep);
}
.here {
  background: var(--paper-deep);
  box-shadow: inset 3px 0 0 var(--ink);
}
.line.open {
  background: var(--live);
  color: var(--on-live);
}
.text {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  line-clamp: 2;
}
.one {
  border-left: 1px solid var(--rule);
  padding-left: 20px;
}
@media (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    overflow-y: auto;
  }
  .list,
  .one {
    overflow: visible;
    border-left: 0;
    padding-left: 0;
  }
  .one {
    grid-row: 1;
  }
}
</style>
