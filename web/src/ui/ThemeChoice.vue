<script setup lang="ts">
import { ref } from 'vue'

const kept = localStorage.getItem('polite-tally-theme')
const theme = ref(kept === 'light' || kept === 'dark' ? kept : 'system')

function choose(event: Event) {
  theme.value = (event.target as HTMLSelectElement).value
  if (theme.value === 'system') {
    localStorage.removeItem('polite-tally-theme')
    delete document.documentElement.dataset.theme
  } else {
    localStorage.setItem('polite-tally-theme', theme.value)
    document.documentElement.dataset.theme = theme.value
  }
}
</script>

<template>
  <label>
    <span class="sr-only">Sheet</span>
    <select class="bg-paper underline decoration-rule decoration-2 underline-offset-4" :value="theme" @change="choose">
      <option value="system">Sheet as the system</option>
      <option value="light">Light sheet</option>
      <option value="dark">Dark sheet</option>
    </select>
  </label>
</template>
