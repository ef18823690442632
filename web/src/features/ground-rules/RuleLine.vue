<script setup lang="ts">
/** How a rule is laid out: what it is, its value, and what it comes to in an example. */
</script>

<template>
  <div class="rule">
    <slot name="what" />
    <slot />
    <span class="example"><slot name="example" /></span>
  </div>
</template>

<style scoped>
.rule {
  display: grid;
  grid-template-columns: 14.5rem 17rem minmax(0, 1fr);
  gap: 20px;
  align-items: baseline;
  border-bottom: 1px solid var(--rule);
  padding: 4px 0;
}
.rule :deep(.field):not(:hover, :focus) {
  border-color: transparent;
}
.example {
  color: var(--ink-soft);
}
@media (max-width: 860px) {
  .rule {
    grid-template-columns: minmax(0, 1fr);
    gap: 4px;
  }
}
</style>
