<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { clock, hour, minutes, minutesLeft } from '../../ui/format'
import LessonRuler from './LessonRuler.vue'
import StageNow from './StageNow.vue'

const props = defineProps<{
  head: Schemas['LiveHead']
  stage: Schemas['StageOn'] | null
  /** The time for a task, while one runs. */
  timer: Schemas['TimerNow'] | undefined
  now: number
  here: number
  of: number
  nextKey: string
}>()
const emit = defineEmits<{ end: []; next: []; extend: [minutes: number] }>()

const stages = computed(() => props.head.plan.stages)
const onNow = computed(() => (props.stage && props.head.stage === 'live' ? stages.value[props.stage.index] : undefined))
/** From when to when, planned or as it was. */
const span = computed(() => {
  const { startedAt, endedAt, plannedStart, plannedEnd } = props.head
  return startedAt === null || endedAt === null
    ? `${hour(plannedStart)} to ${hour(plannedEnd)}`
    : `${hour(startedAt)} to ${hour(endedAt)}, ${minutes(endedAt - startedAt)}`
})
const left = computed(() => props.head.plannedEnd - props.now)
</script>

<template>
  <header class="bar">
    <div class="what">
      <h1 class="truncate text-lead leading-6 font-bold">
        <RouterLink :to="`/classes/${head.classId}`" class="hover:underline">{{ head.className }}</RouterLink>
      </h1>
      <p class="truncate text-small text-ink-soft">
        Lesson {{ head.number }} · {{ here }} of {{ of }} here{{ head.endedAt === null ? '' : ' at the end' }}
        <a
          v-if="head.meetingLink && head.stage === 'live'"
          class="quiet ml-1"
          :href="head.meetingLink"
          target="_blank"
          rel="noopener noreferrer"
          >meeting</a
        >
      </p>
    </div>
    <LessonRuler class="ruler" :head="head" :title="onNow ? onNow.name : head.title" :timer="timer" :now="now" />
    <StageNow
      v-if="onNow && stage"
      class="stage text-small"
      :stage="stage"
      :next="stages[stage.index + 1]"
      :now="now"
      :next-key="nextKey"
      @extend="emit('extend', $event)"
      @next="emit('next')"
    />
    <div class="time">
      <template v-if="head.stage === 'live'">
        <p class="text-head leading-6 font-bold">{{ clock(now - (head.startedAt ?? head.plannedStart)) }}</p>
        <p class="text-small text-ink-soft">
          {{ minutesLeft(left) }} ·
          <button class="quiet" @click="emit('end')">End</button>
        </p>
      </template>
      <template v-else>
        <p class="leading-6 font-bold">
          {{ { planned: 'not begun', ended: 'ended', settled: 'settled' }[head.stage] }}
        </p>
        <p class="text-small text-ink-soft">{{ span }}</p>
      </template>
    </div>
  </header>
</template>

<style scoped>
.bar {
  display: grid;
  grid-template-columns: 252px minmax(0, 1fr) auto 170px;
  border-bottom: 2px solid var(--ink);
}
.what {
  padding: 8px 12px 0 20px;
  min-width: 0;
}
.stage {
  max-width: 230px;
  padding: 8px 12px 0;
  border-right: 1px solid var(--ink-soft);
  line-height: 1.35rem;
}
.time {
  grid-column: -2 / -1;
  padding: 7px 16px 0;
  text-align: right;
}
/* In a large class on a low window the head is one line. */
@media (min-width: 901px) and (max-height: 850px) {
  .dense .bar {
    grid-template-rows: 36px;
  }
  .dense .what {
    padding-top: 1px;
  }
  .dense .what > h1 {
    font-size: var(--text-small);
    line-height: 18px;
  }
  .dense .what > p {
    font-size: 0.75rem;
    line-height: 15px;
  }
  .dense .stage {
    max-width: none;
    display: flex;
    align-items: baseline;
    gap: 14px;
    padding-top: 7px;
  }
  .dense .time {
    display: flex;
    align-items: baseline;
    justify-content: flex-end;
    gap: 10px;
    padding: 5px 12px 0 8px;
    white-space: nowrap;
  }
  .dense .time > .text-head {
    font-size: var(--text-lead);
  }
}
@media (max-width: 900px) {
  .bar {
    grid-template-columns: minmax(0, 1fr) auto auto;
  }
  .stage {
    grid-row: 1;
    grid-column: 2;
    border: 0;
  }
  .ruler {
    grid-row: 2;
    grid-column: 1 / -1;
    height: 46px;
    border: 0;
    border-top: 1px solid var(--rule);
  }
}
@media (max-width: 560px) {
  .bar {
    grid-template-columns: minmax(0, 1fr) auto;
  }
  .stage {
    grid-row: 3;
    grid-column: 1 / -1;
    max-width: none;
    padding: 4px 12px;
  }
  .time {
    padding-bottom: 6px;
  }
}
</style>
