<script setup lang="ts">
import { computed } from 'vue'
import { useRoute } from 'vue-router'

defineProps<{ id: string; name?: string }>()
const route = useRoute()
const reports = computed(() => route.path.includes('/reports/'))
</script>

<template>
  <!-- The name comes with the page; in a line of its own that has its height already, it moves no tab away from under the pointer. -->
  <p class="no-print min-h-[1lh] text-lead font-bold">{{ name }}</p>
  <nav class="no-print mb-4 flex flex-wrap items-baseline gap-x-5 gap-y-1" aria-label="Class">
    <RouterLink class="tab" :to="`/classes/${id}`">Roster and lessons</RouterLink>
    <RouterLink class="tab" :to="`/classes/${id}/rules`">Ground rules</RouterLink>
    <RouterLink class="tab" :to="`/classes/${id}/scheme`">Scheme</RouterLink>
    <RouterLink class="tab" :to="`/classes/${id}/scores`">Scores</RouterLink>
    <RouterLink class="tab" :class="{ open: reports }" :to="`/classes/${id}/report`">Reports</RouterLink>
  </nav>
</template>

<style scoped>
.tab {
  color: var(--ink-soft);
  padding-bottom: 2px;
}
.tab.open,
.tab.router-link-exact-active {
  color: var(--ink);
  font-weight: 700;
  border-bottom: 2.5px solid var(--ink);
}
</style>
