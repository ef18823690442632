<script setup lang="ts">
import { computed, ref } from 'vue'
import { useLive } from '../../live/lesson'
import BoardMini from '../board/BoardMini.vue'
import SidePanel from './SidePanel.vue'

/** What the class sees: each part goes up and comes down by one press, and the picture shows the board as it is. */
defineProps<{ id: string }>()
const emit = defineEmits<{ close: [] }>()
const { head, drawn, note } = useLive()
const fits = ref(true)
const parts = computed(() => {
  const plan = head.value?.plan
  return [
    {
      item: 'directions',
      label: 'Directions',
      can: !!plan?.stages[drawn.value?.stage?.index ?? -1]?.hasDirections,
      why: 'none for this stage',
    },
    { item: 'stage', label: 'Stage and its time', can: !!drawn.value?.stage, why: 'no stages planned' },
    { item: 'timer', label: 'Time for a task', can: !!drawn.value?.timers.length, why: 'none runs' },
    { item: 'turn', label: 'Whose turn it is', can: true, why: '' },
    { item: 'handLine', label: 'Hand line', can: true, why: '' },
    { item: 'groups', label: 'Groups', can: !!drawn.value?.groups.length, why: 'none made' },
    { item: 'signals', label: 'Agreed signals', can: !!plan?.signals.length, why: 'none agreed' },
    { item: 'rubric', label: 'Rubric', can: !!plan?.hasRubric, why: 'none written' },
    { item: 'question', label: 'Open question', can: true, why: '' },
    { item: 'results', label: 'Results', can: false, why: 'from a question' },
    { item: 'wayIn', label: 'Way to the student page', can: true, why: '' },
    { item: 'messages', label: 'What was written', can: true, why: '' },
    { item: 'statement', label: 'Statement', can: false, why: 'from a signal round' },
  ] as const
})
const isUp = (item: string) => drawn.value?.board.some((b) => b.item === item) ?? false
</script>

<template>
  <SidePanel title="Class board" @close="emit('close')">
    <BoardMini :id="id" class="my-2" @fits="fits = $event" />
    <p v-if="!fits" role="alert" class="mb-1 text-small font-semibold">
      Not all of this fits on the board. Take something down.
    </p>
    <p class="mb-1 text-small">
      <a class="press" :href="`/lessons/${id}/board`" target="_blank" rel="noopener">Open the window to share</a>
    </p>
    <button
      v-for="part in parts"
      :key="part.item"
      class="line"
      :class="{ up: isUp(part.item) }"
      :aria-pressed="isUp(part.item)"
      :disabled="!part.can && !isUp(part.item)"
      @click="note({ type: isUp(part.item) ? 'boardTaken' : 'boardPut', item: part.item })"
    >
      <span>{{ part.label }}</span>
      <span class="text-small">{{ isUp(part.item) ? 'take down' : part.can ? 'put up' : part.why }}</span>
    </button>
    <p v-if="drawn?.board.length" class="mt-2 text-small">
      <button class="quiet" @click="note(...drawn.board.map((b) => ({ type: 'boardTaken' as const, item: b.item })))">
        Take everything down
      </button>
    </p>
  </SidePanel>
</template>

<style scoped>
.line {
  display: flex;
  width: 100%;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  min-height: 27px;
  text-align: start;
  border-bottom: 1px solid var(--rule);
}
.line:hover:not(:disabled) {
  background: var(--paper-deep);
}
.line:disabled {
  color: var(--ink-soft);
}
.up {
  font-weight: 700;
}
</style>
