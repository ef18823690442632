<script setup lang="ts">
import { computed } from 'vue'
import LineList from '../../ui/LineList.vue'
import { wordsMoved } from './reminders'

/** Reminders of a class, and the words that are read to the class with some of them. */
defineProps<{ label: string }>()
const lines = defineModel<string[]>({ required: true })
const readAloud = defineModel<Record<string, string>>('readAloud', { required: true })

function write(after: string[]) {
  readAloud.value = wordsMoved(readAloud.value, lines.value, after)
  lines.value = after
}
const withWords = computed(() => lines.value.filter((l) => l in readAloud.value))
const without = computed(() => lines.value.filter((l) => l.trim() && !(l in readAloud.value)))
const set = (line: string, words: string) => (readAloud.value = { ...readAloud.value, [line]: words })
const takeOut = (line: string) =>
  (readAloud.value = Object.fromEntries(Object.entries(readAloud.value).filter(([l]) => l !== line)))
function choose(event: Event) {
  const select = event.target as HTMLSelectElement
  set(select.value, '')
  select.value = ''
}
</script>

<template>
  <LineList :model-value="lines" :label="label" add-label="Add a reminder" :most="20" @update:model-value="write" />
  <div v-for="line in withWords" :key="line" class="mt-2 text-small">
    <label
      >To read aloud: <b>{{ line }}</b>
      <textarea
        class="field mt-1"
        rows="3"
        maxlength="2000"
        :value="readAloud[line]"
        @input="set(line, ($event.target as HTMLTextAreaElement).value)"
      ></textarea>
    </label>
    <button type="button" class="quiet" :aria-label="`Take out the words of: ${line}`" @click="takeOut(line)">
      out
    </button>
  </div>
  <label v-if="without.length" class="mt-2 block text-small text-ink-soft"
    >Words to read aloud with
    <select class="field !w-auto" @change="choose">
      <option value="">choose a reminder</option>
      <option v-for="line in without" :key="line">{{ line }}</option>
    </select></label
  >
</template>
