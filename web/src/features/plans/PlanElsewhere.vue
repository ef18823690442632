<script setup lang="ts">
import { useQuery } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { count, weekDay } from '../../ui/format'
import type { Plan } from './plan'

/** A plan from another lesson or from a file, and this one as a file. */
defineProps<{ id: string; plan: Plan }>()
const emit = defineEmits<{ copy: [from: Schemas['LessonLine']]; file: [file: File] }>()
const copying = ref(false)
const copyClass = ref('')
const fileField = ref<HTMLInputElement>()
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')), enabled: copying })
const source = useQuery({
  queryKey: ['class', copyClass],
  queryFn: () => ask(api.GET('/api/classes/{id}', { params: { path: { id: copyClass.value } } })),
  enabled: computed(() => copyClass.value !== ''),
})

function copy(from: Schemas['LessonLine']) {
  copying.value = false
  emit('copy', from)
}

function take() {
  const file = fileField.value?.files?.[0]
  if (fileField.value) fileField.value.value = ''
  if (file) emit('file', file)
}
</script>

<template>
  <section aria-labelledby="elsewhere">
    <h2 id="elsewhere" class="rule-head">From and for elsewhere</h2>
    <ul>
      <li class="py-1">
        <button class="quiet" :aria-expanded="copying" @click="copying = !copying">
          Copy the plan of another lesson
        </button>
      </li>
      <li v-if="copying" class="pb-2">
        <select v-model="copyClass" class="field" aria-label="Class to copy from">
          <option value="">choose a class</option>
          <option v-for="c in classes.data.value" :key="c.id" :value="c.id">{{ c.name }}</option>
        </select>
        <ul class="max-h-56 overflow-y-auto">
          <li
            v-for="other in source.data.value?.lessons.filter((l) => l.prepared && l.id !== id)"
            :key="other.id"
            class="rule-line"
          >
            <span class="min-w-0 flex-1 truncate">{{ weekDay(other.plannedStart) }} {{ other.title }}</span>
            <button class="quiet text-small" @click="copy(other)">copy</button>
          </li>
        </ul>
        <p
          v-if="source.data.value && !source.data.value.lessons.some((l) => l.prepared && l.id !== id)"
          class="text-ink-soft"
        >
          No other lesson of it has a plan.
        </p>
      </li>
      <li class="py-1">
        <label class="quiet cursor-pointer focus-within:outline-2"
          >Bring in a plan file<input
            ref="fileField"
            type="file"
            class="sr-only"
            accept=".json,application/json"
            @change="take"
        /></label>
      </li>
      <li class="py-1">
        <a class="quiet" :href="`/api/lessons/${id}/plan.json`" download>Take it as a file</a>
      </li>
    </ul>
    <p class="mt-1 text-small text-ink-soft">
      {{ count(plan.questions.length, 'question') }}, {{ count(plan.stages.length, 'stage') }}.
    </p>
  </section>
</template>
