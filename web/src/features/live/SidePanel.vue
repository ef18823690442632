<script setup lang="ts">
import { onMounted, useTemplateRef } from 'vue'
import KeyCap from '../../ui/KeyCap.vue'

/** What opens at the side, in place of the hand line; Esc puts it away. */
defineProps<{ title: string }>()
const emit = defineEmits<{ close: [] }>()

// The button that opened it may be gone from the page; whoever works by the keyboard goes on from here.
const panel = useTemplateRef<HTMLElement>('panel')
onMounted(() => panel.value?.focus())
</script>

<template>
  <section ref="panel" :aria-label="title" tabindex="-1" class="outline-none">
    <div class="flex items-baseline justify-between border-b-[1.5px] border-ink pb-0.5">
      <h2 class="font-semibold">{{ title }}</h2>
      <button class="quiet shrink-0 text-small text-ink-soft" @click="emit('close')">
        put away <KeyCap k="Esc" />
      </button>
    </div>
    <slot />
  </section>
</template>
