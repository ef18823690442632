<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { useLive } from '../../live/lesson'
import { clock } from '../../ui/format'
import { markWords } from './markWords'

/** Who has answered a question, who has not, who cannot. */
const props = defineProps<{
  view: Schemas['AskingView']
  naming: boolean
  nameOf: (student: string) => string
}>()
const emit = defineEmits<{ answerFor: [student: string] }>()
/** Those whose answer is shown with their name. */
const named = defineModel<string[]>('named', { required: true })
const { now, note } = useLive()

const quiz = computed(() => props.view.question.purpose === 'quiz')
const answered = computed(() => props.view.students.filter((s) => s.answer !== null))
const others = computed(() => {
  const open = props.view.students.filter((s) => s.answer === null && !s.cannot)
  return [
    { title: 'not yet', those: open.filter((s) => s.here) },
    { title: 'cannot', those: props.view.students.filter((s) => s.cannot) },
    { title: 'not here', those: open.filter((s) => !s.here) },
  ].filter((o) => o.those.length)
})
const timeLeft = (deadline: number | null) =>
  deadline !== null && deadline > now.value ? clock(deadline - now.value) : ''
</script>

<template>
  <p class="mt-4 border-b-[1.5px] border-ink text-small font-semibold">
    {{ answered.length }} answered
    <span v-if="naming" class="font-normal text-ink-soft">– tick those whose answer is shown with their name</span>
  </p>
  <div class="columns">
    <p v-for="s in answered" :key="s.student" class="student">
      <input
        v-if="naming"
        v-model="named"
        type="checkbox"
        class="size-4"
        :value="s.student"
        :aria-label="`Show the answer of ${nameOf(s.student)} with their name`"
      />
      <b>{{ nameOf(s.student) }}</b>
      <bdi class="flex-1 truncate">{{ s.answer }}</bdi>
      <i v-if="s.byTeacher" class="text-small text-ink-soft">entered</i>
      <b v-if="quiz">{{ s.marks === null ? 'to mark' : markWords(s.marks) }}</b>
      <button
        class="quiet text-small"
        :aria-label="`Answer for ${nameOf(s.student)}`"
        @click="emit('answerFor', s.student)"
      >
        other
      </button>
    </p>
  </div>
  <template v-for="{ title, those } in others" :key="title">
    <p class="mt-3 border-b-[1.5px] border-ink text-small font-semibold">{{ those.length }} {{ title }}</p>
    <div class="columns">
      <p v-for="s in those" :key="s.student" class="student">
        <b>{{ nameOf(s.student) }}</b>
        <span class="flex-1 text-small text-ink-soft">{{ timeLeft(s.deadline) }}</span>
        <button
          class="quiet text-small"
          :aria-label="`Answer for ${nameOf(s.student)}`"
          @click="emit('answerFor', s.student)"
        >
          answer for them
        </button>
        <button
          v-if="!s.cannot"
          class="quiet text-small"
          :aria-label="`${nameOf(s.student)} cannot answer`"
          @click="note({ type: 'cannotAnswer', student: s.student, asking: view.asking })"
        >
          cannot
        </button>
      </p>
    </div>
  </template>
</template>

<style scoped>
/* Names beside each other, so that who has not answered is seen at a glance. */
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(17rem, 1fr));
  column-gap: 28px;
}
.student {
  display: flex;
  gap: 10px;
  align-items: baseline;
  min-height: 28px;
  padding: 3px 0;
  border-bottom: 1px solid var(--rule);
  overflow-wrap: anywhere;
}
</style>
