<script setup lang="ts">
import { onBeforeUnmount, onMounted, ref, useTemplateRef, watch } from 'vue'
import { api, ask } from '../api/client'
import Rendered from './Rendered.vue'

/** A text in Markdown, and beside it what the class will see. */
const props = defineProps<{
  label: string
  placeholder?: string
  rows?: number
  /** Whoever opened it wants to write. */
  focused?: boolean
}>()
const field = useTemplateRef<HTMLTextAreaElement>('field')
onMounted(() => props.focused && field.value?.focus())
const text = defineModel<string>({ required: true })
const html = ref('')
const problems = ref<string[]>([])
let timer: ReturnType<typeof setTimeout> | undefined

async function look() {
  if (!text.value.trim()) {
    html.value = ''
    problems.value = []
    return
  }
  const look = await ask(api.POST('/api/markdown', { body: { text: text.value } })).catch((failure: Error) => ({
    html: '',
    problems: [failure.message],
  }))
  html.value = look.html
  problems.value = look.problems
}

watch(
  text,
  () => {
    clearTimeout(timer)
    timer = setTimeout(look, 200)
  },
  { immediate: true },
)
onBeforeUnmount(() => clearTimeout(timer))
</script>

<template>
  <div class="pair">
    <label
      ><span class="sr-only">{{ label }}</span
      ><textarea
        ref="field"
        v-model="text"
        class="field"
        :rows="rows ?? 4"
        :placeholder="placeholder"
        :aria-invalid="problems.length > 0"
      />
    </label>
    <div class="min-w-0" aria-live="polite">
      <p v-for="problem in problems" :key="problem" class="font-semibold" role="alert">{{ problem }}</p>
      <Rendered v-if="!problems.length" class="text-ink-soft" :html="html" />
    </div>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 20px;
}
textarea {
  resize: vertical;
}
@media (max-width: 700px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
