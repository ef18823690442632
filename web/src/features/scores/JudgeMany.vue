<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/client'
import { digitOf } from '../../live/acts'
import KeyCap from '../../ui/KeyCap.vue'
import CriterionTabs from './CriterionTabs.vue'

/** Students judged by the criteria of the class, one or many at once: a digit marks those that are ticked, else the one that is on, and goes on to the next. */
const props = defineProps<{ sheet: Schemas['JudgedSheet'] }>()
const emit = defineEmits<{ mark: [students: string[], criterion: string, level: string] }>()
const on = ref(0)
const criterion = computed(() => props.sheet.criteria[on.value] ?? props.sheet.criteria[0])
const ticked = ref<string[]>([])
const rows = useTemplateRef<HTMLElement>('rows')
const allTicked = computed(() => ticked.value.length === props.sheet.students.length)

function mark(level: string | undefined, students: string[]) {
  if (!level || !students.length) return
  emit('mark', students, criterion.value!.id, level)
  ticked.value = []
}
const steps: Record<string, number> = { ArrowDown: 1, ArrowUp: -1 }
function key(event: KeyboardEvent) {
  const lines = [...rows.value!.querySelectorAll<HTMLElement>('[data-student]')]
  const line = (event.target as HTMLElement).closest<HTMLElement>('[data-student]')
  const at = line ? lines.indexOf(line) : -1
  const digit = Number(digitOf(event) ?? 0)
  const go = (by: number) => lines[at + by]?.querySelector('input')?.focus()
  if (steps[event.key]) go(steps[event.key]!)
  else if (digit && !event.ctrlKey && !event.metaKey && !event.altKey) {
    const one = line?.dataset.student
    const many = ticked.value.length > 0
    mark(criterion.value?.levels[digit - 1]?.id, many ? ticked.value : one ? [one] : [])
    if (!many) go(1)
  } else return
  event.preventDefault()
}
</script>

<template>
  <div v-if="criterion" class="text-small" @keydown="key">
    <CriterionTabs v-if="sheet.criteria.length > 1" v-model="on" :criteria="sheet.criteria" />
    <p class="mt-1 flex flex-wrap gap-x-4 gap-y-1">
      <b v-if="sheet.criteria.length === 1">{{ criterion.name }}</b>
      <span v-for="(l, i) in criterion.levels" :key="l.id"><KeyCap :k="String(i + 1)" /> {{ l.name }}</span>
    </p>
    <label class="mt-1 flex items-center gap-2 text-ink-soft"
      ><input
        type="checkbox"
        class="size-6"
        :checked="allTicked"
        @change="ticked = allTicked ? [] : sheet.students.map((s) => s.id)"
      />
      {{ ticked.length ? `${ticked.length} ticked` : 'all; or tick some, or go with the arrows' }}</label
    >
    <ul ref="rows">
      <li v-for="s in sheet.students" :key="s.id" class="line" :data-student="s.id">
        <label class="who"
          ><input v-model="ticked" type="checkbox" class="size-6" :value="s.id" /> <b>{{ s.name }}</b></label
        >
        <button
          v-for="(l, i) in criterion.levels"
          :key="l.id"
          class="level"
          :class="{ chosen: s.levels.includes(l.id) }"
          :aria-pressed="s.levels.includes(l.id)"
          :aria-label="`${s.name}: ${l.name}`"
          :title="l.name"
          @click="mark(l.id, [s.id])"
        >
          {{ i + 1 }}
        </button>
      </li>
    </ul>
  </div>
</template>

<style scoped>
.line {
  display: flex;
  gap: 4px;
  align-items: center;
  border-bottom: 1px solid var(--rule);
}
.line:focus-within {
  background: var(--paper-deep);
}
.who {
  display: flex;
  flex: 1;
  gap: 8px;
  align-items: center;
  min-height: 28px;
}
.level {
  min-width: 32px;
  min-height: 28px;
  border-bottom: 2.5px solid transparent;
}
.chosen {
  border-bottom: 2.5px solid var(--pen-rubric);
  font-weight: 700;
}
</style>
