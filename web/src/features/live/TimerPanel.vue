<script setup lang="ts">
import { computed, ref } from 'vue'
import { useLive } from '../../live/lesson'
import type { Act } from '../../live/outbox'
import { clock } from '../../ui/format'
import SidePanel from './SidePanel.vue'

/** The time for a task, of the class or of one group: one press for the usual lengths. */
const emit = defineEmits<{ close: [] }>()
const { drawn, note, now } = useLive()
const task = ref('')
const minutes = ref(3)
const chosen = ref('')
const groups = computed(() => drawn.value?.groups ?? [])
/** Whom the next one is for; a group that is gone meanwhile is not it. */
const group = computed(() => groups.value.find((g) => g.id === chosen.value)?.id ?? null)
const timers = computed(() => drawn.value?.timers ?? [])
const ofClass = computed(() => timers.value.some((t) => t.group === null))
const nameOf = (id: string | null) => groups.value.find((g) => g.id === id)?.name ?? 'The class'
const onBoard = computed(() => drawn.value?.board.some((b) => b.item === 'timer'))
const shows = ref(true)
/** It is on the board as soon as it runs, unless that was unticked. */
function start(m: number) {
  const timer: Act = {
    type: 'timerStarted',
    seconds: Math.round(m * 60),
    task: task.value.trim(),
    group: group.value,
  }
  note(timer, ...(shows.value && !onBoard.value ? [{ type: 'boardPut' as const, item: 'timer' as const }] : []))
}
</script>

<template>
  <SidePanel title="Time for a task" @close="emit('close')">
    <div v-for="timer in timers" :key="timer.group ?? ''" class="border-b border-rule py-2">
      <p class="text-title leading-none font-bold" role="timer">
        {{ timer.to > now ? clock(timer.to - now) : 'Time is up' }}
      </p>
      <p class="flex items-baseline justify-between gap-2 text-small text-ink-soft">
        <span class="truncate">{{
          [groups.length ? nameOf(timer.group) : '', timer.task].filter(Boolean).join(', ')
        }}</span>
        <button class="quiet" @click="note({ type: 'timerStopped', group: timer.group })">end it</button>
      </p>
    </div>
    <p v-if="timers.length" class="mt-2 text-small">
      <button class="press" @click="note({ type: onBoard ? 'boardTaken' : 'boardPut', item: 'timer' })">
        {{ onBoard ? 'Off the board' : 'On the board' }}
      </button>
    </p>
    <form v-if="groups.length || !ofClass" class="mt-2 text-small" @submit.prevent="start(minutes)">
      <label v-if="groups.length" class="block text-ink-soft"
        >For<select v-model="chosen" class="field text-ink">
          <option value="">the class</option>
          <option v-for="g in groups" :key="g.id" :value="g.id">{{ g.name }}</option>
        </select></label
      >
      <label class="mt-2 block text-ink-soft"
        >Task<input v-model="task" class="field text-ink" maxlength="120"
      /></label>
      <p class="mt-3 flex flex-wrap gap-x-4">
        <button v-for="m in [1, 2, 3, 5, 8, 10]" :key="m" type="button" class="press" @click="start(m)">
          {{ m }} min
        </button>
      </p>
      <label class="mt-3 block text-ink-soft"
        >Another length, in minutes
        <input v-model.number="minutes" class="field text-ink" type="number" min="0.5" max="180" step="0.5" />
      </label>
      <label class="mt-3 flex items-center gap-2"
        ><input v-model="shows" type="checkbox" class="size-4" /> on the class board</label
      >
      <p class="mt-2"><button class="press-first">Start</button></p>
    </form>
  </SidePanel>
</template>
