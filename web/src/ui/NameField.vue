<script setup lang="ts">
import { ref } from 'vue'

/**
 * A name that is changed in place. What is being typed stays, however often the name is drawn anew meanwhile;
 * Enter or leaving the field says the change, Escape leaves the name as it was.
 */
const props = defineProps<{ name: string }>()
const emit = defineEmits<{ change: [name: string] }>()
const typed = ref<string>()

function leave() {
  const name = typed.value?.trim()
  typed.value = undefined
  if (name !== undefined && name !== props.name) emit('change', name)
}
function giveUp(event: KeyboardEvent) {
  typed.value = undefined
  ;(event.target as HTMLInputElement).blur()
}
</script>

<template>
  <input
    :value="typed ?? name"
    @input="typed = ($event.target as HTMLInputElement).value"
    @blur="leave"
    @keydown.enter="($event.target as HTMLInputElement).blur()"
    @keydown.esc.stop="giveUp"
  />
</template>
