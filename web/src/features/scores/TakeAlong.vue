<script setup lang="ts">
import { ref } from 'vue'

/** An explanation is taken along: as words to be pasted anywhere, or on paper. */
const props = defineProps<{ text: string }>()
const said = ref('')
async function copy() {
  try {
    await navigator.clipboard.writeText(props.text)
    said.value = 'copied'
  } catch {
    said.value = 'The browser does not let this page copy.'
  }
}
const print = () => window.print()
</script>

<template>
  <p class="no-print mt-2 flex gap-4 text-small">
    <button class="quiet" @click="copy">copy</button>
    <button class="quiet" @click="print">print</button>
    <span role="status" class="text-ink-soft">{{ said }}</span>
  </p>
</template>
