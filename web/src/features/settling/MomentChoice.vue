<script setup lang="ts">
import { ref } from 'vue'
import { hour } from '../../ui/format'

/** Asks for a time of day in a lesson. */
const props = defineProps<{ day: number }>()
const emit = defineEmits<{ choose: [at: number] }>()
const time = ref(hour(props.day))

const minutesOf = (text: string) => text.split(':').reduce((sum, part) => sum * 60 + Number(part), 0)

// From the moment that is known, so that it is a time of the school's clock whatever clock this machine has.
const choose = () => emit('choose', props.day + (minutesOf(time.value) - minutesOf(hour(props.day))) * 60_000)
</script>

<template>
  <span class="inline-flex flex-wrap items-baseline gap-3">
    <label>at <input v-model="time" type="time" class="field inline-block w-auto" required /></label>
    <button class="press" :disabled="!time" @click="choose">It was then</button>
  </span>
</template>
