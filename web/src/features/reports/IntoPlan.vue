<script setup lang="ts">
import { ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { weekDay } from '../../ui/format'

/** What to do next lesson goes into the plan of that lesson, without names: a stage can be seen by the class. */
const props = defineProps<{ classId: string; says: Schemas['Sentence'][] }>()
const minutes = 5
const done = ref<{ lesson: Schemas['LessonLine']; before: Schemas['Plan']; stored: Schemas['PlanView'] }>()
const problem = ref('')
const busy = ref(false)
const asStage = (text: string) => text.split(':')[0]!.replace(/\.$/, '')
const advice = () => props.says.filter((s) => s.text.includes(':'))

async function attempt(what: () => Promise<void>) {
  busy.value = true
  problem.value = ''
  await what().catch((e: Error) => (problem.value = e.message))
  busy.value = false
}
const put = (lesson: string, version: number, origin: Schemas['Plan'], plan: Schemas['Plan']) =>
  ask(api.PUT('/api/lessons/{id}/plan', { params: { path: { id: lesson } }, body: { version, origin, plan } }))

const insert = () =>
  attempt(async () => {
    const { lessons } = await ask(api.GET('/api/classes/{id}', { params: { path: { id: props.classId } } }))
    const next = lessons
      .filter((l) => l.stage === 'planned' && !l.cancelled && l.plannedStart > Date.now())
      .sort((a, b) => a.plannedStart - b.plannedStart)[0]
    if (!next) throw new Error('No lesson is planned to put it into. Plan one, then come back.')
    const view = await ask(api.GET('/api/lessons/{id}/plan', { params: { path: { id: next.id } } }))
    const stages = advice().map((s) => ({ id: crypto.randomUUID(), name: asStage(s.text), minutes, directions: '' }))
    const plan = { ...view.plan, stages: [...(view.plan.stages ?? []), ...stages] }
    const stored = await put(next.id, view.version, view.plan, plan)
    done.value = { lesson: next, before: view.plan, stored: stored.view }
  })
const undo = () =>
  attempt(async () => {
    const { lesson, before, stored } = done.value!
    await put(lesson.id, stored.version, stored.plan, before)
    done.value = undefined
  })
</script>

<template>
  <p v-if="advice().length" class="no-print mt-2 flex flex-wrap items-baseline gap-x-4 text-small">
    <button v-if="!done" class="press" :disabled="busy" @click="insert">Put it into the next plan</button>
    <template v-else>
      <span role="status"
        >It stands in
        <RouterLink class="quiet" :to="`/lessons/${done.lesson.id}/plan`"
          >lesson {{ done.lesson.number }}, {{ weekDay(done.lesson.plannedStart) }}</RouterLink
        >, {{ minutes }} minutes each, without names.</span
      >
      <button class="quiet" :disabled="busy" @click="undo">Undo</button>
    </template>
    <span v-if="problem" role="alert">{{ problem }}</span>
  </p>
</template>
