<script setup lang="ts">
import { ref } from 'vue'

/** The ways in which a report is taken along. */
const props = defineProps<{ at: string; query: string; figures: boolean; nameless: boolean }>()
const paper = ref('a4')
const print = () => window.print()
const named = ref(false)
function file(ending: string) {
  const query = new URLSearchParams(props.query)
  if (ending === 'pdf' && paper.value !== 'a4') query.set('paper', paper.value)
  if (props.nameless && named.value) query.set('hidden', 'false')
  return `${props.at}/file.${ending}${query.size ? `?${query}` : ''}`
}
</script>

<template>
  <p class="no-print mt-2 flex flex-wrap items-baseline gap-x-4 gap-y-1 text-small">
    <span>take as</span>
    <a class="quiet" :href="file('pdf')" download>PDF</a>
    <label
      ><span class="sr-only">paper</span>
      <select v-model="paper" class="field !w-auto">
        <option value="a4">on A4</option>
        <option value="letter">on letter</option>
      </select></label
    >
    <template v-if="figures">
      <a class="quiet" :href="file('xlsx')" download>workbook</a>
      <a class="quiet" :href="file('csv')" download>CSV</a>
    </template>
    <a class="quiet" :href="file('json')" download>JSON</a>
    <button class="quiet" @click="print">print</button>
    <label v-if="nameless" class="flex items-center gap-2 self-center"
      ><input v-model="named" type="checkbox" class="size-6" /> files with names</label
    >
    <slot />
  </p>
</template>
