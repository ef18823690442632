<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import type { Done } from '../../ui/done'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import UndoNote from '../../ui/UndoNote.vue'
import LessonEditor from '../lessons/LessonEditor.vue'
import WordPanel from '../word-ahead/WordPanel.vue'
import GroupWishes from './GroupWishes.vue'
import LessonWhen from './LessonWhen.vue'
import MergedNote from './MergedNote.vue'
import { usePlan } from './plan'
import PlanElsewhere from './PlanElsewhere.vue'
import PlanQuestions from './PlanQuestions.vue'
import PlanReminders from './PlanReminders.vue'
import PointList from './PointList.vue'
import { usePlanReplaced } from './planReplaced'
import ReadyList from './ReadyList.vue'
import StageList from './StageList.vue'
import StageRuler from './StageRuler.vue'

const props = defineProps<{ id: string }>()
const { view, plan, problem, merged, conflicts, state, canUndo, undo, replaced, putAway, reload } = usePlan(props.id)
const lesson = computed(() => view.value?.lesson)
const planned = computed(() => plan.value?.stages.reduce((sum, s) => sum + (s.minutes || 0), 0) ?? 0)
const editing = ref(false)
const { done, failed, copyFrom, bringIn, lessonChanged } = usePlanReplaced(props.id, replaced, undo, reload)

async function changed(what: Done) {
  editing.value = false
  await lessonChanged(what)
}

watchEffect(() => {
  if (lesson.value) document.title = `Plan of ${lesson.value.title} · Polite Tally`
})

useEventListener(window, 'keydown', (event) => {
  const typing = (event.target as HTMLElement).closest('input, textarea')
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z' && !event.shiftKey && !typing) {
    event.preventDefault()
    undo()
  }
})
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
      <LessonWhen :lesson="lesson">
        <button class="quiet ml-3" :aria-expanded="editing" @click="editing = !editing">change</button>
      </LessonWhen>
      <LessonEditor
        v-if="editing"
        class="max-w-[46rem]"
        :class-id="lesson.classId"
        :lesson="lesson"
        @done="changed"
        @close="editing = false"
      />
      <UndoNote v-model="done" class="mt-2" />
      <Notice v-if="problem || failed" tone="wrong" class="mt-2">{{ problem ?? failed }}</Notice>
      <MergedNote v-if="merged" class="mt-2" :conflicts="conflicts" @read="putAway" />

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

          <PlanQuestions v-model="plan.questions" class="mt-6" @done="done = $event" @failed="failed = $event" />

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
          <ReadyList :notes="view.ready" />
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
          <PlanReminders :id="id" class="mt-6" :view="view" />
          <PlanElsewhere :id="id" class="mt-6" :plan="plan" @copy="copyFrom" @file="bringIn" />
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
