<script setup lang="ts">
import { onMounted, ref } from 'vue'
import KeyCap from '../../ui/KeyCap.vue'

/** A word about somebody, for the teacher alone, noted without leaving the sheet. */
defineProps<{ name: string }>()
const emit = defineEmits<{ note: [text: string]; close: [] }>()
const text = ref('')
const field = ref<HTMLInputElement>()
onMounted(() => field.value?.focus())
</script>

<template>
  <form @submit.prevent="emit('note', text.trim())">
    <label class="shrink-0" for="aside"
      ><b>{{ name }}</b
      >, aside</label
    >
    <input
      id="aside"
      ref="field"
      v-model="text"
      class="field !min-h-7 !py-0"
      maxlength="2000"
      @keydown.esc.stop="emit('close')"
    />
    <button class="quiet shrink-0">note it <KeyCap k="Enter" /></button>
  </form>
</template>
