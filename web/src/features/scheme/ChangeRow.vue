<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { shown } from '../../ui/format'
import type { Rules } from '../ground-rules/rules'

/** A student before and after: an open dot where they stand, a full one where they would. */
const props = defineProps<{
  row: Schemas['ComparedRow']
  at: (score: number) => number
  borders: Rules['scheme']['bands']
  classId: string
  places: number
}>()
const crossing = computed(() =>
  props.row.crossed ? `${props.row.crossed > 0 ? 'rises to' : 'drops to'} ${props.row.bandAfter}` : '',
)
const change = computed(() => {
  const by = props.row.change
  return by === null ? '' : by > 0 ? `+${by}` : by < 0 ? `−${-by}` : ''
})
</script>

<template>
  <div class="row">
    <RouterLink class="name" :to="`/classes/${classId}/scores?student=${row.id}`"
      ><b>{{ row.called }}</b> {{ row.rest }}</RouterLink
    >
    <svg v-if="row.before !== null && row.after !== null" class="line" aria-hidden="true">
      <line
        v-for="b in borders"
        :key="b.from"
        class="border"
        :x1="`${at(b.from)}%`"
        :x2="`${at(b.from)}%`"
        y1="0"
        y2="100%"
      />
      <line class="way" :x1="`${at(row.before)}%`" :x2="`${at(row.after)}%`" y1="50%" y2="50%" />
      <circle class="then" :cx="`${at(row.before)}%`" cy="50%" r="4.5" />
      <circle class="now" :cx="`${at(row.after)}%`" cy="50%" r="5" />
    </svg>
    <span v-else class="text-ink-soft">not enough yet</span>
    <span class="figures"
      ><template v-if="row.before !== null && row.after !== null"
        >{{ shown(row.before, places) }} → <b>{{ shown(row.after, places) }}</b></template
      ></span
    >
    <b class="text-end">{{ change }}</b>
    <i class="about">{{ [crossing, row.about].filter(Boolean).join(', ') }}</i>
  </div>
</template>

<style scoped>
.row {
  display: grid;
  grid-template-columns: 180px minmax(0, 1fr) 74px 36px 100px;
  gap: 10px;
  align-items: center;
  min-height: 28px;
  border-bottom: 1px solid var(--rule);
  font-size: var(--text-small);
}
.name {
  /* As high as the row: rows lie close when they change places. */
  line-height: 28px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name:hover {
  text-decoration: underline;
}
.line {
  width: 100%;
  height: 28px;
  overflow: visible;
}
.way {
  stroke: var(--ink);
  stroke-width: 2;
}
.border {
  stroke: var(--margin);
  stroke-width: 1.5;
}
.then {
  fill: var(--paper);
  stroke: var(--ink);
  stroke-width: 1.5;
}
.now {
  fill: var(--ink);
}
.figures {
  text-align: end;
  white-space: nowrap;
}
.about {
  font-size: 0.75rem;
  line-height: 1.15;
  color: var(--ink-soft);
}
@media (max-width: 700px) {
  .row {
    grid-template-columns: minmax(0, 1fr) 74px 36px;
  }
  .line {
    display: none;
  }
  .about:empty {
    display: none;
  }
  .about {
    grid-column: 1 / -1;
  }
}
</style>
