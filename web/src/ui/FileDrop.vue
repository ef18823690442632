<script setup lang="ts">
import { ref } from 'vue'

/** A place to drop a file on, or several where they are taken, and beside it the picker. Each comes by itself. */
const props = defineProps<{ what: string; hint: string; busy?: boolean; accept?: string; several?: boolean }>()
const emit = defineEmits<{ file: [file: File] }>()

const over = ref(false)
const picker = ref<HTMLInputElement>()

const take = (files?: FileList | null) =>
  [...(files ?? [])].slice(0, props.several ? undefined : 1).forEach((file) => emit('file', file))

function dropped(event: DragEvent) {
  over.value = false
  take(event.dataTransfer?.files)
}

function picked() {
  take(picker.value?.files)
  // So that the same file, put right, can be picked again.
  if (picker.value) picker.value.value = ''
}
</script>

<template>
  <div
    class="drop flex flex-wrap items-center gap-x-6 gap-y-2 px-5 py-5"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="dropped"
  >
    <p class="min-w-[14rem] flex-1">
      <strong class="font-semibold">Drop {{ what }} here</strong>
      <span class="block text-small text-ink-soft">{{ hint }}</span>
    </p>
    <label class="press-first cursor-pointer focus-within:outline-2 focus-within:outline-offset-2">
      {{ busy ? 'Reading…' : several ? 'Choose files' : 'Choose a file' }}
      <input
        ref="picker"
        type="file"
        class="sr-only"
        :accept="props.accept ?? '.csv,.txt,.tsv,text/csv,text/plain'"
        :disabled="busy"
        :multiple="several"
        @change="picked"
      />
    </label>
  </div>
</template>

<style scoped>
.drop {
  border: 1.5px dashed var(--ink-soft);
}
.over {
  border-style: solid;
  background: var(--paper-deep);
}
</style>
