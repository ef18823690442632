<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, ref, useTemplateRef } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { noteOne } from '../../live/noteOne'
import type { Act } from '../../live/outbox'
import { session } from '../../api/session'
import { count, hour, longDay, minutes } from '../../ui/format'
import Notice from '../../ui/Notice.vue'
import Page from '../../ui/Page.vue'
import FilesPanel from './FilesPanel.vue'
import GuestList from './GuestList.vue'
import NameChoice from './NameChoice.vue'
import RegisterTable from './RegisterTable.vue'

const props = defineProps<{ id: string }>()
const queries = useQueryClient()
const key = ['settling', props.id]
const path = { id: props.id }
const settling = useQuery({
  queryKey: key,
  queryFn: () => ask(api.GET('/api/lessons/{id}/settling', { params: { path } })),
  // Its end may still be on the way, from this window or another.
  refetchInterval: (query) => (query.state.data?.lesson.stage === 'live' ? 1500 : false),
})
const view = computed(() => settling.data.value)
const problem = ref<string>()
const lastWord = ref<{ entry: string; text: string }>()

const settled = computed(() => view.value?.lesson.stage === 'settled')
const open = computed(() => view.value?.names.filter((n) => !n.decided) ?? [])
const known = computed(() => view.value?.names.filter((n) => n.decided) ?? [])
const disagreeing = computed(() => view.value?.register.filter((r) => r.disagree).length ?? 0)
const nameOf = (student: string | null) => view.value?.people.find((p) => p.id === student)?.fullName
const how: Record<Schemas['MatchedBy'], string> = {
  identity: 'by number or e-mail',
  confirmedBefore: 'known from before',
  sameName: 'the same name',
  onlyOneSoNamed: 'the only one so named',
  similar: 'similar',
  somebodyOf: 'somebody of theirs',
  nothing: 'like nobody here',
}

function taken(changed: Schemas['SettlingView']) {
  queries.setQueryData(key, changed)
}

async function decide({ name, beside }: Schemas['NameLine'], student: string | null, notAStudent: boolean) {
  problem.value = undefined
  try {
    taken(
      await ask(api.PUT('/api/lessons/{id}/names', { params: { path }, body: { name, beside, student, notAStudent } })),
    )
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}

/** Notes one decision and says what the server refused. */
async function note(act: Act, text: string) {
  problem.value = undefined
  try {
    // As of the server's own clock: a decision has no moment in the lesson.
    const { entry, refused } = await noteOne(props.id, act, Math.min(Date.now(), serverNow()))
    if (refused) problem.value = refused
    else lastWord.value = { entry, text }
    await queries.invalidateQueries()
  } catch (failure) {
    problem.value = (failure as Error).message
  }
}

const opened = Date.now()
const serverNow = () => (view.value ? Math.max(view.value.now + (Date.now() - opened), view.value.now) : Date.now())

async function takeBack() {
  const last = lastWord.value
  lastWord.value = undefined
  if (last) await note({ type: 'struck', entry: last.entry }, '')
  lastWord.value = undefined
}

const declare = (row: Schemas['RegisterLine'], status: Schemas['AttendanceStatus']) =>
  note({ type: 'statusDeclared', student: row.student, status }, `${row.called} ${row.rest} declared ${status}`)
const excuse = (row: Schemas['RegisterLine'], reason: string) =>
  note({ type: 'excuseRecorded', student: row.student, reason }, `excuse for ${row.called} ${row.rest} recorded`)

const files = useTemplateRef<InstanceType<typeof FilesPanel>>('files')
/** A file that lies there and is not brought in: whether it is to count is asked before the register is confirmed. */
const waiting = computed(() => files.value?.waiting)
const asking = ref(false)
async function confirm() {
  asking.value = false
  await note({ type: 'lessonSettled' }, 'settled')
}

async function reopen() {
  problem.value = undefined
  const entry = view.value?.settledBy
  if (entry) await note({ type: 'struck', entry }, 'opened again')
}
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
      <h1 class="mt-1 text-title font-bold">Settle lesson {{ view.lesson.number }}, {{ view.lesson.title }}</h1>
      <p class="text-lead text-ink-soft">
        {{ longDay(view.lesson.plannedStart) }}, counted from {{ hour(view.countedFrom) }} to {{ hour(view.countedTo) }}
      </p>

      <Notice v-if="view.lesson.stage === 'live' || view.lesson.stage === 'planned'" class="mt-5">
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

        <section v-if="!settled || view.files.length" class="step" aria-labelledby="files">
          <h2 id="files" class="head">Files</h2>
          <FilesPanel
            :id="id"
            ref="files"
            :files="view.files"
            :locked="settled"
            :demo="!!session?.account?.isDemo && view.lesson.number === 13"
            @done="taken"
            @strike="(entry, text) => note({ type: 'struck', entry }, text)"
            @clock="(file, ahead) => note({ type: 'clockSet', file, ahead }, 'the clock of a file set')"
          />
        </section>

        <section v-if="view.names.length" class="step" aria-labelledby="names">
          <h2 id="names" class="head">
            Names
            <span class="font-normal text-ink-soft">{{
              open.length ? `${open.length} to decide, ${known.length} known` : `all ${known.length} known`
            }}</span>
          </h2>
          <ul v-if="open.length">
            <li v-for="name in open" :key="name.name + name.beside" class="name">
              <span class="w-[15rem] shrink-0"
                ><b>{{ name.name }}</b> <i class="text-small text-ink-soft">{{ name.beside }}</i></span
              >
              <span class="w-[8rem] shrink-0 text-small text-ink-soft">
                <template v-if="name.first && name.last">{{ hour(name.first) }} to {{ hour(name.last) }}</template>
                <template v-else-if="name.seconds">{{ minutes(name.seconds * 1000) }}</template>
              </span>
              <i class="w-[5rem] shrink-0">{{ name.by === 'somebodyOf' ? 'a guest' : name.certainty }}</i>
              <span class="flex flex-1 flex-wrap items-baseline gap-x-4 gap-y-1">
                <i v-if="name.by === 'somebodyOf'">probably somebody of {{ nameOf(name.proposals[0]!) }}</i>
                <button
                  v-for="p in name.by === 'somebodyOf' ? [] : name.proposals.slice(0, 3)"
                  :key="p"
                  class="press"
                  :disabled="settled"
                  @click="decide(name, p, false)"
                >
                  {{ nameOf(p) }}
                </button>
                <NameChoice
                  :people="view.people"
                  :for-name="name.name"
                  :disabled="settled"
                  @choose="(s) => decide(name, s, false)"
                />
                <button class="quiet" :disabled="settled" @click="decide(name, null, true)">not a student</button>
              </span>
            </li>
          </ul>
          <details class="mt-2">
            <summary class="quiet inline-block">{{ count(known.length, 'known name') }}</summary>
            <ul class="known">
              <li v-for="name in known" :key="name.name + name.beside" class="border-b border-rule py-0.5">
                <b>{{ name.name }}</b> <i class="text-small text-ink-soft">{{ name.beside }}</i> is
                {{ name.student ? nameOf(name.student) : 'not a student' }}
                <i class="text-small text-ink-soft">{{ name.byTeacher ? 'you said so' : `sure, ${how[name.by]}` }}</i>
                <button
                  v-if="!settled"
                  class="quiet ml-2 text-small"
                  :aria-label="`Take back ${name.name}`"
                  @click="decide(name, null, false)"
                >
                  take back
                </button>
              </li>
            </ul>
          </details>
        </section>

        <section class="step" aria-labelledby="register">
          <h2 id="register" class="head">
            Register
            <span class="font-normal text-ink-soft">{{
              disagreeing ? `${disagreeing} where your marks and the file disagree` : 'marks and files agree'
            }}</span>
          </h2>
          <RegisterTable :lesson="id" :rows="view.register" :locked="settled" @declare="declare" @excuse="excuse" />
        </section>

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
          <p v-for="p in view.putAway" :key="p.entry" class="name">
            <span class="text-ink-soft">{{ hour(p.at) }}</span> <b>{{ p.who }}</b>
            <span class="min-w-0 flex-1"
              ><i v-if="p.isAside">{{ p.text }}</i
              ><bdi v-else>{{ p.text }}</bdi></span
            >
            <span class="text-small text-ink-soft">{{ p.isAside ? 'aside, for you alone' : 'hidden' }}</span>
            <button
              v-if="!settled && !p.isAside"
              class="quiet text-small"
              @click="note({ type: 'struck', entry: p.entry }, 'shown again')"
            >
              show again
            </button>
          </p>
        </section>

        <div v-if="!settled" class="confirm">
          <template v-if="asking && waiting">
            <span
              ><b>{{ waiting }}</b> was dropped and is not brought in.</span
            >
            <button class="press-first" @click="asking = false">Look at it first</button>
            <button class="press" @click="confirm">Confirm without it</button>
          </template>
          <button v-else class="press-first" @click="waiting ? (asking = true) : confirm()">
            Confirm the register
          </button>
          <span class="text-ink-soft">
            {{
              [
                open.length ? `${count(open.length, 'name')} still to decide` : '',
                disagreeing ? `${count(disagreeing, 'disagreement')}: your marks count` : '',
                view.chatWaiting ? `${count(view.chatWaiting, 'message')} not swept: not counted` : '',
                view.turnsWithoutOutcome
                  ? `${count(view.turnsWithoutOutcome, 'turn')} without an outcome: not counted`
                  : '',
              ]
                .filter(Boolean)
                .join('; ') || 'Nothing is open.'
            }}
          </span>
          <span v-if="lastWord?.text" class="ml-auto" role="status"
            >{{ lastWord.text }} <button class="quiet" @click="takeBack">take back</button></span
          >
        </div>
      </template>
      <Notice v-if="problem" tone="wrong" class="mt-4">{{ problem }}</Notice>
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
.name {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 2px 12px;
  border-bottom: 1px solid var(--rule);
  padding: 3px 0;
}
.known {
  columns: 2 26rem;
  column-gap: 36px;
}
.confirm {
  position: sticky;
  bottom: 0;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 20px;
  max-width: 1140px;
  margin-top: 20px;
  border-top: 2px solid var(--ink);
  background: var(--paper);
  padding: 10px 0;
}
</style>
