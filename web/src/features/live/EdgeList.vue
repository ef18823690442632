<script setup lang="ts">
import { computed } from 'vue'
import { useLive } from '../../live/lesson'
import { clock } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import type { Command } from '../../live/acts'
import { gauge } from './gauge'
import { sound } from './sound'
import type { Doing } from './teaching'

/** What waits at the edge, with a count, and what else can be opened, each at its own place. Nothing here ever opens by itself. */
const props = defineProps<{ commands: readonly Command[]; missing: number; drawBy: 'leastHeard' | 'onceRound' }>()
const emit = defineEmits<{ run: [command: Doing]; otherDraw: [] }>()
const { head, drawn, now } = useLive()

const keyOf = (name: string) => props.commands.find((c) => c.name === name)?.key
interface Line {
  name: Doing
  label: string
  /** What is said of it, where the label is short. */
  whole?: string
  count?: string | number
  waits?: boolean
}
const asked = computed(() => drawn.value?.askings.findLast((a) => a.closedAt === null))
const wide = computed((): Line[] => [
  {
    name: 'questions',
    label: 'Questions',
    count: asked.value
      ? `${asked.value.answered} of ${asked.value.goesTo - asked.value.cannot}`
      : drawn.value?.askings.length,
    waits: !!asked.value,
  },
  { name: 'draw', label: 'Draw a name' },
])
const narrow = computed((): Line[] => {
  const { timers, board, groups, rows, door, callers } = drawn.value!
  const timer = timers.toSorted((a, b) => a.to - b.to)[0]
  const knocking = door.filter((d) => !d.later).length + callers.length
  const { tries, chatWaiting, feed } = head.value!
  const pages = rows.filter((r) => r.page).length
  return [
    { name: 'door', label: 'Door', whole: 'Names at the door', count: knocking, waits: knocking > 0 },
    { name: 'chat', label: 'To sweep', whole: 'Chat to sweep', count: chatWaiting, waits: chatWaiting > 0 },
    { name: 'reach', label: 'Missing', count: props.missing, waits: props.missing > 0 },
    { name: 'rollCall', label: 'Roll call' },
    { name: 'signal', label: 'Signal round' },
    { name: 'groups', label: 'Groups', count: groups.length },
    {
      name: 'timer',
      label: 'Timer',
      whole: 'Time for a task, timer',
      count: timer
        ? `${timer.to > now.value ? clock(timer.to - now.value) : 'over'}${timers.length > 1 ? ` (${timers.length})` : ''}`
        : '',
      waits: !!timer,
    },
    { name: 'board', label: 'Board', whole: 'Class board', count: board.length ? `${board.length} up` : '' },
    {
      name: 'wayIn',
      label: 'Student page',
      count: tries.tooManyKnocks ? 'too many' : tries.wrong ? 'wrong' : pages,
      waits: tries.tooManyKnocks || tries.wrong > 0,
    },
    ...(head.value!.plan.criteria.length
      ? [{ name: 'rubric' as const, label: 'Rubric', count: rows.filter((r) => r.judged.length).length }]
      : []),
    { name: 'links', label: 'Links', whole: 'Helpers and meeting, links', count: feed ? 'on' : '' },
    { name: 'find', label: 'Find', whole: 'Find a student by name' },
  ]
})
const spoken = (line: Line) => `${line.whole ?? line.label} ${line.count || ''}`.trim()
</script>

<template>
  <nav class="mt-2" aria-label="More">
    <div v-for="line in wide" :key="line.name" class="line" :class="{ waits: line.waits }">
      <button class="press-line" :aria-label="spoken(line)" @click="emit('run', line.name)">
        <span class="flex-1 text-start">{{ line.label }}</span>
        <span>{{ line.count || '' }}</span>
      </button>
      <button
        v-if="line.name === 'draw'"
        class="quiet whitespace-nowrap"
        title="Whom the draw favours"
        @click="emit('otherDraw')"
      >
        {{ drawBy === 'leastHeard' ? 'least heard' : 'once round' }}
      </button>
      <KeyCap class="key" :k="keyOf(line.name)!" />
    </div>
    <div class="two">
      <div v-for="line in narrow" :key="line.name" class="line" :class="{ waits: line.waits }">
        <button class="press-line" :aria-label="spoken(line)" @click="emit('run', line.name)">
          <span class="flex-1 truncate text-start">{{ line.label }}</span>
          <span>{{ line.count || '' }}</span>
          <KeyCap v-if="keyOf(line.name)" class="key" :k="keyOf(line.name)!" />
        </button>
      </div>
      <div class="line gap-3">
        <button class="quiet" :aria-pressed="sound" title="A soft sound when a hand goes up" @click="sound = !sound">
          sound
        </button>
        <button class="quiet" :aria-pressed="gauge" title="How loud it is here" @click="gauge = !gauge">gauge</button>
      </div>
    </div>
  </nav>
</template>

<style scoped>
.two {
  display: grid;
  /* A word and its number whole, wherever the two columns meet. */
  grid-template-columns: minmax(min-content, 1fr) minmax(min-content, 1fr);
  column-gap: 10px;
}
.line {
  display: flex;
  align-items: baseline;
  gap: 6px;
  min-height: 25px;
  border-bottom: 1px solid var(--rule);
  color: var(--ink-soft);
  font-size: var(--text-small);
}
.press-line {
  display: flex;
  flex: 1;
  min-width: 0;
  gap: 5px;
  min-height: 24px;
  align-items: baseline;
  white-space: nowrap;
}
.line:hover {
  background: var(--paper-deep);
  color: var(--ink);
}
.waits {
  color: var(--ink);
  font-weight: 650;
}
.key {
  font-weight: 400;
}
[aria-pressed='true'] {
  font-weight: 700;
  color: var(--ink);
}
@media (min-width: 561px) and (max-width: 900px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
