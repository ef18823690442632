<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { computed, ref } from 'vue'
import { useLive } from '../../live/lesson'

/** Finds a student of the class by a part of their name. */
defineProps<{ label: string }>()
const emit = defineEmits<{ choose: [student: string] }>()
const { drawn } = useLive()
const query = ref('')
const found = computed(() => {
  const wanted = query.value.trim().toLowerCase()
  return drawn.value?.rows.filter((r) => `${r.called} ${r.rest}`.toLowerCase().includes(wanted)).slice(0, 8)
})
</script>

<template>
  <Combobox
    :model-value="null"
    nullable
    @update:model-value="(student: string | null) => student && emit('choose', student)"
  >
    <ComboboxInput
      class="field text-small"
      :aria-label="label"
      placeholder="somebody else…"
      autocomplete="off"
      @change="query = $event.target.value"
    />
    <ComboboxOptions class="border border-ink bg-paper">
      <ComboboxOption v-for="row in found" :key="row.id" v-slot="{ active }" :value="row.id" as="template">
        <li class="cursor-pointer px-2 py-0.5" :class="{ 'bg-paper-deep': active }">
          <b>{{ row.called }}</b> {{ row.rest }}
        </li>
      </ComboboxOption>
    </ComboboxOptions>
  </Combobox>
</template>
