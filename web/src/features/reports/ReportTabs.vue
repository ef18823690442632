<script setup lang="ts">
import { kinds } from './kinds'

/** The reports of a class. */
defineProps<{ id: string }>()
</script>

<template>
  <nav class="no-print -mt-2 mb-4 flex flex-wrap gap-x-5 text-small" aria-label="Reports">
    <RouterLink class="tab" :to="`/classes/${id}/report`">The class</RouterLink>
    <RouterLink v-for="k in kinds" :key="k.kind" class="tab" :to="{ name: 'reports', params: { id, kind: k.kind } }">{{
      k.label
    }}</RouterLink>
    <RouterLink class="tab" :to="{ name: 'meeting', params: { id } }">For a meeting</RouterLink>
    <RouterLink class="tab" :to="{ name: 'past', params: { id } }">Look back</RouterLink>
  </nav>
</template>

<style scoped>
.tab {
  display: inline-flex;
  align-items: center;
  min-height: 28px;
  color: var(--ink-soft);
}
.tab.router-link-active {
  color: var(--ink);
  font-weight: 700;
}
</style>
