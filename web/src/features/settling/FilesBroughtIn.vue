<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { count, hour } from '../../ui/format'
import Notice from '../../ui/Notice.vue'

/** The files that were brought in: each is taken out again by one press, and put back by one. */
const props = defineProps<{ lesson: string; files: Schemas['FileIn'][] }>()
const emit = defineEmits<{ done: [view: Schemas['SettlingView']] }>()
const problem = ref<string>()

async function change(file: Schemas['FileIn']) {
  const path = { id: props.lesson, file: file.id }
  problem.value = undefined
  try {
    const answer = file.takenOut
      ? api.POST('/api/lessons/{id}/files/{file}', { params: { path } })
      : api.DELETE('/api/lessons/{id}/files/{file}', { params: { path } })
    emit('done', await ask(answer))
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}
</script>

<template>
  <ul class="mb-2">
    <li v-for="f in files" :key="f.id" class="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
      <span :class="{ 'text-ink-soft line-through': f.takenOut }"
        ><b>{{ f.name }}</b> {{ count(f.entries, 'entry', 'entries') }}, brought in at {{ hour(f.notedAt) }}</span
      >
      <i v-if="f.takenOut" class="text-small text-ink-soft">taken out: it counts for nothing</i>
      <button
        v-if="f.canBeTakenOut"
        class="quiet text-small"
        :aria-label="f.takenOut ? `Put back ${f.name}` : `Take out ${f.name}`"
        @click="change(f)"
      >
        {{ f.takenOut ? 'put back' : 'take out' }}
      </button>
    </li>
  </ul>
  <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
</template>
