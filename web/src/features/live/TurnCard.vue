<script setup lang="ts">
import { computed } from 'vue'
import { useLive } from '../../live/lesson'
import type { DrawnRow } from '../../live/drawn'
import { clock } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import type { LoggedAct } from '../../live/acts'
import PointsOfTurn from './PointsOfTurn.vue'

/** Whose turn it is, how they came by it, and how it went, by one press. */
const props = defineProps<{ row: DrawnRow; group: string | undefined; outcomes: readonly LoggedAct[] }>()
const emit = defineEmits<{ outcome: [act: LoggedAct] }>()
const { head, drawn, note } = useLive()
const points = computed(() => head.value?.plan.points ?? [])
const told = computed(() => {
  const turn = drawn.value?.turn
  if (turn?.why) return `Drawn: ${turn.why}`
  if (turn?.origin === 'handedOn') return 'Turn, handed on'
  if (typeof turn?.waitedSeconds !== 'number') return props.group ? `Turn, ${props.group}` : 'Turn'
  return `${props.group ?? 'Turn, from the line'}, waited ${clock(turn.waitedSeconds * 1000)}`
})
</script>

<template>
  <section class="turn" aria-live="polite">
    <p class="text-small">{{ told }}</p>
    <h2 class="text-head leading-tight font-bold">{{ row.called }} {{ row.rest }}</h2>
    <div class="mt-1 grid grid-cols-2 gap-x-4">
      <button v-for="act in outcomes" :key="act.name" class="outcome" @click="emit('outcome', act)">
        <span>{{ act.label }}</span><KeyCap :k="act.key" />
      </button>
    </div>
    <PointsOfTurn
      v-if="points.length"
      :points="points"
      :covered="row.points"
      @cover="(point) => note({ type: 'pointCovered', student: row.id, point })"
    />
  </section>
</template>

<style scoped>
.turn {
  background: var(--live);
  color: var(--on-live);
}
.outcome {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  border-bottom: 1px solid var(--on-live-soft);
  padding: 4px 0 3px;
  min-height: 28px;
}
.outcome:hover {
  font-weight: 700;
}
</style>
