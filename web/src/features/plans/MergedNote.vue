<script setup lang="ts">
import type { Schemas } from '../../api/client'
import Notice from '../../ui/Notice.vue'

/** Says that two windows changed one plan, and what of the other did not stand. */
defineProps<{ conflicts: readonly Schemas['MergeConflict'][] }>()
const emit = defineEmits<{ read: [] }>()
</script>

<template>
  <Notice>
    Another window changed this plan meanwhile. Both changes are in it now<template v-if="conflicts.length"
      >, but for what both had changed: yours stands, and the other is here.</template
    ><template v-else>.</template>
    <span v-for="(conflict, i) in conflicts" :key="i" class="block"
      ><span class="text-ink-soft">{{ conflict.path.join(' ') }}:</span> “{{ conflict.theirs }}”</span
    >
    <button class="quiet ml-3" @click="emit('read')">Put away</button>
  </Notice>
</template>
