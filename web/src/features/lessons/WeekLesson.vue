<script setup lang="ts">
import { hour } from '../../ui/format'
import { stageOf, wayTo, type Lesson } from './lessons'
import { isLate, placed, type Hours } from './weekScale'

/** A lesson in its day of the week. */
defineProps<{ lesson: Lesson; day: readonly Lesson[]; hours: Hours }>()
</script>

<template>
  <RouterLink
    class="lesson"
    :class="{ cancelled: lesson.cancelled, live: lesson.stage === 'live', late: isLate(lesson, hours) }"
    :to="wayTo(lesson)"
    :style="placed(day, lesson, hours)"
  >
    <span class="bar" :class="{ open: lesson.dropIn }" />
    <span class="words"
      ><b>{{ hour(lesson.plannedStart) }}</b> <b class="title">{{ lesson.title }}</b></span
    >
    <span class="words text-small text-ink-soft"
      >{{ lesson.className
      }}<template v-if="lesson.stage !== 'settled'">
        ·
        {{
          lesson.stage === 'planned' && !lesson.cancelled
            ? lesson.prepared
              ? 'prepared'
              : 'nothing prepared'
            : stageOf(lesson)
        }}</template
      ></span
    >
  </RouterLink>
</template>

<style scoped>
.lesson {
  position: absolute;
  top: 8px;
  padding-right: 8px;
  line-height: 1.25;
}
.bar {
  display: block;
  width: var(--bar);
  border-top: 3px solid var(--ink);
  margin-bottom: 3px;
}
.late .bar {
  margin-left: auto;
}
.bar.open {
  border-top-style: dashed;
}
.lesson.live .bar {
  border-color: var(--live);
  border-top-width: 5px;
  margin-bottom: 1px;
}
.words {
  display: block;
  overflow: hidden;
  white-space: nowrap;
  text-overflow: ellipsis;
}
.lesson:hover .title {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.cancelled .words {
  text-decoration: line-through;
  color: var(--ink-soft);
}
.cancelled .bar {
  border-color: var(--rule);
}
@media (max-width: 700px) {
  .lesson {
    position: static;
    display: block;
    width: auto !important;
    padding: 4px 0;
  }
  .bar {
    width: 2rem;
  }
}
</style>
