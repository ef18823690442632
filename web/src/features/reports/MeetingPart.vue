<script setup lang="ts">
import type { Schemas } from '../../api/client'
import { kinds } from './kinds'

/** A part of a document for a meeting: which report it is, and what the teacher says before it. */
defineProps<{ sheet: Schemas['ScoreSheet']; place: number; last: boolean }>()
const emit = defineEmits<{ move: [steps: number]; remove: [] }>()
const part = defineModel<Schemas['MeetingPart']>({ required: true })
const value = (event: Event) => (event.target as HTMLSelectElement | HTMLTextAreaElement).value
const choose = (kind: string) => (part.value = { ...part.value, kind, student: null, lesson: null })
</script>

<template>
  <li class="border-b border-rule py-2">
    <p class="flex flex-wrap items-baseline gap-x-4 gap-y-1 text-small">
      <b>{{ place + 1 }}</b>
      <label
        ><span class="sr-only">part {{ place + 1 }}</span>
        <select class="field !w-auto" :value="part.kind" @change="choose(value($event))">
          <option value="">a note</option>
          <option v-for="k in kinds" :key="k.kind" :value="k.kind">{{ k.label }}</option>
        </select></label
      >
      <label v-if="part.kind === 'student'"
        ><span class="sr-only">student</span>
        <select
          class="field !w-auto"
          :value="part.student ?? ''"
          @change="part = { ...part, student: value($event) || null }"
        >
          <option value="">which student?</option>
          <option v-for="s in sheet.students" :key="s.id" :value="s.id">{{ s.called }} {{ s.rest }}</option>
        </select></label
      >
      <label v-if="part.kind === 'lesson'"
        ><span class="sr-only">lesson</span>
        <select
          class="field !w-auto"
          :value="part.lesson ?? ''"
          @change="part = { ...part, lesson: value($event) || null }"
        >
          <option value="">which lesson?</option>
          <option v-for="l in sheet.lessons" :key="l.id" :value="l.id">{{ l.number }}, {{ l.title }}</option>
        </select></label
      >
      <button class="quiet" :disabled="place === 0" @click="emit('move', -1)">up</button>
      <button class="quiet" :disabled="last" @click="emit('move', 1)">down</button>
      <button class="quiet" @click="emit('remove')">take out</button>
    </p>
    <label class="mt-1 block text-small"
      ><span class="sr-only">what you say before part {{ place + 1 }}</span>
      <textarea
        class="field"
        rows="1"
        maxlength="4000"
        placeholder="what you say before it"
        :value="part.note"
        @input="part = { ...part, note: value($event) }"
      />
    </label>
  </li>
</template>
