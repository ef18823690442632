<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { minutes, minutesLeft } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'

/** The stage that is on: what is left of it, and how the lesson goes by its plan. */
const props = defineProps<{
  stage: Schemas['StageOn']
  next: Schemas['StageLine'] | undefined
  now: number
  nextKey: string
}>()
const emit = defineEmits<{ next: []; extend: [minutes: number] }>()
const stageLeft = computed(() => props.stage.to - props.now)
// How far the lesson is from its plan, reckoned to the end of this stage; within a minute it is as planned.
const drift = computed(() => {
  const behind = Math.max(props.now, props.stage.to) - props.stage.plannedTo
  return Math.abs(behind) < 60_000 ? 'as planned' : `${minutes(Math.abs(behind))} ${behind > 0 ? 'behind' : 'ahead'}`
})
</script>

<template>
  <div>
    <p class="truncate">
      <b>{{ minutesLeft(stageLeft) }}</b>, {{ drift }}
    </p>
    <p class="flex items-baseline gap-3 whitespace-nowrap">
      <button class="quiet" @click="emit('extend', 2)">+2 min<span class="sr-only"> for this stage</span></button>
      <button v-if="next" class="quiet" :title="next.name" @click="emit('next')">
        next stage <KeyCap :k="nextKey" />
      </button>
    </p>
  </div>
</template>
