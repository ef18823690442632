<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, ask, type Schemas } from '../../api/client'
import { useDone, type Done } from '../../ui/done'
import { count, dayName, shortDay } from '../../ui/format'
import ClassTabs from '../../ui/ClassTabs.vue'
import EmptyState from '../../ui/EmptyState.vue'
import KeyCap from '../../ui/KeyCap.vue'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'
import { vFocus } from '../../ui/vFocus'
import LessonList from '../lessons/LessonList.vue'
import KnownLayouts from './KnownLayouts.vue'
import KnownNames from './KnownNames.vue'
import StudentEditor from './StudentEditor.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const queries = useQueryClient()
const page = useQuery({
  queryKey: ['class', props.id],
  queryFn: () => ask(api.GET('/api/classes/{id}', { params: { path: { id: props.id } } })),
})
const title = ref('')
const length = ref(50)
const { done, problem, finished, tried } = useDone()
const open = ref<string>()
const live = computed(() => page.data.value?.lessons.find((l) => l.stage === 'live'))
const students = computed(() => page.data.value?.students ?? [])

// A second press before the first has come back begins no second lesson.
let starting = false
async function start() {
  if (starting) return
  starting = true
  problem.value = undefined
  try {
    const params = { path: { id: props.id } }
    const lesson = await ask(
      api.POST('/api/classes/{id}/lessons', { params, body: { title: title.value || null, minutes: length.value } }),
    )
    await queries.invalidateQueries()
    await router.push(`/lessons/${lesson.id}/live`)
  } catch (failure) {
    problem.value = (failure as Error).message
  } finally {
    starting = false
  }
}

async function changed(what: Done) {
  open.value = undefined
  await finished(what)
}

const toggle = (student: string) => (open.value = open.value === student ? undefined : student)

function comeBack(student: Schemas['StudentLine']) {
  const { number, family, given, preferred, email, secondEmail, phone, tags } = student
  const put = (inClass: boolean) =>
    ask(
      api.PUT('/api/classes/{id}/students/{student}', {
        params: { path: { id: props.id, student: student.id } },
        body: { number, family, given, preferred, email, secondEmail, phone, tags, inClass },
      }),
    )
  return tried(async () => {
    await put(true)
    return { said: `${student.called} is in the class again.`, undo: () => put(false) }
  })
}
</script>

<template>
  <Page>
    <template #above><ClassTabs :id="id" :name="page.data.value?.name" /></template>
    <Notice v-if="page.error.value" tone="wrong">{{ page.error.value.message }}</Notice>
    <UndoNote v-model="done" class="mb-4" />
    <Notice v-if="problem" tone="wrong" class="mb-4">{{ problem }}</Notice>
    <p v-if="page.data.value?.archived" class="mb-4 text-ink-soft">
      <i>This class is put away.</i>
      <RouterLink class="quiet ml-2" to="/classes">Take it up again among the classes</RouterLink>
    </p>
    <div v-if="page.data.value" class="columns">
      <section aria-labelledby="lessons">
        <p v-if="live" class="mb-6">
          Lesson {{ live.number }} is <span class="marked">live now</span>.
          <RouterLink class="press-first ml-3 inline-block" :to="`/lessons/${live.id}/live`">Go to it</RouterLink>
        </p>
        <form v-else-if="students.length" class="mb-6 flex flex-wrap items-end gap-5" @submit.prevent="start">
          <label class="min-w-[12rem] flex-1"
            >A lesson now<input
              v-model="title"
              v-focus="!page.data.value.lessons.length"
              class="field"
              maxlength="100"
              placeholder="What it is about"
          /></label>
          <label class="w-24"
            >Minutes<input v-model.number="length" class="field" type="number" min="5" max="600" required
          /></label>
          <button class="press-first">Start it</button>
        </form>
        <LessonList :page="page.data.value" @done="changed" />
      </section>

      <section aria-labelledby="roster">
        <EmptyState v-if="!students.length && !page.data.value.left.length" title="The roster is empty">
          Bring in a list of students: a table or a workbook, cells from a spreadsheet, or a rostering bundle. You will
          see it before anything is stored.
          <template #act
            ><RouterLink class="press-first inline-block" :to="`/classes/${id}/roster`"
              >Bring in a roster</RouterLink
            ></template
          >
        </EmptyState>
        <template v-else>
          <div class="rule-head">
            <h2 id="roster">{{ count(students.length, 'student') }}</h2>
            <span class="flex flex-wrap items-baseline gap-x-4 text-small font-normal">
              <button class="quiet" :aria-expanded="open === 'new'" @click="toggle('new')">Add one</button>
              <RouterLink class="quiet" :to="`/classes/${id}/roster`">Bring in a roster</RouterLink>
              <RouterLink class="quiet" :to="`/classes/${id}/passes`">Passes</RouterLink>
            </span>
          </div>
          <StudentEditor
            v-if="open === 'new'"
            :class-id="id"
            :students="students"
            @done="changed"
            @close="open = undefined"
          />
          <ol>
            <li v-for="student in students" :key="student.id">
              <button
                class="rule-line student w-full text-start"
                :aria-expanded="open === student.id"
                @click="toggle(student.id)"
              >
                <KeyCap class="w-4 shrink-0" :k="student.key" />
                <span class="min-w-0 flex-1"
                  ><b class="font-semibold">{{ student.called }}</b> {{ student.family
                  }}<i v-if="student.called !== student.given" class="text-ink-soft"> ({{ student.given }})</i
                  ><i v-if="student.merged.length" class="text-ink-soft"> · two records</i></span
                >
                <span class="text-small text-ink-soft">{{ student.tags.split(';').join(', ') }}</span>
                <span class="w-14 text-end text-small text-ink-soft">{{ student.number }}</span>
              </button>
              <StudentEditor
                v-if="open === student.id"
                :class-id="id"
                :student="student"
                :students="students"
                @done="changed"
                @close="open = undefined"
              />
            </li>
          </ol>
          <section v-if="page.data.value.left.length" class="mt-6" aria-labelledby="left">
            <h2 id="left" class="rule-head">Left the class</h2>
            <ul>
              <li v-for="student in page.data.value.left" :key="student.id" class="rule-line text-ink-soft">
                <span class="flex-1">{{ student.called }} {{ student.family }}</span>
                <span v-if="student.leftAt" class="text-small">{{ shortDay(student.leftAt) }}</span>
                <button class="quiet text-small" @click="comeBack(student)">Back in the class</button>
              </li>
            </ul>
          </section>
          <KnownNames :class-id="id" :students="students" class="mt-6" @done="changed" />
          <KnownLayouts :class-id="id" class="mt-6" @done="changed" />
        </template>
        <p v-if="page.data.value.term" class="mt-6 text-small text-ink-soft">
          {{ page.data.value.term.name }}: {{ dayName(page.data.value.term.firstDay) }} to
          {{ dayName(page.data.value.term.lastDay) }}.
          <RouterLink class="quiet" to="/terms">Terms and days off</RouterLink>
        </p>
      </section>
    </div>
  </Page>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 44px;
  max-width: 1180px;
}
.student {
  padding: 4px 0 3px;
}
.student:hover {
  background: var(--paper-deep);
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
