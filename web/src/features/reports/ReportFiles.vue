<script setup lang="ts">
import { ref } from 'vue'

/** The ways in which a report is taken along. */
const props = defineProps<{ at: string; query: string; figures: boolean }>()
const paper = ref('a4')
const print = () => window.print()
const file = (ending: string) =>
  `${props.at}/file.${ending}${props.query}${ending === 'pdf' && paper.value !== 'a4' ? `${props.query ? '&' : '?'}paper=${paper.value}` : ''}`
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
    <slot />
  </p>
</template>
