<script setup lang="ts">
defineProps<{ id: string; name?: string }>()
</script>

<template>
  <nav class="no-print mb-4 flex flex-wrap items-baseline gap-x-5 gap-y-1" aria-label="Class">
    <span class="text-lead font-bold">{{ name }}</span>
    <RouterLink class="tab" :to="`/classes/${id}`">Roster and lessons</RouterLink>
    <RouterLink class="tab" :to="`/classes/${id}/rules`">Ground rules</RouterLink>
    <RouterLink class="tab" :to="`/classes/${id}/scheme`">Scheme</RouterLink>
    <RouterLink class="tab" :to="`/classes/${id}/scores`">Scores</RouterLink>
    <RouterLink class="tab" :to="`/classes/${id}/report`">Report</RouterLink>
  </nav>
</template>

<style scoped>
.tab {
  color: var(--ink-soft);
  padding-bottom: 2px;
}
.tab.router-link-exact-active {
  color: var(--ink);
  font-weight: 700;
  border-bottom: 2.5px solid var(--ink);
}
</style>
