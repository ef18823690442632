<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { hour } from '../../ui/format'

/** What stands here and nowhere else: messages that were hidden, and asides. */
defineProps<{ lines: Schemas['PutAway'][]; locked: boolean }>()
const emit = defineEmits<{ show: [entry: string] }>()
</script>

<template>
  <p v-for="p in lines" :key="p.entry" class="flex flex-wrap items-baseline gap-x-3 border-b border-rule py-1">
    <span class="text-ink-soft">{{ hour(p.at) }}</span> <b>{{ p.who }}</b>
    <span class="min-w-0 flex-1"
      ><i v-if="p.isAside">{{ p.text }}</i
      ><bdi v-else>{{ p.text }}</bdi></span
    >
    <span class="text-small text-ink-soft">{{ p.isAside ? 'aside, for you alone' : 'hidden' }}</span>
    <button v-if="!locked && !p.isAside" class="quiet text-small" @click="emit('show', p.entry)">show again</button>
  </p>
</template>
