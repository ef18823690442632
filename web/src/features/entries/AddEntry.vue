<script setup lang="ts">
import { computed, ref } from 'vue'
import { atHour, hour } from '../../ui/format'
import type { Act } from '../../live/outbox'
import { actsOf } from '../../live/acts'

/** Adds what was not noted at its time. */
const props = defineProps<{ student: string; name: string; nodReasons: readonly string[]; near: number; at: number }>()
const emit = defineEmits<{ add: [act: Act, at: number] }>()

// What only makes sense while the lesson goes on is left out.
const passing = ['call', 'handOn', 'pause']
const acts = computed(() => actsOf(props.nodReasons).filter((a) => !passing.includes(a.name)))
const chosen = ref('')
const time = ref(hour(props.at))

function add() {
  const act = acts.value.find((a) => a.name === chosen.value)
  if (act && time.value) emit('add', act.make(props.student), atHour(time.value, props.near))
  chosen.value = ''
}
</script>

<template>
  <form class="flex flex-wrap items-end gap-x-3 gap-y-1 pt-2 text-small" @submit.prevent="add">
    <label
      >Add<select v-model="chosen" class="field" :aria-label="`What ${name} did`" required>
        <option value="" disabled>what?</option>
        <option v-for="act in acts" :key="act.name" :value="act.name">
          {{ act.pen === 'nods' ? `nod, ${act.label}` : act.label }}
        </option>
      </select></label
    >
    <label>at<input v-model="time" type="time" class="field" required :aria-label="`When ${name} did it`" /></label>
    <button class="press">Add</button>
  </form>
</template>
