<script setup lang="ts">
import { Combobox, ComboboxInput, ComboboxOption, ComboboxOptions } from '@headlessui/vue'
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'

const props = defineProps<{ people: Schemas['Person'][]; forName: string; disabled?: boolean }>()
const emit = defineEmits<{ choose: [student: string] }>()
const typed = ref('')
const fitting = computed(() => {
  const wanted = typed.value.trim().toLowerCase()
  return props.people.filter((p) => p.fullName.toLowerCase().includes(wanted)).slice(0, 8)
})
</script>

<template>
  <Combobox
    :model-value="null"
    :disabled="disabled"
    as="div"
    class="relative inline-block w-44"
    @update:model-value="(s: string | null) => s && emit('choose', s)"
  >
    <ComboboxInput
      class="field"
      :aria-label="`Who is ${forName}?`"
      placeholder="somebody else"
      autocomplete="off"
      @change="typed = $event.target.value"
    />
    <ComboboxOptions class="absolute z-10 w-64 border-[1.5px] border-ink bg-paper">
      <ComboboxOption v-for="p in fitting" :key="p.id" v-slot="{ active }" :value="p.id">
        <span class="block cursor-pointer px-2 py-1" :class="{ 'bg-paper-deep font-semibold': active }">{{
          p.fullName
        }}</span>
      </ComboboxOption>
    </ComboboxOptions>
  </Combobox>
</template>
