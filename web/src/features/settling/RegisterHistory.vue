<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { hour, shortDay } from '../../ui/format'

/** Who changed what on the register, and when. */
defineProps<{ past: Schemas['RegisterPast'][] }>()
</script>

<template>
  <details class="mt-3">
    <summary class="quiet inline-block">who changed what</summary>
    <ol class="mt-1">
      <li v-for="(one, i) in past" :key="i" class="past">
        <span class="text-ink-soft">{{ shortDay(one.at) }}, {{ hour(one.at) }}</span>
        <span>{{ one.by }}</span>
        <span
          >{{ one.said }}<span v-for="change in one.changes" :key="change" class="block">{{ change }}</span></span
        >
      </li>
    </ol>
  </details>
</template>

<style scoped>
.past {
  display: grid;
  grid-template-columns: 9rem 11rem 1fr;
  gap: 2px 18px;
  border-bottom: 1px solid var(--rule);
  padding: 3px 0;
  font-size: var(--text-small);
}
@media (max-width: 45rem) {
  .past {
    grid-template-columns: 1fr;
  }
}
</style>
