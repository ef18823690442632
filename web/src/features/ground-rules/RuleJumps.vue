<script setup lang="ts">
import { onMounted } from 'vue'

/** A list of the parts of a long page, to jump by; whoever came with one of them in the address is there at once. */
const props = defineProps<{ parts: readonly { id: string; label: string }[] }>()
const go = (id: string) => document.getElementById(id)?.scrollIntoView({ block: 'start' })
onMounted(() => {
  const wanted = location.hash.slice(1)
  if (props.parts.some((p) => p.id === wanted)) go(wanted)
})
</script>

<template>
  <nav class="flex flex-wrap gap-x-5 text-small" aria-label="Parts of the ground rules">
    <a v-for="part in parts" :key="part.id" class="quiet" :href="`#${part.id}`" @click.prevent="go(part.id)">{{
      part.label
    }}</a>
  </nav>
</template>
