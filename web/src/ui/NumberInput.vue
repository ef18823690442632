<script setup lang="ts">
import { ref, watch } from 'vue'
import { numberIn } from './numberIn'

/** A number, typed with a point or a comma. An empty field, or one with something else in it, is no number; it is not taken for 0. */
const number = defineModel<number | null | undefined>({ required: true })
const typed = ref('')
const typing = ref(false)
const show = () => (typed.value = number.value === null || number.value === undefined ? '' : String(number.value))
// What is being typed stays as it is typed until the field is left.
watch(number, () => typing.value || show(), { immediate: true })

function type(event: Event) {
  typing.value = true
  typed.value = (event.target as HTMLInputElement).value
  const found = numberIn(typed.value)
  number.value = Number.isFinite(found) ? found : null
}
function leave() {
  typing.value = false
  show()
}
</script>

<template>
  <input class="field" inputmode="decimal" autocomplete="off" :value="typed" @input="type" @blur="leave" />
</template>
