<script setup lang="ts">
import { computed, ref } from 'vue'
import { exampleOf, markFields, markOf, type Example, type Mark, type MarkField } from './marks'

/** The first lines of a file, in which the teacher marks what is what; the other lines are cut the same way. */
const props = defineProps<{ lines: string[] }>()
const emit = defineEmits<{ marks: [example: Example] }>()

const shown = ref<HTMLTextAreaElement>()
const marks = ref<Partial<Record<MarkField, Mark>>>({})
const missed = ref(false)
const made = computed(() => Object.values(marks.value))
const partOf = ({ line, from, to }: Mark) => props.lines[line]!.slice(from, to)

function mark(field: MarkField) {
  const { selectionStart, selectionEnd } = shown.value!
  const made = markOf(props.lines, field, selectionStart, selectionEnd)
  missed.value = !made
  if (made) marks.value[field] = made
  shown.value!.focus()
}
</script>

<template>
  <div class="max-w-[60rem]">
    <label class="block">
      <span class="text-small text-ink-soft"
        >Select the name in one of the lines, then press “Name”. Do the same with what stands beside. All other lines
        are read like this one.</span
      >
      <textarea
        ref="shown"
        class="field boxed mt-1 block font-mono text-small"
        readonly
        wrap="off"
        :rows="Math.min(lines.length, 10)"
        :value="lines.join('\n')"
      ></textarea>
    </label>
    <p class="mt-2 flex flex-wrap gap-x-5 gap-y-2">
      <button v-for="(label, field) in markFields" :key="field" class="press" @click="mark(field)">{{ label }}</button>
    </p>
    <p v-if="missed" role="alert" class="mt-1 text-small">Select a part of one line first.</p>
    <dl v-if="made.length" class="mt-2 grid grid-cols-[8rem_1fr] gap-y-1">
      <template v-for="m in made" :key="m.field">
        <dt class="text-ink-soft">{{ markFields[m.field] }}</dt>
        <dd>
          {{ partOf(m) }}
          <button class="quiet ml-3" :aria-label="`Unmark ${markFields[m.field]}`" @click="delete marks[m.field]">
            unmark
          </button>
        </dd>
      </template>
    </dl>
    <button v-if="marks.name" class="press-first mt-3" @click="emit('marks', exampleOf(lines, made))">
      Read the file like this
    </button>
  </div>
</template>
