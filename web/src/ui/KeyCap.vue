<script setup lang="ts">
import { keyName } from './keyName'

defineProps<{ k: string }>()
</script>

<template>
  <!-- Drawn by style: what a button is called is its words, and the key stands beside them. -->
  <kbd class="cap" :data-key="keyName(k)" />
</template>

<style scoped>
.cap::after {
  content: attr(data-key);
}
.cap {
  display: inline-block;
  min-width: 1.05em;
  padding: 0 0.12em;
  border-bottom: 1.5px solid currentcolor;
  font-family: inherit;
  font-weight: 700;
  font-size: 0.92em;
  line-height: 1.15;
  text-align: center;
}
</style>
