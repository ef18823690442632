<script setup lang="ts">
import { ref } from 'vue'
import { atHour, hour } from '../../ui/format'

/** Asks for a time of day in a lesson. */
const props = defineProps<{ day: number }>()
const emit = defineEmits<{ choose: [at: number] }>()
const time = ref(hour(props.day))
</script>

<template>
  <span class="inline-flex flex-wrap items-baseline gap-3">
    <label>at <input v-model="time" type="time" class="field inline-block w-auto" required /></label>
    <button class="press" :disabled="!time" @click="emit('choose', atHour(time, day))">It was then</button>
  </span>
</template>
