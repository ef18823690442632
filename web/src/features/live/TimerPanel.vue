<script setup lang="ts">
import { computed, ref } from 'vue'
import { useLive } from '../../live/lesson'
import { clock } from '../../ui/format'
import SidePanel from './SidePanel.vue'

/** The time for a task: one press for the usual lengths. */
const emit = defineEmits<{ close: [] }>()
const { drawn, note, now } = useLive()
const task = ref('')
const minutes = ref(3)
const timer = computed(() => drawn.value?.timer)
const onBoard = computed(() => drawn.value?.board.some((b) => b.item === 'timer'))
const start = (m: number) => note({ type: 'timerStarted', seconds: Math.round(m * 60), task: task.value.trim() })
</script>

<template>
  <SidePanel title="Time for a task" @close="emit('close')">
    <template v-if="timer">
      <p class="mt-3 text-title leading-none font-bold" role="timer">
        {{ timer.to > now ? clock(timer.to - now) : 'Time is up' }}
      </p>
      <p class="text-ink-soft">{{ timer.task }}</p>
      <p class="mt-2 flex gap-4 text-small">
        <button class="press" @click="note({ type: 'timerStopped' })">End it</button>
        <button class="press" @click="note({ type: onBoard ? 'boardTaken' : 'boardPut', item: 'timer' })">
          {{ onBoard ? 'Off the board' : 'On the board' }}
        </button>
      </p>
    </template>
    <form v-else class="mt-2 text-small" @submit.prevent="start(minutes)">
      <label class="block text-ink-soft">Task<input v-model="task" class="field text-ink" maxlength="120" /></label>
      <p class="mt-3 flex flex-wrap gap-x-4">
        <button v-for="m in [1, 2, 3, 5, 8, 10]" :key="m" type="button" class="press" @click="start(m)">
          {{ m }} min
        </button>
      </p>
      <label class="mt-3 block text-ink-soft"
        >Another length, in minutes
        <input v-model.number="minutes" class="field text-ink" type="number" min="0.5" max="180" step="0.5" />
      </label>
      <p class="mt-2"><button class="press-first">Start</button></p>
    </form>
  </SidePanel>
</template>
