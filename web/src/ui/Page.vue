<script setup lang="ts">
/** A page of the exercise book: a margin line on the left, a heading, and what belongs to it. */
defineProps<{ title?: string; lead?: string }>()
</script>

<template>
  <main class="page">
    <div class="inner">
      <slot name="above" />
      <h1 v-if="title" class="text-title font-bold">{{ title }}</h1>
      <p v-if="lead" class="mt-1 max-w-[46rem] text-lead text-ink-soft">{{ lead }}</p>
      <slot />
    </div>
  </main>
</template>

<style scoped>
.page {
  min-height: calc(100dvh - 54px);
  padding-left: clamp(0px, 5vw, 64px);
}
.inner {
  min-height: inherit;
  border-left: 2px solid var(--margin);
  padding: 22px 28px 48px 22px;
}
@media print {
  .page {
    padding: 0;
  }
  .inner {
    border: 0;
    padding: 0;
  }
}
</style>
