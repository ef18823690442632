<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { count } from '../../ui/format'
import Notice from '../../ui/Notice.vue'

type Student = Schemas['StudentLine']
/** The record of a student, opened in its place in the roster; without one, of a student to add. */
const props = defineProps<{ classId: string; student?: Student; students: readonly Student[] }>()
const emit = defineEmits<{ done: [done: Done]; close: [] }>()

const recordOf = (s?: Student) => ({
  number: s?.number ?? '',
  family: s?.family ?? '',
  given: s?.given ?? '',
  preferred: s?.preferred ?? '',
  email: s?.email ?? '',
  secondEmail: s?.secondEmail ?? '',
  phone: s?.phone ?? '',
  tags: s?.tags.split(';').join(', ') ?? '',
})
const record = ref(recordOf(props.student))
const problem = ref<string>()
const into = ref('')
const fields = [
  { name: 'given', label: 'Given name, or the only one', required: true },
  { name: 'family', label: 'Family name', required: false },
  { name: 'preferred', label: 'Called, if not so', required: false },
  { name: 'number', label: 'Student number', required: false },
  { name: 'email', label: 'E-mail address', required: false },
  { name: 'secondEmail', label: 'Second e-mail address', required: false },
  { name: 'phone', label: 'Telephone', required: false },
  { name: 'tags', label: 'Tags, with commas between', required: false },
] as const

const way = () => ({ params: { path: { id: props.classId, student: props.student!.id } } })
const put = (body: Schemas['StudentRecord']) => ask(api.PUT('/api/classes/{id}/students/{student}', { ...way(), body }))
const before = () => ({ ...recordOf(props.student), inClass: true })

async function tried(act: () => Promise<Done>) {
  problem.value = undefined
  try {
    emit('done', await act())
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}

const store = () =>
  tried(async () => {
    const body = { ...record.value, inClass: true }
    if (!props.student) {
      const made = await ask(api.POST('/api/classes/{id}/students', { params: { path: { id: props.classId } }, body }))
      const { family, given } = record.value
      const out = { params: { path: { id: props.classId, student: made.id } }, body: { ...body, inClass: false } }
      return {
        said: `${given} ${family} is in the class.`,
        undo: () => ask(api.PUT('/api/classes/{id}/students/{student}', out)),
      }
    }
    const was = before()
    await put(body)
    return { said: `The record of ${props.student.called} is changed.`, undo: () => put(was) }
  })

const leave = () =>
  tried(async () => {
    const was = before()
    await put({ ...was, inClass: false })
    return { said: `${props.student!.called} has left the class and keeps their past.`, undo: () => put(was) }
  })

const merge = () =>
  tried(async () => {
    const target = props.students.find((s) => s.id === into.value)!
    const renewed = await ask(
      api.POST('/api/classes/{id}/students/{student}/merge', { ...way(), body: { into: into.value } }),
    )
    const again = renewed.lessons
      ? ` ${count(renewed.lessons, 'settled lesson')} reckoned anew, ${count(renewed.scores, 'score')} changed.`
      : ''
    return {
      said: `Both records count for ${target.called} ${target.family} now.${again}`,
      undo: () => ask(api.DELETE('/api/classes/{id}/students/{student}/merge', way())),
    }
  })

const part = (record: Schemas['MergedRecord']) =>
  tried(async () => {
    const path = { id: props.classId, student: record.id }
    await ask(api.DELETE('/api/classes/{id}/students/{student}/merge', { params: { path } }))
    return {
      said: `${record.name} is a record of its own again.`,
      undo: () =>
        ask(
          api.POST('/api/classes/{id}/students/{student}/merge', {
            params: { path },
            body: { into: props.student!.id },
          }),
        ),
    }
  })

const revoke = () =>
  tried(async () => {
    await ask(api.DELETE('/api/classes/{id}/students/{student}/pass', way()))
    return { said: `The pass of ${props.student!.called} opens nothing any more. A new one can be made under Passes.` }
  })
</script>

<template>
  <form class="opened" @submit.prevent="store" @keydown.esc.stop="emit('close')">
    <div class="grid grid-cols-2 gap-x-6 gap-y-2">
      <label v-for="field in fields" :key="field.name" class="text-small text-ink-soft"
        >{{ field.label
        }}<input
          v-model="record[field.name]"
          class="field text-base text-ink"
          maxlength="200"
          :required="field.required"
      /></label>
    </div>
    <Notice v-if="problem" tone="wrong" class="mt-3">{{ problem }}</Notice>
    <p class="mt-3 flex flex-wrap items-center gap-5">
      <button class="press-first">{{ student ? 'Store' : 'Add to the class' }}</button>
      <button type="button" class="press" @click="emit('close')">Close</button>
      <button v-if="student" type="button" class="quiet ml-auto" @click="leave">Leaves the class</button>
    </p>
    <template v-if="student">
      <p class="mt-3 flex flex-wrap gap-5 text-small">
        <RouterLink class="quiet" :to="`/classes/${classId}/reports/student?student=${student.id}`"
          >A report on {{ student.called }}</RouterLink
        >
        <RouterLink class="quiet" :to="`/classes/${classId}/reports/past?student=${student.id}`"
          >All that is known of {{ student.called }}</RouterLink
        >
      </p>
      <p v-for="other in student.merged" :key="other.id" class="mt-3 text-small">
        Also the record of {{ other.name }}{{ other.number ? `, ${other.number}` : '' }}.
        <button type="button" class="quiet ml-2" @click="part(other)">Part them again</button>
      </p>
      <p class="mt-3 flex flex-wrap items-end gap-4 text-small">
        <label class="flex-1"
          >The same student as<select v-model="into" class="field">
            <option value="">nobody else</option>
            <option v-for="other in students.filter((s) => s.id !== student!.id)" :key="other.id" :value="other.id">
              {{ other.called }} {{ other.family }}{{ other.number ? `, ${other.number}` : '' }}
            </option>
          </select></label
        >
        <button type="button" class="press" :disabled="!into" @click="merge">Merge into that record</button>
      </p>
      <p v-if="student.passMadeAt" class="mt-3 text-small">
        Has a pass. <button type="button" class="quiet ml-2" @click="revoke">Revoke it</button>
      </p>
    </template>
  </form>
</template>
