<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import SpanChoice from '../../ui/SpanChoice.vue'
import { shortDay } from '../../ui/format'
import type { Asked, Kind } from './kinds'

/** What a report is about: whom, which lesson, which days, and for whom it is. */
const props = defineProps<{ kind: Kind; sheet: Schemas['ScoreSheet']; asked: Asked }>()
const emit = defineEmits<{ ask: [asked: Asked] }>()
const value = (event: Event) => (event.target as HTMLSelectElement).value
const place = computed(() => props.sheet.students.findIndex((s) => s.id === props.asked.student))
const go = (steps: number) => {
  const next = props.sheet.students[place.value + steps]
  if (next) emit('ask', { ...props.asked, student: next.id })
}
</script>

<template>
  <p class="no-print flex flex-wrap items-baseline gap-x-5 gap-y-1 text-small">
    <template v-if="kind === 'student'">
      <label
        >student
        <select
          class="field !w-auto"
          :value="asked.student"
          @change="emit('ask', { ...asked, student: value($event) })"
        >
          <option v-for="s in sheet.students" :key="s.id" :value="s.id">{{ s.called }} {{ s.rest }}</option>
        </select></label
      >
      <button class="quiet" :disabled="place <= 0" @click="go(-1)">the one before</button>
      <button class="quiet" :disabled="place >= sheet.students.length - 1" @click="go(1)">the next</button>
    </template>
    <label v-if="kind === 'lesson'"
      >lesson
      <select class="field !w-auto" :value="asked.lesson" @change="emit('ask', { ...asked, lesson: value($event) })">
        <option v-for="l in sheet.lessons" :key="l.id" :value="l.id">
          {{ l.number }}, {{ l.title }}, {{ shortDay(l.plannedStart) }}
        </option>
      </select></label
    >
    <SpanChoice
      v-if="kind !== 'lesson'"
      :terms="sheet.terms"
      :from="asked.from"
      :to="asked.to"
      @ask="(span) => emit('ask', { ...asked, ...span })"
    />
    <label v-if="kind === 'student'"
      >for
      <select
        class="field !w-auto"
        :value="asked.reader ?? 'student'"
        @change="emit('ask', { ...asked, reader: value($event) === 'student' ? undefined : value($event) })"
      >
        <option value="student">the student</option>
        <option value="guardian">guardians</option>
      </select></label
    >
    <label v-else class="flex items-center gap-2 self-center"
      ><input
        type="checkbox"
        class="size-6"
        :checked="asked.hidden"
        @change="emit('ask', { ...asked, hidden: ($event.target as HTMLInputElement).checked })"
      />
      without names</label
    >
  </p>
</template>
