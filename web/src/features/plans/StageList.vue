<script setup lang="ts">
import { nextTick, ref } from 'vue'
import { hour } from '../../ui/format'
import MarkdownField from '../../ui/MarkdownField.vue'
import NumberInput from '../../ui/NumberInput.vue'
import { moved, useReorder } from '../../ui/reorder'
import { newId, type Plan } from './plan'

/** Stages with their minutes; the times follow from the start. Moved by dragging, or with Alt and the arrows. */
const props = defineProps<{ start: number; minutes: number }>()
const stages = defineModel<Plan['stages']>({ required: true })
const list = ref<HTMLElement>()
const open = ref<string>()

const move = (from: number, to: number) => (stages.value = moved(stages.value, from, to))
useReorder(list, move)

async function step(index: number, by: number) {
  const to = index + by
  move(index, to)
  await nextTick()
  list.value?.querySelectorAll<HTMLElement>('.handle')[Math.max(0, Math.min(to, stages.value.length - 1))]?.focus()
}

async function add() {
  const planned = stages.value.reduce((sum, s) => sum + s.minutes, 0)
  const left = Math.max(5, Math.min(10, props.minutes - planned))
  stages.value = [...stages.value, { id: newId(), name: '', minutes: left, directions: '' }]
  await nextTick()
  list.value?.querySelectorAll<HTMLElement>('.name')[stages.value.length - 1]?.focus()
}

const startOf = (index: number) =>
  props.start + stages.value.slice(0, index).reduce((sum, s) => sum + s.minutes, 0) * 60_000
</script>

<template>
  <ol ref="list" aria-label="Stages">
    <li v-for="(stage, i) in stages" :key="stage.id">
      <div class="rule-line stage">
        <button
          type="button"
          class="handle"
          :aria-label="`Move stage ${i + 1}, ${stage.name || 'without a name'}: drag, or Alt with an arrow`"
          @keydown.alt.up.prevent="step(i, -1)"
          @keydown.alt.down.prevent="step(i, 1)"
        >
          ⋮⋮
        </button>
        <span class="w-11 shrink-0 text-ink-soft">{{ hour(startOf(i)) }}</span>
        <input
          v-model="stage.name"
          class="field name min-w-0 flex-1 font-semibold"
          maxlength="120"
          placeholder="What happens"
          :aria-label="`Name of stage ${i + 1}`"
        />
        <NumberInput
          :model-value="stage.minutes"
          class="bare !w-14 text-end"
          :aria-label="`Minutes of stage ${i + 1}`"
          @update:model-value="(n) => (stage.minutes = Math.round(n ?? 0))"
        />
        <span class="text-ink-soft">min</span>
        <button
          type="button"
          class="quiet w-[6.2rem] text-small"
          :aria-expanded="open === stage.id"
          @click="open = open === stage.id ? undefined : stage.id"
        >
          {{ stage.directions.trim() ? 'directions' : 'add directions' }}
        </button>
        <button
          type="button"
          class="quiet text-small text-ink-soft"
          :aria-label="`Take out stage ${i + 1}, ${stage.name}`"
          @click="stages = stages.filter((s) => s.id !== stage.id)"
        >
          out
        </button>
      </div>
      <MarkdownField
        v-if="open === stage.id"
        v-model="stage.directions"
        focused
        class="py-2 pl-8"
        :label="`Directions of stage ${i + 1} for the class board`"
        placeholder="- Read the dial twice, a minute apart"
      />
    </li>
  </ol>
  <p class="mt-2"><button type="button" class="quiet" @click="add">Add a stage</button></p>
</template>

<style scoped>
.stage {
  padding: 1px 0;
}
.name,
.bare {
  border-color: transparent;
}
.name:hover,
.name:focus,
.bare:hover,
.bare:focus {
  border-color: var(--ink);
}
</style>
