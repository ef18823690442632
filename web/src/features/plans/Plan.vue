<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, onBeforeUnmount, onMounted, ref, watchEffect } from 'vue'
import { api, ask, sendFile, type Schemas } from '../../api/client'
import type { Done } from '../../ui/done'
import { count, hour, longDay, weekDay } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import { moved, useReorder } from '../../ui/reorder'
import UndoNote from '../../ui/UndoNote.vue'
import LessonEditor from '../lessons/LessonEditor.vue'
import WordPanel from '../word-ahead/WordPanel.vue'
import GroupWishes from './GroupWishes.vue'
import { copyOf, kindOf, newQuestion, usePlan, type Question } from './plan'
import PointList from './PointList.vue'
import QuestionEditor from './QuestionEditor.vue'
import StageList from './StageList.vue'
import StageRuler from './StageRuler.vue'

const props = defineProps<{ id: string }>()
const queries = useQueryClient()
const { view, plan, problem, merged, conflicts, state, canUndo, undo, replaced, putAway, reload } = usePlan(props.id)
const lesson = computed(() => view.value?.lesson)
const missing = computed(() => view.value?.ready.filter((n) => n.needed) ?? [])
const good = computed(() => view.value?.ready.filter((n) => !n.needed) ?? [])
const planned = computed(() => plan.value?.stages.reduce((sum, s) => sum + (s.minutes || 0), 0) ?? 0)
const open = ref<string>()
const editing = ref(false)
const fromShelf = ref(false)
const copying = ref(false)
const done = ref<Done>()
const failed = ref<string>()
const questions = ref<HTMLElement>()
const fileField = ref<HTMLInputElement>()
const shelf = useQuery({ queryKey: ['shelf'], queryFn: () => ask(api.GET('/api/shelf')), enabled: fromShelf })
const copyClass = ref('')
const classes = useQuery({ queryKey: ['classes'], queryFn: () => ask(api.GET('/api/classes')), enabled: copying })
const source = useQuery({
  queryKey: ['class', copyClass],
  queryFn: () => ask(api.GET('/api/classes/{id}', { params: { path: { id: copyClass.value } } })),
  enabled: computed(() => copyClass.value !== ''),
})
const params = { path: { id: props.id } }
const places: Record<string, string> = {
  stages: 'stages',
  points: 'points',
  groups: 'groups',
  questions: 'questions',
  lesson: 'lesson',
  wordAhead: 'word-ahead',
}

watchEffect(() => {
  if (lesson.value) document.title = `Plan of ${lesson.value.title} · Polite Tally`
})

useReorder(questions, moveQuestion)
function moveQuestion(from: number, to: number) {
  if (plan.value) plan.value.questions = moved(plan.value.questions, from, to)
}

async function stepQuestion(index: number, by: number) {
  moveQuestion(index, index + by)
  await nextTick()
  questions.value?.querySelectorAll<HTMLElement>('.handle')[Math.max(0, index + by)]?.focus()
}

function addQuestion(question: Question = newQuestion('singleChoice')) {
  plan.value!.questions.push(question)
  open.value = question.id
}

async function keepOnShelf(question: Question) {
  failed.value = undefined
  try {
    const kept = await ask(api.POST('/api/shelf', { body: { question } }))
    await queries.invalidateQueries({ queryKey: ['shelf'] })
    const undo = () => ask(api.DELETE('/api/shelf/{id}', { params: { path: { id: kept.id } } }))
    done.value = { said: 'The question is on your shelf, for any lesson.', undo }
  } catch (failure) {
    failed.value = (failure as Error).message
  }
}

async function instead(act: () => Promise<Schemas['PlanStored']>, said: string) {
  failed.value = undefined
  try {
    replaced(await act())
    copying.value = false
    done.value = { said, undo: async () => undo() }
  } catch (failure) {
    failed.value = (failure as Error).message
  }
}

const copyFrom = (from: Schemas['LessonLine']) =>
  instead(
    () => ask(api.POST('/api/lessons/{id}/plan/copy', { params, body: { lesson: from.id } })),
    `The plan of “${from.title}” is copied here.`,
  )

function bringIn() {
  const file = fileField.value?.files?.[0]
  if (fileField.value) fileField.value.value = ''
  if (file)
    void instead(
      () => sendFile<Schemas['PlanStored']>(`/api/lessons/${props.id}/plan/file`, file, {}),
      `The plan in ${file.name} is brought in.`,
    )
}

async function lessonChanged(what: Done) {
  editing.value = false
  const again = async () => {
    await queries.invalidateQueries()
    await reload()
  }
  done.value = { ...what, undo: what.undo && (() => what.undo!().then(again)) }
  await again()
}

function onKey(event: KeyboardEvent) {
  const typing = (event.target as HTMLElement).closest('input, textarea')
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !event.shiftKey && !typing) {
    event.preventDefault()
    undo()
  }
}
onMounted(() => window.addEventListener('keydown', onKey))
onBeforeUnmount(() => window.removeEventListener('keydown', onKey))
</script>

<template>
  <Page>
    <Notice v-if="!view && problem" tone="wrong">{{ problem }}</Notice>
    <p v-else-if="!view || !plan || !lesson" class="text-ink-soft">Opening the plan…</p>
    <template v-else>
      <div class="flex flex-wrap items-baseline gap-x-5 gap-y-1">
        <h1 class="text-title leading-tight font-bold">{{ lesson.title }}</h1>
        <span class="ml-auto text-small font-bold" role="status">{{ state }}</span>
        <button class="quiet text-small" :disabled="!canUndo" @click="undo">Undo</button>
      </div>
      <p class="text-ink-soft">
        <RouterLink class="hover:underline" :to="`/classes/${lesson.classId}`">{{ lesson.className }}</RouterLink>{{
          lesson.number ? `, lesson ${lesson.number}` : ''
        }}
        · {{ longDay(lesson.plannedStart) }}, {{ hour(lesson.plannedStart) }} to {{ hour(lesson.plannedEnd) }} ·
        {{ lesson.dropIn ? 'drop-in' : 'required' }}
        <i v-if="lesson.cancelled">· cancelled</i>
        <button class="quiet ml-3" :aria-expanded="editing" @click="editing = !editing">change</button>
      </p>
      <LessonEditor
        v-if="editing"
        class="max-w-[46rem]"
        :class-id="lesson.classId"
        :lesson="lesson"
        @done="lessonChanged"
        @close="editing = false"
      />
      <UndoNote v-model="done" class="mt-2" />
      <Notice v-if="problem || failed" tone="wrong" class="mt-2">{{ problem ?? failed }}</Notice>
      <Notice v-if="merged" class="mt-2">
        Another window changed this plan meanwhile. Both changes are in it now<template v-if="conflicts.length"
          >, but for what both had changed: yours stands, and the other is here.</template
        ><template v-else>.</template>
        <span v-for="(conflict, i) in conflicts" :key="i" class="block"
          ><span class="text-ink-soft">{{ conflict.path.join(' ') }}:</span> “{{ conflict.theirs }}”</span
        >
        <button class="quiet ml-3" @click="putAway">Put away</button>
      </Notice>

      <StageRuler class="mt-3" :stages="plan.stages" :start="lesson.plannedStart" :minutes="view.minutes" />

      <div class="columns">
        <div class="min-w-0">
          <section aria-labelledby="stages">
            <h2 class="rule-head">
              <span id="stages">Stages</span
              ><span class="font-normal" :class="planned > view.minutes ? 'font-semibold' : 'text-ink-soft'"
                >{{ planned }} of {{ view.minutes }} min{{
                  planned > view.minutes ? `, ${planned - view.minutes} too many` : ''
                }}</span
              >
            </h2>
            <StageList v-model="plan.stages" :start="lesson.plannedStart" :minutes="view.minutes" />
          </section>

          <section class="mt-6" aria-labelledby="questions">
            <h2 class="rule-head">
              <span id="questions">Questions</span>
              <span class="flex items-baseline gap-4 text-small font-normal">
                <button class="quiet" @click="addQuestion()">Add a question</button>
                <button class="quiet" :aria-expanded="fromShelf" @click="fromShelf = !fromShelf">From the shelf</button>
              </span>
            </h2>
            <ul v-if="fromShelf" class="shelf" aria-label="Shelf">
              <li v-for="line in shelf.data.value" :key="line.id" class="rule-line">
                <span class="min-w-0 flex-1 truncate">{{ line.question.text || 'without text' }}</span>
                <span class="text-small text-ink-soft">{{ kindOf(line.question as Question) }}</span>
                <button class="quiet text-small" @click="addQuestion(copyOf(line.question as Question))">use it</button>
              </li>
              <li v-if="shelf.data.value && !shelf.data.value.length" class="py-2 text-ink-soft">
                The shelf is empty. “Keep” beside a question puts it there.
              </li>
            </ul>
            <ol ref="questions" aria-label="Questions">
              <li v-for="(question, i) in plan.questions" :key="question.id">
                <div class="rule-line question">
                  <button
                    type="button"
                    class="handle"
                    :aria-label="`Move question ${i + 1}: drag, or Alt with an arrow`"
                    @keydown.alt.up.prevent="stepQuestion(i, -1)"
                    @keydown.alt.down.prevent="stepQuestion(i, 1)"
                  >
                    ⋮⋮
                  </button>
                  <b class="w-4">{{ i + 1 }}</b>
                  <button
                    class="min-w-0 flex-1 truncate text-start hover:underline"
                    :aria-expanded="open === question.id"
                    @click="open = open === question.id ? undefined : question.id"
                  >
                    {{ question.text || 'a new question' }}
                  </button>
                  <span class="text-small whitespace-nowrap text-ink-soft"
                    >{{ kindOf(question) }}, {{ question.purpose }}{{ question.anonymous ? ', anonymous' : ''
                    }}{{ question.audience === 'group' ? ', group' : '' }}</span
                  >
                  <button
                    class="quiet text-small"
                    :aria-label="`Keep question ${i + 1} on the shelf`"
                    @click="keepOnShelf(question)"
                  >
                    keep
                  </button>
                  <button
                    class="quiet text-small text-ink-soft"
                    :aria-label="`Take out question ${i + 1}`"
                    @click="plan!.questions.splice(i, 1)"
                  >
                    out
                  </button>
                </div>
                <QuestionEditor v-if="open === question.id" v-model="plan.questions[i]!" :number="i + 1" />
              </li>
            </ol>
            <p v-if="!plan.questions.length" class="py-1 text-ink-soft">
              No question prepared. They open in the lesson, one by one, when you say so.
            </p>
          </section>

          <div class="pair">
            <section aria-labelledby="points">
              <h2 id="points" class="rule-head">Points to cover in a turn</h2>
              <PointList v-model="plan.points" label="Points to cover" add-label="Add a point" />
            </section>
            <section aria-labelledby="statements">
              <h2 id="statements" class="rule-head">Statements for signal rounds</h2>
              <PointList v-model="plan.statements" label="Statements" add-label="Add a statement" />
            </section>
          </div>
          <section class="mt-6" aria-labelledby="groups">
            <h2 id="groups" class="rule-head">Groups</h2>
            <GroupWishes v-model="plan.together" class="mt-1" label="Keep together" :students="view.students" />
            <GroupWishes v-model="plan.apart" class="mt-2" label="Keep apart" :students="view.students" />
          </section>
        </div>

        <aside class="side" aria-label="Is it ready?">
          <section>
            <h2 class="rule-head">
              Is it ready?<span class="font-normal"
                ><span v-if="!missing.length" class="marked">yes</span
                ><template v-else>{{ missing.length }} missing</template></span
              >
            </h2>
            <ul>
              <li v-for="(note, i) in missing" :key="i" class="border-b border-rule py-1">
                <a class="font-semibold hover:underline" :href="`#${places[note.where]}`">{{ note.text }}</a>
              </li>
              <li v-for="(note, i) in good" :key="`g${i}`" class="border-b border-rule py-1 text-ink-soft italic">
                {{ note.text }}
              </li>
            </ul>
          </section>
          <p class="mt-4 flex flex-wrap items-center gap-4">
            <RouterLink class="press-first" :to="`/lessons/${id}/live`">Open the lesson</RouterLink>
            <a
              v-if="lesson.meetingLink"
              class="press"
              :href="lesson.meetingLink"
              target="_blank"
              rel="noopener noreferrer"
              >Open the meeting</a
            >
          </p>
          <WordPanel class="mt-6" :lesson="lesson" :students="view.students" />
          <section class="mt-6" aria-labelledby="reminders">
            <h2 class="rule-head">
              <span id="reminders">To remember</span>
              <RouterLink class="quiet text-small font-normal" :to="`/lessons/${id}/rules`">{{
                view.rulesDiffer ? 'rules of this lesson' : 'change for this lesson'
              }}</RouterLink>
            </h2>
            <p class="mt-1">
              <span class="text-ink-soft">Before the start:</span> {{ view.beforeStart.join('; ') || 'nothing' }}.
            </p>
            <p class="mt-1">
              <span class="text-ink-soft">Before the end:</span> {{ view.beforeEnd.join('; ') || 'nothing' }}.
            </p>
          </section>
          <section class="mt-6" aria-labelledby="elsewhere">
            <h2 id="elsewhere" class="rule-head">From and for elsewhere</h2>
            <ul>
              <li class="py-1">
                <button class="quiet" :aria-expanded="copying" @click="copying = !copying">
                  Copy the plan of another lesson
                </button>
              </li>
              <li v-if="copying" class="pb-2">
                <select v-model="copyClass" class="field" aria-label="Class to copy from">
                  <option value="">choose a class</option>
                  <option v-for="c in classes.data.value" :key="c.id" :value="c.id">{{ c.name }}</option>
                </select>
                <ul class="max-h-56 overflow-y-auto">
                  <li
                    v-for="other in source.data.value?.lessons.filter((l) => l.prepared && l.id !== id)"
                    :key="other.id"
                    class="rule-line"
                  >
                    <span class="min-w-0 flex-1 truncate">{{ weekDay(other.plannedStart) }} {{ other.title }}</span>
                    <button class="quiet text-small" @click="copyFrom(other)">copy</button>
                  </li>
                </ul>
                <p
                  v-if="source.data.value && !source.data.value.lessons.some((l) => l.prepared && l.id !== id)"
                  class="text-ink-soft"
                >
                  No other lesson of it has a plan.
                </p>
              </li>
              <li class="py-1">
                <label class="quiet cursor-pointer focus-within:outline-2"
                  >Bring in a plan file<input
                    ref="fileField"
                    type="file"
                    class="sr-only"
                    accept=".json,application/json"
                    @change="bringIn"
                /></label>
              </li>
              <li class="py-1">
                <a class="quiet" :href="`/api/lessons/${id}/plan.json`" download>Take it as a file</a>
              </li>
            </ul>
            <p class="mt-1 text-small text-ink-soft">
              {{ count(plan.questions.length, 'question') }}, {{ count(plan.stages.length, 'stage') }}.
            </p>
          </section>
        </aside>
      </div>
    </template>
  </Page>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 292px;
  gap: 40px;
  margin-top: 18px;
  max-width: 1180px;
}
.side {
  font-size: var(--text-small);
}
.question {
  padding: 2px 0;
}
.shelf {
  border-left: 3px solid var(--ink);
  padding-left: 16px;
  margin: 4px 0 8px;
  max-height: 16rem;
  overflow-y: auto;
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 24px 36px;
  margin-top: 24px;
}
@media (max-width: 900px) {
  .columns,
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
