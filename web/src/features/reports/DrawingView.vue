<script setup lang="ts">
import type { Schemas } from '../../api/client'

/** A drawing of a report: lines, dots, fields and words, in the pens of this sheet. */
defineProps<{ drawing: Schemas['Drawing'] }>()
/** Drawn any smaller, its words cannot be read: on a narrow window it is moved sideways instead. */
const smallest = 1.4
const anchors = { start: 'start', middle: 'middle', end: 'end' } as const
</script>

<template>
  <svg
    class="drawing"
    role="img"
    :aria-label="drawing.says"
    :viewBox="`0 0 ${drawing.width} ${drawing.height}`"
    :style="{ maxWidth: `${drawing.width * 1.75}px`, minWidth: `${drawing.width * smallest}px` }"
  >
    <template v-for="(m, i) in drawing.marks" :key="i">
      <line
        v-if="m.kind === 'line'"
        :class="m.pen"
        :x1="m.x"
        :y1="m.y"
        :x2="m.x2"
        :y2="m.y2"
        :stroke-width="m.size"
        stroke-linecap="round"
      />
      <circle v-else-if="m.kind === 'dot'" :class="m.pen" :cx="m.x" :cy="m.y" :r="m.size" />
      <rect v-else-if="m.kind === 'field'" :class="m.pen" :x="m.x" :y="m.y" :width="m.x2 - m.x" :height="m.y2 - m.y" />
      <text
        v-else
        :class="m.pen"
        :x="m.x"
        :y="m.y"
        :font-size="m.size"
        :font-weight="m.bold ? 700 : 400"
        :text-anchor="anchors[m.side ?? 'start']"
      >
        {{ m.text }}
      </text>
    </template>
  </svg>
</template>

<style scoped>
.drawing {
  display: block;
  width: 100%;
  overflow: visible;
}
.ink {
  color: var(--ink);
}
.soft {
  color: var(--ink-soft);
}
.rule {
  color: var(--rule);
}
.highlight {
  color: var(--live);
}
.speaking {
  color: var(--pen-speaking);
}
.questions {
  color: var(--pen-questions);
}
.chat {
  color: var(--pen-chat);
}
.group {
  color: var(--pen-group);
}
.nods {
  color: var(--pen-nods);
}
line {
  stroke: currentColor;
}
circle,
rect,
text {
  fill: currentColor;
}
/* In print the width of the paper is what there is. */
@media print {
  .drawing {
    min-width: 0 !important;
    max-width: 100% !important;
  }
}
</style>
