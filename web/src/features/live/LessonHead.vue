<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { clock, hour, minutes, timeLeft } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'

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
const next = computed(() => (props.stage ? stages.value[props.stage.index + 1] : undefined))
const stageLeft = computed(() => (props.stage ? props.stage.to - props.now : 0))
// How far the lesson is from its plan, reckoned to the end of this stage; within a minute it is as planned.
const drift = computed(() => {
  if (!props.stage) return ''
  const behind = Math.max(props.now, props.stage.to) - props.stage.plannedTo
  return Math.abs(behind) < 60_000 ? 'as planned' : `${minutes(Math.abs(behind))} ${behind > 0 ? 'behind' : 'ahead'}`
})

/** From when to when, planned or as it was. */
const span = computed(() => {
  const { startedAt, endedAt, plannedStart, plannedEnd } = props.head
  return startedAt === null || endedAt === null
    ? `${hour(plannedStart)} to ${hour(plannedEnd)}`
    : `${hour(startedAt)} to ${hour(endedAt)}, ${minutes(endedAt - startedAt)}`
})
const length = computed(() => Math.max(1, props.head.plannedEnd - props.head.countedFrom))
const gone = computed(() => Math.min(1, Math.max(0, (props.now - props.head.countedFrom) / length.value)))
// A mark every ten minutes, or every half hour of a long lesson.
const marks = computed(() => {
  const step = length.value > 100 * 60_000 ? 30 * 60_000 : 10 * 60_000
  const first = Math.ceil((props.head.countedFrom + 1) / step) * step
  const list: { at: number; share: number }[] = []
  for (let at = first; at < props.head.plannedEnd; at += step)
    list.push({ at, share: (at - props.head.countedFrom) / length.value })
  return list
})
const left = computed(() => props.head.plannedEnd - props.now)
</script>

<template>
  <header class="bar">
    <div class="what">
      <h1 class="truncate text-lead leading-6 font-bold">
        <RouterLink to="/" class="hover:underline" title="Back to the desk">{{ head.className }}</RouterLink>
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
    <div
      class="ruler"
      role="img"
      :aria-label="`${minutes(now - head.countedFrom)} gone of ${minutes(head.plannedEnd - head.countedFrom)}`"
    >
      <!-- Twice, one over the other: what is gone shows in the colours of the lesson that is on, up to its edge. -->
      <div
        v-for="layer in head.stage === 'live' ? ['whole', 'gone'] : ['whole']"
        :key="layer"
        class="layer"
        :class="layer"
        :style="layer === 'gone' ? { clipPath: `inset(0 ${(1 - gone) * 100}% 0 0)` } : undefined"
        :aria-hidden="layer === 'gone'"
      >
        <span class="title truncate font-semibold">{{ onNow ? onNow.name : head.title }}</span>
        <span v-if="timer" class="task truncate"
          >{{ timer.task || 'Your task' }} <b>{{ timeLeft(timer.to, now) }}</b></span
        >
        <span class="tick from">{{ hour(head.countedFrom) }}</span>
        <span v-for="mark in marks" :key="mark.at" class="tick" :style="{ left: `${mark.share * 100}%` }">{{
          hour(mark.at)
        }}</span>
      </div>
    </div>
    <div v-if="onNow" class="stage text-small">
      <p class="truncate">
        <b>{{ stageLeft >= 0 ? `${minutes(stageLeft)} left` : `${minutes(-stageLeft)} over` }}</b>, {{ drift }}
      </p>
      <p class="flex items-baseline gap-3 whitespace-nowrap">
        <button class="quiet" @click="emit('extend', 2)">+2 min<span class="sr-only"> for this stage</span></button>
        <button v-if="next" class="quiet" :title="next.name" @click="emit('next')">
          next stage <KeyCap :k="nextKey" />
        </button>
      </p>
    </div>
    <div class="time">
      <template v-if="head.stage === 'live'">
        <p class="text-head leading-6 font-bold">{{ clock(now - (head.startedAt ?? head.plannedStart)) }}</p>
        <p class="text-small text-ink-soft">
          {{ left >= 0 ? `${minutes(left)} left` : `${minutes(-left)} over` }} ·
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
.ruler {
  position: relative;
  border-inline: 1px solid var(--ink-soft);
  overflow: hidden;
}
.layer {
  position: absolute;
  inset: 0;
}
.gone {
  background: var(--live);
  --title: var(--on-live);
  --mark: var(--on-live-soft);
  --mark-line: var(--on-live-soft);
}
.title {
  position: absolute;
  left: 10px;
  top: 8px;
  max-width: 90%;
  color: var(--title, var(--ink));
}
.task {
  position: absolute;
  right: 10px;
  top: 8px;
  max-width: 45%;
  color: var(--title, var(--ink));
}
.tick {
  position: absolute;
  bottom: 0;
  padding: 0 0 4px 6px;
  font-size: 0.75rem;
  color: var(--mark, var(--ink-soft));
  border-left: 1px solid var(--mark-line, var(--rule));
  height: 22px;
  line-height: 22px;
}
.tick.from {
  left: 4px;
  border: 0;
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
  .dense .title,
  .dense .task {
    top: 1px;
    font-size: var(--text-small);
  }
  .dense .tick {
    height: 17px;
    padding-bottom: 0;
    line-height: 17px;
    font-size: 0.6875rem;
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
  .title {
    top: 3px;
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
  .tick.from {
    display: none;
  }
}
</style>
