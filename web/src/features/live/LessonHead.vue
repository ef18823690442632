<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { clock, hour, minutes } from '../../ui/format'

const props = defineProps<{ head: Schemas['LiveHead']; now: number; here: number; of: number }>()
const emit = defineEmits<{ end: [] }>()

const span = computed(() => Math.max(1, props.head.plannedEnd - props.head.countedFrom))
const gone = computed(() => Math.min(1, Math.max(0, (props.now - props.head.countedFrom) / span.value)))
// A mark every ten minutes, or every half hour of a long lesson.
const marks = computed(() => {
  const step = span.value > 100 * 60_000 ? 30 * 60_000 : 10 * 60_000
  const first = Math.ceil((props.head.countedFrom + 1) / step) * step
  const list: { at: number; share: number }[] = []
  for (let at = first; at < props.head.plannedEnd; at += step)
    list.push({ at, share: (at - props.head.countedFrom) / span.value })
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
      <p class="truncate text-small text-ink-soft">Lesson {{ head.number }} · {{ here }} of {{ of }} here</p>
    </div>
    <div
      class="ruler"
      role="img"
      :aria-label="`${minutes(now - head.countedFrom)} gone of ${minutes(head.plannedEnd - head.countedFrom)}`"
    >
      <span v-if="head.stage === 'live'" class="gone" :style="{ width: `${gone * 100}%` }" />
      <span class="title truncate font-semibold">{{ head.title }}</span>
      <span class="tick from">{{ hour(head.countedFrom) }}</span>
      <span
        v-for="mark in marks"
        :key="mark.at"
        class="tick"
        :class="{ past: mark.share < gone }"
        :style="{ left: `${mark.share * 100}%` }"
        >{{ hour(mark.at) }}</span
      >
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
        <p class="leading-6 font-bold">{{ head.stage === 'planned' ? 'not begun' : 'ended' }}</p>
        <p class="text-small text-ink-soft">{{ hour(head.countedFrom) }} to {{ hour(head.countedTo) }}</p>
      </template>
    </div>
  </header>
</template>

<style scoped>
.bar {
  display: grid;
  grid-template-columns: 252px 1fr 170px;
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
.gone {
  position: absolute;
  inset: 0 auto 0 0;
  background: var(--live);
}
.title {
  position: absolute;
  left: 10px;
  top: 8px;
  max-width: 90%;
  color: var(--ink);
  mix-blend-mode: normal;
}
.bar:has(.gone) .title {
  color: var(--on-live);
  background: var(--live);
  padding-right: 6px;
}
.tick {
  position: absolute;
  bottom: 0;
  padding: 0 0 4px 6px;
  font-size: 0.75rem;
  color: var(--ink-soft);
  border-left: 1px solid var(--rule);
  height: 22px;
  line-height: 22px;
}
.tick.from {
  left: 4px;
  border: 0;
}
.bar:has(.gone) .tick.from,
.tick.past {
  color: var(--on-live-soft);
}
.tick.past {
  border-color: var(--on-live-soft);
}
.time {
  padding: 7px 16px 0;
  text-align: right;
}
@media (max-width: 900px) {
  .bar {
    grid-template-columns: 1fr auto;
  }
  .ruler {
    grid-row: 2;
    grid-column: 1 / -1;
    height: 52px;
    border: 0;
    border-top: 1px solid var(--rule);
  }
  .time {
    padding-bottom: 6px;
  }
}
</style>
