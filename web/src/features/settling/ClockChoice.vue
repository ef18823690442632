<script setup lang="ts">
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/vue'
import { ref } from 'vue'
import type { Schemas } from '../../api/client'

/** The clock of a file set by hand, or left to be reckoned. */
const props = defineProps<{ file: Schemas['FileIn'] }>()
const emit = defineEmits<{ choose: [aheadSeconds: number | null] }>()
const seconds = ref(String(props.file.aheadSeconds))

function set(close: () => void) {
  const ahead = Number(seconds.value)
  if (!Number.isFinite(ahead)) return
  emit('choose', ahead)
  close()
}
</script>

<template>
  <Popover v-slot="{ close }" class="relative inline-block">
    <PopoverButton class="quiet text-small" :aria-label="`Set the clock of ${file.name}`">set it</PopoverButton>
    <PopoverPanel class="panel">
      <form class="flex flex-wrap items-baseline gap-3" @submit.prevent="set(close)">
        <label
          >Seconds ahead of the lesson, less than 0 if behind
          <input v-model="seconds" class="field mt-1 w-[8rem]" inputmode="numeric" /></label
        ><button class="press">Set</button>
        <button v-if="file.clockByHand" type="button" class="quiet" @click="(emit('choose', null), close())">
          reckon it again
        </button>
      </form>
    </PopoverPanel>
  </Popover>
</template>

<style scoped>
.panel {
  position: absolute;
  z-index: 10;
  width: 17rem;
  border: 1.5px solid var(--ink);
  background: var(--paper);
  padding: 12px 14px;
}
</style>
