<script setup lang="ts">
import { useLive } from '../../live/lesson'
import { second } from '../../ui/format'

/** What was noted last, the newest first, press by press: each is struck out by itself, and put back. */
defineProps<{ canStrike: boolean }>()
const { drawn, strike } = useLive()
</script>

<template>
  <ol class="entries" aria-label="Last entries">
    <li v-for="entry in drawn?.entries.slice(0, 6)" :key="entry.id" :class="entry.state">
      <span class="said"
        ><b>{{ second(entry.at) }}</b> {{ entry.text }}<i v-if="entry.helper">, {{ entry.helper }}</i></span
      >
      <button
        v-if="entry.canStrike && entry.state !== 'struck' && canStrike"
        class="quiet strike"
        :aria-label="`Strike out: ${entry.text}`"
        @click="strike(...entry.entries)"
      >
        strike
      </button>
      <button
        v-else-if="entry.struckBy.length && canStrike"
        class="quiet strike"
        :aria-label="`Put back: ${entry.text}`"
        @click="strike(...entry.struckBy)"
      >
        put back
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
.entries .struck .said {
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
