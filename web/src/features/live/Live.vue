<script setup lang="ts">
import { Dialog, DialogDescription, DialogPanel, DialogTitle } from '@headlessui/vue'
import { computed, onBeforeUnmount, onMounted, ref, watchEffect } from 'vue'
import { useRouter } from 'vue-router'
import { useLesson } from '../../live/lesson'
import { count, hour, second } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import Notice from '../../ui/Notice.vue'
import { actOnKey, actsOf, outcomes, type LoggedAct } from './acts'
import ActStrip from './ActStrip.vue'
import HandLine from './HandLine.vue'
import KeyList from './KeyList.vue'
import LessonHead from './LessonHead.vue'
import ReminderList from './ReminderList.vue'
import SheetRow from './SheetRow.vue'

const props = defineProps<{ id: string }>()
const router = useRouter()
const { head, drawn, problem, away, now, waiting, note, strike, dismiss, undo } = useLesson(props.id)

const chosen = ref<string[]>([])
const hovered = ref<string>()
const keysShown = ref(false)
const ending = ref(false)
const finding = ref('')
const finder = ref<HTMLInputElement>()
const said = ref('')
// In a narrow window acts lie at the foot instead of in the row.
const narrow = window.matchMedia('(max-width: 900px)')
const wide = ref(!narrow.matches)
const measure = () => (wide.value = !narrow.matches)

const rows = computed(() => drawn.value?.rows ?? [])
const nameOf = (id: string) => rows.value.find((r) => r.id === id)?.shortName ?? ''
const acts = computed(() => actsOf(head.value?.nodReasons ?? []))
const running = computed(() => head.value?.stage === 'live')
const here = computed(() => rows.value.filter((r) => r.whereabouts === 'here' || r.whereabouts === 'late').length)
const turnRow = computed(() => rows.value.find((r) => r.id === drawn.value?.turn?.student))
const matches = computed(() => {
  const wanted = finding.value.trim().toLowerCase()
  return wanted ? rows.value.filter((r) => `${r.called} ${r.rest}`.toLowerCase().includes(wanted)) : []
})

watchEffect(() => {
  if (head.value) document.title = `Lesson ${head.value.number}, ${head.value.className} · Polite Tally`
})

function log(act: LoggedAct, students: string[]) {
  if (!students.length || !running.value) return
  note(
    ...students.map((student) => {
      // The hand key takes a raised hand down again: a student may change their mind.
      const up = act.name === 'hand' && drawn.value?.hands.some((h) => h.student === student)
      return up ? { type: 'handEnded' as const, student, end: 'withdrawn' as const } : act.make(student)
    }),
  )
  said.value = `${students.length > 3 ? count(students.length, 'student') : students.map(nameOf).join(', ')}, ${act.label}`
  chosen.value = []
}

function callNext() {
  const next = drawn.value?.hands[0]
  if (next && running.value) note({ type: 'called', student: next.student, origin: 'hand' })
}

const setDown = (student: string) => note({ type: 'handEnded', student, end: 'setDown' })

function takeBack() {
  const last = undo()
  if (last) said.value = `struck out: ${last.text}`
}

/** Students who share a letter take turns on it: pressing again moves on to the next. */
function pick(letter: string, more: boolean) {
  const sharing = rows.value.filter((r) => r.key === letter).map((r) => r.id)
  if (!sharing.length) return
  if (more) {
    const inList = sharing.find((s) => chosen.value.includes(s))
    chosen.value = inList ? chosen.value.filter((s) => s !== inList) : [...chosen.value, sharing[0]!]
    return
  }
  const at = chosen.value.length === 1 ? sharing.indexOf(chosen.value[0]!) : -1
  chosen.value = [sharing[(at + 1) % sharing.length]!]
}

function toggle(student: string, more: boolean) {
  const had = chosen.value.includes(student)
  if (more) chosen.value = had ? chosen.value.filter((s) => s !== student) : [...chosen.value, student]
  else chosen.value = had && chosen.value.length === 1 ? [] : [student]
}

function move(step: number) {
  const at = rows.value.findIndex((r) => r.id === chosen.value[0])
  const next =
    rows.value[at < 0 ? (step > 0 ? 0 : rows.value.length - 1) : (at + step + rows.value.length) % rows.value.length]
  if (next) chosen.value = [next.id]
}

function found() {
  const first = matches.value[0]
  if (first) chosen.value = [first.id]
  finding.value = ''
  finder.value?.blur()
}

function onKey(event: KeyboardEvent) {
  const target = event.target as HTMLElement
  if (ending.value || target.closest('input:not([type=checkbox]), textarea, select, [role=dialog]')) return
  const onControl = target.closest('button, a, input')
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
    event.preventDefault()
    takeBack()
    return
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return

  const act = actOnKey(event, acts.value)
  if (event.key === 'Escape') {
    chosen.value = []
    keysShown.value = false
  } else if (event.key === 'Backspace') takeBack()
  else if (event.key === '?') keysShown.value = !keysShown.value
  else if (event.key === 'Enter' && !onControl) callNext()
  else if (event.key === ' ' && !onControl) finder.value?.focus()
  else if (event.key === 'ArrowDown') move(1)
  else if (event.key === 'ArrowUp') move(-1)
  else if (event.key === 'Home') chosen.value = rows.value.map((r) => r.id)
  else if (act) {
    if (chosen.value.length) log(act, chosen.value)
    else if (turnRow.value && outcomes.includes(act)) log(act, [turnRow.value.id])
    else return
  } else if (/^[a-z]$/i.test(event.key)) pick(event.key.toLowerCase(), event.shiftKey)
  else return
  event.preventDefault()
}

onMounted(() => {
  window.addEventListener('keydown', onKey)
  narrow.addEventListener('change', measure)
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey)
  narrow.removeEventListener('change', measure)
})

function endLesson() {
  ending.value = false
  note({ type: 'lessonEnded' })
}
</script>

<template>
  <main v-if="!head || !drawn" class="p-8">
    <Notice v-if="problem" tone="wrong">{{ problem }}</Notice>
    <p v-else class="text-ink-soft">Opening the lesson…</p>
    <p class="mt-4"><RouterLink class="quiet" to="/">Back to the desk</RouterLink></p>
  </main>

  <div v-else class="live" :style="{ '--rows': rows.length }">
    <LessonHead :head="head" :now="now" :here="here" :of="rows.length" @end="ending = true" />

    <aside class="side" aria-label="Turn and hand line">
      <section v-if="turnRow && running" class="turn" aria-live="polite">
        <p class="text-small">
          Turn<template v-if="drawn.turn?.waitedSeconds != null"
            >, from the line, waited {{ Math.floor(drawn.turn.waitedSeconds / 60) }}:{{
              String(Math.floor(drawn.turn.waitedSeconds % 60)).padStart(2, '0')
            }}</template
          >
        </p>
        <h2 class="text-head leading-tight font-bold">{{ turnRow.called }} {{ turnRow.rest }}</h2>
        <div class="mt-1 grid grid-cols-2 gap-x-4">
          <button v-for="act in outcomes" :key="act.name" class="outcome" @click="log(act, [turnRow.id])">
            <span>{{ act.label }}</span><KeyCap :k="act.key" />
          </button>
        </div>
      </section>

      <KeyList v-if="keysShown" :acts="acts" @close="keysShown = false" />
      <template v-else>
        <HandLine
          :hands="drawn.hands"
          :name-of="nameOf"
          :now="now"
          :can-call="running"
          @call="callNext"
          @call-one="(s) => note({ type: 'called', student: s, origin: 'hand' })"
          @set-down="setDown"
        />
        <section class="mt-4">
          <label class="flex items-baseline justify-between border-b-[1.5px] border-ink pb-0.5">
            <span class="font-semibold">Find</span
            ><span class="text-small text-ink-soft">by name <KeyCap k="space" /></span>
          </label>
          <input
            ref="finder"
            v-model="finding"
            class="field"
            aria-label="Find a student by name"
            autocomplete="off"
            @keydown.enter.prevent.stop="found"
            @keydown.esc.stop="((finding = ''), finder?.blur())"
          />
          <p v-for="row in matches.slice(0, 4)" :key="row.id" class="truncate border-b border-rule py-0.5">
            <b>{{ row.called }}</b> {{ row.rest }}
          </p>
        </section>
        <ReminderList
          :head="head"
          :before-start="drawn.beforeStart"
          :before-end="drawn.beforeEnd"
          :now="now"
          @tick="(reminder) => note({ type: 'reminderTicked', reminder })"
          @untick="strike"
        />
        <section v-if="drawn.refused.length" class="mt-4" aria-label="Not stored">
          <h2 class="border-b-[1.5px] border-ink pb-0.5 font-semibold">Not stored</h2>
          <div v-for="r in drawn.refused" :key="r.id" class="border-b border-rule py-1 text-small" role="alert">
            <b>{{ r.text }}.</b> {{ r.why }}
            <button class="quiet" @click="dismiss(r.id)">Put away</button>
          </div>
        </section>
      </template>
    </aside>

    <main class="sheet">
      <div class="row head-row">
        <span class="name-head"
          ><b>{{ rows.length }} on the roster</b> <span class="text-ink-soft">by family name</span></span
        >
        <span class="scale text-ink-soft" aria-hidden="true"
          ><span>{{ hour(head.countedFrom) }}</span
          ><span>{{ hour((head.countedFrom + head.countedTo) / 2) }}</span
          ><span>{{ hour(head.countedTo) }}</span></span
        >
        <b class="text-pen-speaking">Speaking</b><b class="text-pen-chat">Chat</b><b class="text-pen-nods">Nods</b>
      </div>
      <div role="list" aria-label="Sheet" @mouseleave="hovered = undefined">
        <SheetRow
          v-for="row in rows"
          :key="row.id"
          :row="row"
          :head="head"
          :now="now"
          :chosen="chosen.includes(row.id)"
          :on-turn="row.id === turnRow?.id && running"
          :hand="drawn.hands.some((h) => h.student === row.id)"
          :acts="acts"
          :acting="wide && running && (hovered === row.id || (chosen.length === 1 && chosen[0] === row.id))"
          @mouseenter="hovered = row.id"
          @pick="(more) => toggle(row.id, more)"
          @act="(act) => log(act, [row.id])"
        />
      </div>
      <Notice v-if="!rows.length"
        >This class has no roster yet.
        <RouterLink class="quiet" :to="`/classes/${head.classId}/roster`">Bring in a roster</RouterLink> and come back:
        the lesson goes on.</Notice
      >
    </main>

    <footer class="foot">
      <div v-if="chosen.length > 0 && running" class="pad">
        <span class="shrink-0"
          ><b>{{ chosen.length === 1 ? nameOf(chosen[0]!) : count(chosen.length, 'student') }}</b></span
        >
        <ActStrip :acts="acts" @act="(act) => log(act, chosen)" />
      </div>
      <template v-else>
        <p class="shrink-0">
          Letter, then a key. <button class="quiet" @click="keysShown = !keysShown">All keys</button> <KeyCap k="?" />
        </p>
        <ol class="entries" aria-label="Last entries">
          <li v-for="entry in drawn.entries.slice(0, 6)" :key="entry.id" :class="entry.state">
            <b>{{ second(entry.at) }}</b> {{ entry.text }}
            <button
              v-if="entry.canStrike && entry.state !== 'struck' && running"
              class="quiet strike"
              :aria-label="`Strike out: ${entry.text}`"
              @click="strike(entry.id)"
            >
              strike
            </button>
          </li>
        </ol>
      </template>
      <p class="flex shrink-0 items-baseline gap-4">
        <button v-if="running" class="quiet" @click="takeBack">Undo <KeyCap k="⌫" /></button>
        <span class="stored" role="status" :class="{ pencilled: waiting > 0 }">
          <template v-if="away === 'signedOut'"
            ><RouterLink class="quiet" :to="{ name: 'sign-in', query: { to: $route.fullPath } }"
              >signed out: {{ waiting }} wait</RouterLink
            ></template
          >
          <template v-else-if="waiting > 0">{{
            away === 'away' ? `no connection, ${waiting} in pencil` : `${waiting} in pencil`
          }}</template>
          <template v-else-if="away === 'away'">no connection</template>
          <template v-else>all stored</template>
        </span>
      </p>
    </footer>
    <p class="sr-only" aria-live="polite">{{ said }}</p>

    <Dialog :open="ending" class="relative z-10" @close="ending = false">
      <div class="fixed inset-0 bg-paper opacity-80" aria-hidden="true" />
      <div class="fixed inset-0 flex items-center justify-center p-4">
        <DialogPanel class="w-full max-w-md border-2 border-ink bg-paper p-6">
          <DialogTitle class="text-head font-bold">End lesson {{ head.number }}</DialogTitle>
          <DialogDescription class="mt-2 text-ink-soft">
            Nothing more can be tapped after that; files, names and the register come next.
            <template v-if="waiting > 0">
              {{ count(waiting, 'entry', 'entries') }} still in pencil go out first.</template
            >
          </DialogDescription>
          <div class="mt-5 flex gap-4">
            <button class="press-first" @click="endLesson">End the lesson</button>
            <button class="press" @click="ending = false">Go on teaching</button>
          </div>
        </DialogPanel>
      </div>
    </Dialog>
    <div v-if="!running" class="over-note">
      <Notice>
        This lesson has {{ head.stage === 'planned' ? 'not begun' : 'ended' }}.
        <a
          v-if="head.stage === 'planned' && head.meetingLink"
          class="press ml-3"
          :href="head.meetingLink"
          target="_blank"
          rel="noopener noreferrer"
          >Open the meeting</a
        >
        <RouterLink v-if="head.stage === 'planned'" class="press ml-3" :to="`/lessons/${id}/plan`">Its plan</RouterLink>
        <button v-if="head.stage === 'planned'" class="press-first ml-3" @click="note({ type: 'lessonStarted' })">
          Start it now
        </button>
        <button v-else class="press-first ml-3" @click="router.push(`/lessons/${id}/settle`)">Settle it</button>
      </Notice>
    </div>
  </div>
</template>

<style scoped>
.live {
  --row: clamp(24px, calc((100dvh - 58px - 28px - 36px - 4px) / max(1, var(--rows))), 40px);
  display: grid;
  grid-template: 58px minmax(0, 1fr) 36px / 250px minmax(0, 1fr);
  grid-template-areas: 'head head' 'side sheet' 'foot foot';
  height: 100dvh;
}
.live > :deep(header) {
  grid-area: head;
}
.side {
  grid-area: side;
  border-right: 2px solid var(--margin);
  padding: 14px 14px 14px 20px;
  overflow-y: auto;
}
.turn {
  margin: 0 -14px 18px -20px;
  padding: 12px 14px 12px 20px;
  background: var(--live);
  color: var(--on-live);
}
.outcome {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  border-bottom: 1px solid var(--on-live-soft);
  padding: 4px 0 3px;
  min-height: 28px;
}
.outcome:hover {
  font-weight: 700;
}
.sheet {
  grid-area: sheet;
  overflow: hidden auto;
  padding: 0 16px;
}
.head-row {
  position: sticky;
  top: 0;
  z-index: 1;
  height: 28px;
  background: var(--paper);
  border-bottom: 1.5px solid var(--ink);
  font-size: var(--text-small);
  display: grid;
  grid-template-columns: 236px 1fr 72px 64px 44px;
  align-items: end;
  padding-bottom: 2px;
}
.name-head {
  padding-left: 24px;
  overflow: hidden;
  white-space: nowrap;
}

.scale {
  display: flex;
  justify-content: space-between;
  margin: 0 14px 0 96px;
  font-size: 0.75rem;
}
.foot {
  grid-area: foot;
  display: flex;
  align-items: center;
  gap: 24px;
  border-top: 2px solid var(--ink);
  padding: 0 16px 0 20px;
  font-size: var(--text-small);
}
.entries {
  display: flex;
  flex: 1;
  min-width: 0;
  gap: 14px;
  overflow: hidden;
  white-space: nowrap;
  color: var(--ink-soft);
}
.entries b {
  color: var(--ink);
}
.entries .pencil {
  font-style: italic;
}
.entries .struck {
  text-decoration: line-through;
}
.strike {
  color: var(--ink-soft);
}
.pad {
  display: flex;
  flex: 1;
  min-width: 0;
  align-items: center;
  gap: 14px;
  overflow-x: auto;
}
.stored {
  font-weight: 700;
}
.pencilled {
  font-style: italic;
  font-weight: 400;
}
.over-note {
  position: fixed;
  inset: auto 24px 56px auto;
  background: var(--paper);
  border: 1.5px solid var(--ink);
  padding: 10px 16px;
}
@media (max-width: 900px) {
  .live {
    grid-template: auto auto 1fr auto / minmax(0, 1fr);
    grid-template-areas: 'head' 'side' 'sheet' 'foot';
    height: auto;
    min-height: 100dvh;
    --row: 34px;
  }
  .side {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0 24px;
    align-items: start;
    border-right: 0;
    border-bottom: 2px solid var(--margin);
  }
  .side > :deep(*) {
    margin-top: 0;
  }
  .turn {
    grid-column: 1 / -1;
    margin-bottom: 10px;
  }
  .name-head span,
  .scale {
    visibility: hidden;
    height: 0;
    overflow: hidden;
  }
  .pad {
    flex-basis: 100%;
    overflow: visible;
  }
  .pad > :deep(.strip) {
    flex-wrap: wrap;
  }
  .head-row {
    grid-template-columns: 150px 1fr 62px 52px 40px;
  }
  .foot {
    position: sticky;
    bottom: 0;
    background: var(--paper);
    flex-wrap: wrap;
    padding: 8px 12px;
    gap: 8px 16px;
  }
  .entries {
    flex-basis: 100%;
    order: 3;
  }
  .sheet {
    padding: 0 10px;
  }
}
</style>
