<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { isoDay } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import { asPlanned, changeLesson, type Lesson } from './lessons'

/** When and what a lesson is to be, opened in its place; without one, of a lesson to plan. */
const props = defineProps<{ classId: string; lesson?: Lesson; day?: string; link?: string | null }>()
const emit = defineEmits<{ done: [done: Done]; close: [] }>()
const begun = !!props.lesson && props.lesson.stage !== 'planned'
const planned = ref<Schemas['LessonPlanned']>(
  props.lesson
    ? asPlanned(props.lesson)
    : {
        title: '',
        day: props.day ?? isoDay(Date.now()),
        time: '09:30',
        minutes: 50,
        dropIn: false,
        meetingLink: props.link ?? '',
        cancelled: false,
      },
)
const problem = ref<string>()

async function store(cancelled = planned.value.cancelled) {
  problem.value = undefined
  const body = { ...planned.value, cancelled, meetingLink: planned.value.meetingLink || null }
  try {
    if (props.lesson) {
      const before = asPlanned(props.lesson)
      const id = props.lesson.id
      await changeLesson(id, body)
      const said =
        cancelled === before.cancelled ? 'is changed' : cancelled ? 'is cancelled' : 'is back on the calendar'
      emit('done', { said: `“${body.title}” ${said}.`, undo: () => changeLesson(id, before) })
    } else {
      const made = await ask(
        api.POST('/api/classes/{id}/lessons/planned', { params: { path: { id: props.classId } }, body }),
      )
      emit('done', {
        said: `“${made.title}” is planned.`,
        undo: () => changeLesson(made.id, { ...body, cancelled: true }),
      })
    }
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}
</script>

<template>
  <form class="opened" @submit.prevent="store()" @keydown.esc.stop="emit('close')">
    <div class="field-grid">
      <label class="wide"
        >What it is about<input v-model="planned.title" class="field" maxlength="100" required
      /></label>
      <label>Day<input v-model="planned.day" class="field" type="date" required :disabled="begun" /></label>
      <label>Starts<input v-model="planned.time" class="field" type="time" required :disabled="begun" /></label>
      <label
        >Minutes<input
          v-model.number="planned.minutes"
          class="field"
          type="number"
          min="5"
          max="600"
          required
          :disabled="begun"
      /></label>
      <label
        >Who comes<select v-model="planned.dropIn" class="field" :disabled="begun">
          <option :value="false">everybody: required</option>
          <option :value="true">who likes: drop-in</option>
        </select></label
      >
      <label class="wide"
        >Link to the meeting<input
          v-model="planned.meetingLink"
          class="field"
          type="url"
          maxlength="500"
          placeholder="https://"
      /></label>
    </div>
    <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
    <p class="mt-3 flex flex-wrap items-center gap-5">
      <button class="press-first">{{ lesson ? 'Store' : 'Plan it' }}</button>
      <button type="button" class="press" @click="emit('close')">Close</button>
      <button v-if="lesson && !begun" type="button" class="quiet ml-auto" @click="store(!lesson.cancelled)">
        {{ lesson.cancelled ? 'Put it back' : 'Cancel this lesson' }}
      </button>
    </p>
  </form>
</template>
