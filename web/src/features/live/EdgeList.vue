<script setup lang="ts">
import { computed } from 'vue'
import { useLive } from '../../live/lesson'
import { clock } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import type { Command } from './acts'

/** What waits at the edge, with a count, and what else can be opened. Nothing here ever opens by itself. */
const props = defineProps<{ commands: readonly Command[]; missing: number; drawBy: 'leastHeard' | 'onceRound' }>()
const emit = defineEmits<{ run: [command: string]; otherDraw: [] }>()
const { head, drawn, now } = useLive()

const keyOf = (name: string) => props.commands.find((c) => c.name === name)!.key
const lines = computed(() => {
  const timer = drawn.value?.timer
  const up = drawn.value?.board.length ?? 0
  const asked = drawn.value?.askings.findLast((a) => a.closedAt === null)
  const pages = drawn.value?.rows.filter((r) => r.page).length ?? 0
  const groups = drawn.value?.groups.length ?? 0
  const door = drawn.value?.door.filter((d) => !d.later).length ?? 0
  const tries = head.value?.tries
  const callers = drawn.value?.callers.length ?? 0
  return [
    { name: 'door', label: 'Names at the door', count: door + callers || '', waits: door + callers > 0 },
    { name: 'chat', label: 'Chat to sweep', count: head.value?.chatWaiting || '', waits: !!head.value?.chatWaiting },
    { name: 'reach', label: 'Missing', count: props.missing || '', waits: props.missing > 0 },
    { name: 'rollCall', label: 'Roll call', count: '' },
    { name: 'draw', label: 'Draw a name', count: '' },
    { name: 'signal', label: 'Signal round', count: head.value?.rounds.length || '' },
    {
      name: 'questions',
      label: 'Questions',
      count: asked ? `${asked.answered} of ${asked.goesTo - asked.cannot}` : drawn.value?.askings.length || '',
      waits: !!asked,
    },
    { name: 'groups', label: 'Groups', count: groups || '' },
    {
      name: 'timer',
      label: 'Time for a task',
      count: timer ? (timer.to > now.value ? clock(timer.to - now.value) : 'over') : '',
      waits: !!timer,
    },
    { name: 'board', label: 'Class board', count: up ? `${up} up` : '' },
    {
      name: 'wayIn',
      label: 'Student page',
      count: tries?.tooManyKnocks ? 'too many' : tries?.wrong ? 'wrong passes' : pages ? `${pages} open` : '',
      waits: !!tries?.tooManyKnocks || !!tries?.wrong,
    },
    { name: 'links', label: 'Helpers and meeting', count: head.value?.feed ? 'connected' : '' },
  ]
})
</script>

<template>
  <nav class="mt-3" aria-label="More">
    <div v-for="line in lines" :key="line.name" class="line" :class="{ waits: line.waits }">
      <button class="press-line" @click="emit('run', line.name)">
        <span class="flex-1 text-start">{{ line.label }}</span>
        <span>{{ line.count }}</span>
      </button>
      <button
        v-if="line.name === 'draw'"
        class="quiet whitespace-nowrap"
        title="Whom the draw favours"
        @click="emit('otherDraw')"
      >
        {{ drawBy === 'leastHeard' ? 'least heard' : 'once round' }}
      </button>
      <span class="key"><KeyCap v-if="line.name !== 'links' && line.name !== 'wayIn'" :k="keyOf(line.name)" /></span>
    </div>
  </nav>
</template>

<style scoped>
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
  gap: 6px;
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
  width: 30px;
  text-align: right;
  font-weight: 400;
}
</style>
