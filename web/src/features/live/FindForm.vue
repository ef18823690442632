<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import type { DrawnRow } from '../../live/drawn'
import KeyCap from '../../ui/KeyCap.vue'

/** Finds a student by the beginning or any part of the name, for whoever does not know the keys. */
const props = defineProps<{ rows: readonly DrawnRow[] }>()
const emit = defineEmits<{ found: [student: string]; close: [] }>()
const text = ref('')
const field = ref<HTMLInputElement>()
onMounted(() => field.value?.focus())
const matches = computed(() => {
  const wanted = text.value.trim().toLowerCase()
  return wanted ? props.rows.filter((r) => `${r.called} ${r.rest}`.toLowerCase().includes(wanted)) : []
})
const choose = () => (matches.value[0] ? emit('found', matches.value[0].id) : emit('close'))
</script>

<template>
  <form @submit.prevent="choose">
    <label class="shrink-0" for="find">Find</label>
    <input
      id="find"
      ref="field"
      v-model="text"
      class="field !min-h-7 max-w-56 !py-0"
      aria-label="Find a student by name"
      autocomplete="off"
      @keydown.esc.stop="emit('close')"
    />
    <button
      v-for="(row, i) in matches.slice(0, 5)"
      :key="row.id"
      type="button"
      class="quiet shrink-0"
      @click="emit('found', row.id)"
    >
      <b>{{ row.called }}</b> {{ row.rest }} <KeyCap v-if="i === 0" k="Enter" />
    </button>
    <button type="button" class="quiet ml-auto shrink-0" @click="emit('close')">put away <KeyCap k="Esc" /></button>
  </form>
</template>
