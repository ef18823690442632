<script setup lang="ts">
import { computed, useTemplateRef } from 'vue'
import type { Schemas } from '../../api/client'
import { session } from '../../api/session'
import { dueIn } from '../../ui/due'
import { count, hour, longDay } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import { isMissed } from '../lessons/lessons'
import Contacts from './Contacts.vue'
import FilesPanel from './FilesPanel.vue'
import GuestList from './GuestList.vue'
import JudgeStep from './JudgeStep.vue'
import KnownNamesHere from './KnownNamesHere.vue'
import OpenQuestions from './OpenQuestions.vue'
import PutAway from './PutAway.vue'
import RegisterFoot from './RegisterFoot.vue'
import RegisterHistory from './RegisterHistory.vue'
import RegisterTable from './RegisterTable.vue'
import { useSettling } from './settling'
import ToldTwice from './ToldTwice.vue'

/** A lesson is settled: everything in, what is open answered, the register confirmed and handed in. */
const props = defineProps<{ id: string }>()
const { settling, view, stands, problem, busy, lastWord, taken, note, noteAll, takeBack, handIn, again } = useSettling(
  props.id,
)

const settled = computed(() => view.value?.lesson.stage === 'settled')
const isOver = computed(() => settled.value || view.value?.lesson.stage === 'ended')
const waiting = computed(() => files.value?.waiting ?? '')
const files = useTemplateRef<InstanceType<typeof FilesPanel>>('files')
const out = computed(() => view.value?.register.filter((r) => r.sentOutSince !== null) ?? [])
const foot = useTemplateRef<InstanceType<typeof RegisterFoot>>('foot')
const focusFoot = () => foot.value?.focus()
const of = (status: Schemas['AttendanceStatus']) => view.value?.register.filter((r) => r.status === status).length ?? 0
const summary = computed(() =>
  [
    `${view.value?.register.length} on the roster`,
    ...(['present', 'late', 'excused', 'absent'] as const).filter((s) => of(s)).map((s) => `${of(s)} ${s}`),
  ].join(' · '),
)
const open = computed(() => {
  const v = view.value
  if (!v) return ''
  return [
    v.questions.length ? `${count(v.questions.length, 'thing')} still open: your marks count` : '',
    v.chatWaiting ? `${count(v.chatWaiting, 'message')} not swept: not counted` : '',
    v.turnsWithoutOutcome ? `${count(v.turnsWithoutOutcome, 'turn')} without an outcome: not counted` : '',
  ]
    .filter(Boolean)
    .join('; ')
})

const declare = (row: Schemas['RegisterLine'], status: Schemas['AttendanceStatus']) =>
  note([{ type: 'statusDeclared', student: row.student, status }], `${row.called} ${row.rest} declared ${status}`)
const excuse = (row: Schemas['RegisterLine'], reason: string) =>
  note([{ type: 'excuseRecorded', student: row.student, reason }], `excuse for ${row.called} ${row.rest} recorded`)

async function confirm() {
  await note([{ type: 'lessonSettled' }], 'settled')
  const way = stands.value?.ways[0]
  if (!problem.value && way && !stands.value?.handIns.length) await handIn(way, '')
}

// Held without the sheet, so that nothing is known of it but its time.
const held = () =>
  noteAll(
    [
      { acts: [{ type: 'lessonStarted' }], at: view.value!.lesson.plannedStart },
      { acts: [{ type: 'lessonEnded' }], at: view.value!.lesson.plannedEnd },
    ],
    'held as planned',
  )

const reopen = () => note([{ type: 'struck', entry: view.value!.settledBy! }], 'opened again')
</script>

<template>
  <Page>
    <template v-if="view" #above>
      <p class="flex flex-wrap items-baseline gap-x-5">
        <RouterLink class="quiet" :to="`/classes/${view.lesson.classId}`">{{ view.lesson.className }}</RouterLink>
        <RouterLink class="quiet" :to="`/lessons/${id}/live`">the sheet of this lesson</RouterLink>
      </p>
    </template>
    <Notice v-if="settling.error.value" tone="wrong">{{ settling.error.value.message }}</Notice>
    <template v-if="view">
      <div class="step !mt-1 flex flex-wrap items-baseline justify-between gap-x-6">
        <h1 class="text-title font-bold">Settle lesson {{ view.lesson.number }}, {{ view.lesson.title }}</h1>
        <span v-if="stands?.dueAt && !settled && isOver" class="text-ink-soft"
          >register {{ dueIn(stands.dueAt, stands.now) }}</span
        >
      </div>
      <p class="text-lead text-ink-soft">
        {{ longDay(view.lesson.plannedStart) }}, counted from {{ hour(view.countedFrom) }} to {{ hour(view.countedTo) }}
      </p>

      <Notice v-if="isMissed(view.lesson, view.now)" class="mt-5">
        This lesson was not begun on its sheet. If it was held as planned, say so; then what your meeting program saved
        can be brought in, and its register taken.
        <span class="mt-3 flex flex-wrap items-baseline gap-x-6 gap-y-2">
          <button class="press-first" @click="held">
            It was held, {{ hour(view.lesson.plannedStart) }} to {{ hour(view.lesson.plannedEnd) }}
          </button>
          <RouterLink class="quiet" :to="`/lessons/${id}/plan`">its plan, and another time</RouterLink>
          <RouterLink class="quiet" :to="`/lessons/${id}/live`">start it now</RouterLink>
        </span>
      </Notice>

      <Notice v-else-if="!isOver" class="mt-5">
        This lesson {{ view.lesson.stage === 'live' ? 'is going on' : 'has not begun' }}.
        <RouterLink class="quiet font-semibold" :to="`/lessons/${id}/live`">Go to it</RouterLink>; it can be settled
        when it has ended.
      </Notice>

      <template v-else>
        <Notice v-if="settled" class="mt-5">
          The register is confirmed and the lesson is settled.
          <RouterLink class="quiet font-semibold" :to="`/classes/${view.lesson.classId}/scores`"
            >See the scores</RouterLink
          >, or <button class="quiet font-semibold" @click="reopen">open it again</button> to change something.
        </Notice>

        <OpenQuestions
          v-if="!settled"
          class="step"
          :questions="view.questions"
          :people="view.people"
          @answer="noteAll"
          @done="focusFoot"
        />

        <section v-if="!settled || view.files.length" class="step" aria-labelledby="files">
          <h2 id="files" class="head">Files</h2>
          <FilesPanel
            :id="id"
            ref="files"
            :files="view.files"
            :span="{ from: view.countedFrom, to: view.countedTo }"
            :people="view.people"
            :locked="settled"
            :demo="!!session?.account?.isDemo && view.lesson.number === 13"
            @done="taken"
            @strike="(entry, text) => note([{ type: 'struck', entry }], text)"
            @clock="(file, ahead) => note([{ type: 'clockSet', file, ahead }], 'the clock of a file set')"
          />
          <ToldTwice
            v-if="view.files.length"
            :lesson="id"
            :locked="settled"
            :position="view"
            @compare="(entry, other, areOne, text) => note([{ type: 'actsCompared', entry, other, areOne }], text)"
          />
          <KnownNamesHere :names="view.names" :people="view.people" :locked="settled" @again="again" />
        </section>

        <section class="step" aria-labelledby="register">
          <h2 id="register" class="head flex flex-wrap items-baseline justify-between">
            Register <span class="font-normal text-ink-soft">{{ summary }}</span>
          </h2>
          <RegisterTable :lesson="id" :rows="view.register" :locked="settled" @declare="declare" @excuse="excuse" />
          <RegisterHistory v-if="stands?.past.length" :past="stands.past" />
        </section>

        <section v-if="out.length" class="step" aria-labelledby="sent-out">
          <h2 id="sent-out" class="head">To be let back in</h2>
          <p v-for="r in out" :key="r.student" class="flex flex-wrap gap-x-5 border-b border-rule py-1">
            <b>{{ r.called }} {{ r.rest }}</b> sent out at {{ hour(r.sentOutSince!) }}
            <button
              class="quiet"
              @click="note([{ type: 'letBackIn', student: r.student }], `${r.called} ${r.rest} let back in`)"
            >
              Let in
            </button>
          </p>
        </section>

        <Contacts
          class="step"
          :lesson="id"
          :locked="settled"
          :position="view"
          @note="(act, text) => note([act], text)"
        />

        <JudgeStep class="step" :lesson="id" @note="note" />

        <section v-if="view.guests.length" class="step" aria-labelledby="guests">
          <h2 id="guests" class="head">Guests <span class="font-normal text-ink-soft">on no roster</span></h2>
          <GuestList :guests="view.guests" />
        </section>

        <section v-if="view.chatWaiting || view.putAway.length" class="step no-print" aria-labelledby="put-away">
          <h2 id="put-away" class="head flex items-baseline justify-between">
            Chat and asides
            <RouterLink
              v-if="view.chatWaiting && !settled"
              class="quiet font-normal"
              :to="`/lessons/${id}/live?open=chat`"
              >{{ count(view.chatWaiting, 'message') }} to sweep</RouterLink
            >
          </h2>
          <PutAway
            :lines="view.putAway"
            :locked="settled"
            @show="note([{ type: 'struck', entry: $event }], 'shown again')"
          />
        </section>

        <Notice v-if="problem" tone="wrong" class="mt-4">{{ problem }}</Notice>
        <RegisterFoot
          ref="foot"
          :lesson="id"
          :settled="settled"
          :open="open"
          :waiting="waiting"
          :stands="stands"
          :busy="busy"
          @confirm="confirm"
          @hand-in="handIn"
        >
          <span v-if="lastWord?.text && !settled" role="status"
            >{{ lastWord.text }} <button class="quiet" @click="takeBack">take back</button></span
          >
        </RegisterFoot>
      </template>
    </template>
  </Page>
</template>

<style scoped>
.step {
  margin-top: 26px;
  max-width: 1140px;
}
.head {
  border-bottom: 1.5px solid var(--ink);
  padding-bottom: 3px;
  font-weight: 650;
}
</style>
