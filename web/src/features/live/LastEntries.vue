<script setup lang="ts">
import { useLive } from '../../live/lesson'
import { second } from '../../ui/format'

/** The last entries, the newest first, each to be struck out by itself. */
defineProps<{ canStrike: boolean }>()
const { drawn, strike } = useLive()
</script>

<template>
  <ol class="entries" aria-label="Last entries">
    <li v-for="entry in drawn?.entries.slice(0, 6)" :key="entry.id" :class="entry.state">
      <b>{{ second(entry.at) }}</b> {{ entry.text }}<i v-if="entry.helper">, {{ entry.helper }}</i>
      <button
        v-if="entry.canStrike && entry.state !== 'struck' && canStrike"
        class="quiet strike"
        :aria-label="`Strike out: ${entry.text}`"
        @click="strike(entry.id)"
      >
        strike
      </button>
    </li>
  </ol>
</template>

<style scoped>
.entries {
  display: flex;
  flex: 1;
  min-width: 0;
  gap: 14px;
  overflow: hidden;
  white-space: nowrap;
  color: var(--ink-soft);
}
.entries b {
  color: var(--ink);
}
.entries .pencil {
  font-style: italic;
}
.entries .struck {
  text-decoration: line-through;
}
.strike {
  color: var(--ink-soft);
}
@media (max-width: 900px) {
  .entries {
    flex-basis: 100%;
    order: 3;
  }
}
</style>
