<script setup lang="ts">
import type { Schemas } from '../../api/client'
import KeyCap from '../../ui/KeyCap.vue'

/** What everyone is asked to speak to, ticked in the turn that is on. */
defineProps<{ points: readonly Schemas['PointToCover'][]; covered: readonly string[] }>()
const emit = defineEmits<{ cover: [point: string] }>()
</script>

<template>
  <div class="mt-2" role="group" aria-label="Points to cover">
    <button
      v-for="(point, i) in points"
      :key="point.id"
      class="point"
      :aria-pressed="covered.includes(point.id)"
      :disabled="covered.includes(point.id)"
      @click="emit('cover', point.id)"
    >
      <KeyCap v-if="i < 5" :k="String(i + 1)" />
      <span :class="{ done: covered.includes(point.id) }">{{ point.text }}</span>
    </button>
  </div>
</template>

<style scoped>
.point {
  display: flex;
  width: 100%;
  gap: 8px;
  align-items: baseline;
  min-height: 24px;
  text-align: start;
  font-size: var(--text-small);
}
.done {
  text-decoration: line-through;
}
</style>
