<script setup lang="ts">
/** Says what happened, what was kept and what to do; beside the thing it is about, never over it. */
defineProps<{ tone?: 'wrong' | 'plain' }>()
</script>

<template>
  <p class="notice" :class="tone ?? 'plain'" :role="tone === 'wrong' ? 'alert' : 'status'"><slot /></p>
</template>

<style scoped>
.notice {
  padding: 0.35rem 0 0.35rem 0.85rem;
  border-left: 3px solid var(--rule);
  max-width: 46rem;
}
.wrong {
  border-left: 3px double var(--ink);
  font-weight: 600;
}
</style>
