<script setup lang="ts">
import { keyName } from './keyName'

defineProps<{ k: string }>()
</script>

<template>
  <kbd class="cap">{{ keyName(k) }}</kbd>
</template>

<style scoped>
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
