<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { hour, minutes, timeLeft } from '../../ui/format'

/** The time of the lesson, drawn: what is gone of it, and what it is used for now. */
const props = defineProps<{
  head: Schemas['LiveHead']
  /** The stage that is on, or the lesson. */
  title: string
  timer: Schemas['TimerNow'] | undefined
  now: number
}>()
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
</script>

<template>
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
      <span class="title truncate font-semibold">{{ title }}</span>
      <span v-if="timer" class="task truncate"
        >{{ timer.task || 'Your task' }} <b>{{ timeLeft(timer.to, now) }}</b></span
      >
      <span class="tick from">{{ hour(head.countedFrom) }}</span>
      <span v-for="mark in marks" :key="mark.at" class="tick" :style="{ left: `${mark.share * 100}%` }">{{
        hour(mark.at)
      }}</span>
    </div>
  </div>
</template>

<style scoped>
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
/* In a large class on a low window the head is one line. */
@media (min-width: 901px) and (max-height: 850px) {
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
}
@media (max-width: 900px) {
  .title {
    top: 3px;
  }
}
@media (max-width: 560px) {
  .tick.from {
    display: none;
  }
}
</style>
