<script setup lang="ts">
import { useQuery, useQueryClient } from '@tanstack/vue-query'
import { computed, nextTick, onBeforeUnmount, onMounted, provide, ref, watch, watchEffect } from 'vue'
import { useRoute } from 'vue-router'
import { api, ask, Problem } from '../../api/client'
import { liveLesson, useLesson } from '../../live/lesson'
import { entryId, type Act } from '../../live/outbox'
import { drawChat } from '../../live/chat'
import { count, hour } from '../../ui/format'
import KeyCap from '../../ui/KeyCap.vue'
import Notice from '../../ui/Notice.vue'
import {
  actOnKey,
  actsOf,
  changedKeys,
  commandOnKey,
  commandsOf,
  digitOf,
  loadKeys,
  studentKey,
  outcomeNames,
  type LoggedAct,
} from '../../live/acts'
import ActStrip from './ActStrip.vue'
import AsideForm from './AsideForm.vue'
import BoardPanel from './BoardPanel.vue'
import ChatSheet from './ChatSheet.vue'
import { isHere, useChoosing } from './choosing'
import DoorPanel from './DoorPanel.vue'
import EdgeList from './EdgeList.vue'
import EndDialog from './EndDialog.vue'
import GroupsSheet from './GroupsSheet.vue'
import FindForm from './FindForm.vue'
import Gauge from './Gauge.vue'
import { gauge } from './gauge'
import HandLine from './HandLine.vue'
import KeyList from './KeyList.vue'
import LastEntries from './LastEntries.vue'
import LessonHead from './LessonHead.vue'
import LinksPanel from './LinksPanel.vue'
import NotRunning from './NotRunning.vue'
import QuestionsSheet from '../questions/QuestionsSheet.vue'
import WayInPanel from './WayInPanel.vue'
import { usePass } from './pass'
import ReachPanel from './ReachPanel.vue'
import ReminderList from './ReminderList.vue'
import SheetRow from './SheetRow.vue'
import SignalPanel from './SignalPanel.vue'
import { play, sound } from './sound'
import StudentPanel from './StudentPanel.vue'
import TimerPanel from './TimerPanel.vue'
import TurnCard from './TurnCard.vue'

const props = defineProps<{ id: string }>()
const route = useRoute()
const queries = useQueryClient()
const lesson = useLesson(props.id)
provide(liveLesson, lesson)
const {
  head,
  isOver,
  drawn,
  problem,
  away,
  unkept,
  now,
  minute,
  noted,
  waiting,
  note,
  strike,
  dismiss,
  undo,
  serverTime,
} = lesson

type SidePanelName = 'keys' | 'wayIn' | 'door' | 'reach' | 'signal' | 'timer' | 'board' | 'links' | 'student'
const panel = ref<SidePanelName>()
/** What stands in place of the sheet. */
const big = ref<'chat' | 'groups' | 'questions' | undefined>(route.query.open === 'chat' ? 'chat' : undefined)
const bigSheet = ref<{ onKey: (event: KeyboardEvent) => boolean }>()
const hovered = ref<string>()
const ending = ref(false)
const finding = ref(false)
const asideOn = ref<string>()
const said = ref('')
const wrong = ref('')
const drawBy = ref<'leastHeard' | 'onceRound'>(
  localStorage.getItem('polite-tally-draw') === 'onceRound' ? 'onceRound' : 'leastHeard',
)
watch(drawBy, (manner) => localStorage.setItem('polite-tally-draw', manner))
// In a narrow window acts lie at the foot instead of in the row.
const narrow = window.matchMedia('(max-width: 900px)')
const wide = ref(!narrow.matches)
const measure = () => (wide.value = !narrow.matches)

const rows = computed(() => drawn.value?.rows ?? [])
const { chosen, chosenSet, withLetter, pick, toggle, move, chooseAll } = useChoosing(rows)
const nameOf = (id: string) => rows.value.find((r) => r.id === id)?.shortName ?? ''
// As one text, which is the same from patch to patch: a new list of acts would draw every row anew.
const reasons = computed(() => head.value?.nodReasons.join('\n') ?? '')
const acts = computed(() => actsOf(reasons.value.split('\n').filter(Boolean), changedKeys))
const commands = computed(() => commandsOf(changedKeys))
const keyOf = (command: string) => commands.value.find((c) => c.name === command)!.key
const outcomes = computed(() => acts.value.filter((a) => outcomeNames.includes(a.name)))
const running = computed(() => head.value?.stage === 'live')
const here = computed(() => rows.value.filter(isHere).length)
const missing = computed(() => rows.value.filter((r) => r.whereabouts === 'missing' || r.whereabouts === 'left').length)
const turnRow = computed(() => rows.value.find((r) => r.id === drawn.value?.turn?.student))
const points = computed(() => head.value?.plan.points ?? [])
const handsUp = computed(() => new Set(drawn.value?.hands.map((h) => h.student)))
const groupOf = computed(
  () => new Map(drawn.value?.groups.flatMap((g) => g.members.map((m) => [m, g.name] as const)) ?? []),
)
const isActing = (student: string) =>
  wide.value &&
  running.value &&
  !pass.value &&
  (hovered.value === student || (chosen.value.length === 1 && chosen.value[0] === student))
/** In a pass over the class: what stands beside somebody who was taken out. */
const outWord = (row: { id: string; whereabouts: string }) =>
  pass.value && out.value.has(row.id)
    ? pass.value.kind === 'signal' && isHere(row)
      ? 'no answer'
      : 'not here'
    : undefined
watchEffect(() => {
  if (head.value) document.title = `Lesson ${head.value.number}, ${head.value.className} · Polite Tally`
})
watch(
  () => drawn.value?.hands.length ?? 0,
  (many, few) => sound.value && many > few && play(),
)

// The chat is asked for only while it is looked at, and then as often as something changed.
const chatKey = ['chat', props.id]
const { data: chat } = useQuery({
  queryKey: chatKey,
  enabled: computed(() => big.value === 'chat'),
  queryFn: () => ask(api.GET('/api/lessons/{id}/chat', { params: { path: { id: props.id } } })),
})
watch(
  () => [head.value?.position, big.value],
  () => big.value === 'chat' && void queries.invalidateQueries({ queryKey: chatKey }),
)
const messages = computed(() => drawChat(chat.value?.messages ?? [], noted.value))

const open = (name: SidePanelName) => (panel.value = panel.value === name ? undefined : name)

const { pass, out, begin, takeOut, finish } = usePass(lesson)
function beginPass(next: NonNullable<typeof pass.value>) {
  if (!running.value) return
  big.value = undefined
  chosen.value = []
  // Enter is to finish the pass, not to press again what began it.
  ;(document.activeElement as HTMLElement | null)?.blur()
  begin(next)
}
/** Opens the signal round; with a statement in the plan that had none yet, its round begins at once. */
function beginSignal() {
  if (open('signal') === undefined) return
  const held = new Set(head.value?.rounds.map((r) => r.statement))
  const next = head.value?.plan.statements.find((s) => !held.has(s.text))
  if (next) beginPass({ kind: 'signal', statement: next.text, ledBy: null })
}
function finishPass() {
  said.value = finish() ?? ''
  if (panel.value === 'signal') panel.value = undefined
}

/** What an act is for a student as things stand: the hand key takes a hand down again, the pause key ends a pause. */
function actFor(act: LoggedAct, student: string): Act[] {
  if (act.name === 'hand' && handsUp.value.has(student)) return [{ type: 'handEnded', student, end: 'withdrawn' }]
  if (act.name === 'pause')
    return [{ type: 'speakingPaused', student, paused: !rows.value.find((r) => r.id === student)?.paused }]
  const by = drawn.value?.turn?.student
  if (act.name === 'handOn' && by && by !== student) return [{ type: 'called', student, origin: 'handedOn', by }]
  return [act.make(student)]
}

/** Whoever cannot speak today is not given the word without a word of it. */
function warnOfPause(students: readonly string[]) {
  const paused = students.filter((s) => rows.value.find((r) => r.id === s)?.paused).map(nameOf)
  wrong.value = paused.length
    ? `${paused.join(', ')} cannot speak today, by your own note. Undo takes the call back.`
    : ''
}

function log(act: LoggedAct, students: readonly string[]) {
  if (!students.length || !running.value) return
  if (act.name === 'call' || act.name === 'handOn') warnOfPause(students)
  note(...students.flatMap((student) => actFor(act, student)))
  said.value = `${students.length > 3 ? count(students.length, 'student') : students.map(nameOf).join(', ')}, ${act.label}`
  chosen.value = []
}

function callNext() {
  const next = drawn.value?.hands.find((h) => !h.stranger)
  if (next && running.value) call(next.student)
}
function call(student: string) {
  warnOfPause([student])
  note({ type: 'called', student, origin: 'hand' })
}

const setDown = (...students: string[]) =>
  note(...students.map((student) => ({ type: 'handEnded' as const, student, end: 'setDown' as const })))

let drawing = ''
async function drawName() {
  if (!running.value) return
  wrong.value = ''
  // Kept until there is an answer, so that a draw whose answer got lost is not drawn anew.
  drawing ||= entryId(serverTime())
  try {
    const name = await ask(
      api.POST('/api/lessons/{id}/draw', {
        params: { path: { id: props.id } },
        body: { id: drawing, manner: drawBy.value },
      }),
    )
    drawing = ''
    said.value = `Drawn: ${nameOf(name.student)}, ${name.why}`
  } catch (failure) {
    wrong.value = (failure as Error).message
    if (failure instanceof Problem && failure.status !== 0) drawing = ''
  }
}

function nextStage() {
  const next = head.value?.plan.stages[(drawn.value?.stage?.index ?? -1) + 1]
  if (next && running.value) note({ type: 'stageMoved', stage: next.id })
}
function extend(minutes: number) {
  const stage = head.value?.plan.stages[drawn.value?.stage?.index ?? -1]
  if (stage) note({ type: 'stageExtended', stage: stage.id, minutes })
}

function takeBack() {
  if (isOver.value) {
    said.value = 'The lesson is over: nothing is undone by a key. Strike it in the list if it should not count.'
    return
  }
  const last = undo()
  if (last) said.value = `struck out: ${last.text}`
}

/** A letter, or a press on a name: in a pass it takes somebody out or back in, else it chooses. */
function letterPressed(letter: string, more: boolean) {
  const sharing = withLetter(letter)
  if (!pass.value) pick(letter, more)
  else if (sharing.length) takeOut(sharing.find((s) => !out.value.has(s)) ?? sharing[0]!)
}
const namePressed = (student: string, more: boolean) => (pass.value ? takeOut(student) : toggle(student, more))

function found(student: string) {
  chosen.value = [student]
  finding.value = false
}

function noteAside(text: string) {
  if (asideOn.value && text) note({ type: 'asideNoted', student: asideOn.value, text })
  asideOn.value = undefined
  chosen.value = []
}

/** Closes the question that was opened last, or opens the next one that waits, in its sheet. */
async function openQuestion() {
  const asked = drawn.value?.askings.findLast((a) => a.closedAt === null)
  if (asked) {
    note({ type: 'questionClosed', asking: asked.asking })
    said.value = 'Question closed'
    return
  }
  if (!running.value) return
  big.value = 'questions'
  await nextTick()
  ;(bigSheet.value as InstanceType<typeof QuestionsSheet> | undefined)?.openNext()
}

const run: Record<string, () => unknown> = {
  callNext,
  draw: drawName,
  rollCall: () => (pass.value?.kind === 'rollCall' ? (pass.value = undefined) : beginPass({ kind: 'rollCall' })),
  nextStage,
  signal: beginSignal,
  chat: () => (big.value = big.value === 'chat' ? undefined : 'chat'),
  groups: () => (big.value = big.value === 'groups' ? undefined : 'groups'),
  questions: () => (big.value = big.value === 'questions' ? undefined : 'questions'),
  openQuestion,
  wayIn: () => open('wayIn'),
  door: () => open('door'),
  reach: () => open('reach'),
  board: () => open('board'),
  timer: () => open('timer'),
  links: () => open('links'),
  keys: () => open('keys'),
  student: () => chosen.value.length === 1 && open('student'),
  aside: () => chosen.value.length === 1 && (asideOn.value = chosen.value[0]),
  find: () => (finding.value = true),
  all: chooseAll,
  undo: takeBack,
}

/** Puts away what is open, one thing a press. */
function escape() {
  if (pass.value) pass.value = undefined
  else if (chosen.value.length) chosen.value = []
  else if (panel.value) panel.value = undefined
  else big.value = undefined
}

/** With a turn on and nobody chosen, the digits from 1 tick its points. */
function tickPoint(event: KeyboardEvent) {
  const digit = Number(digitOf(event) ?? 0)
  const point = digit <= 5 ? points.value[digit - 1] : undefined
  if (!turnRow.value || !point) return false
  if (!turnRow.value.points.includes(point.id))
    note({ type: 'pointCovered', student: turnRow.value.id, point: point.id })
  return true
}

const writesText = 'input:not([type=checkbox]):not([type=radio]), textarea, select, [role=dialog], [role=listbox]'

/** What a key does here; false if it is nobody's. */
function pressed(event: KeyboardEvent): unknown {
  if (event.key === 'Escape') return (escape(), true)
  if (pass.value && event.key === 'Enter') return (finishPass(), true)
  if (big.value && bigSheet.value?.onKey(event)) return true
  const command = commandOnKey(event, commands.value, acts.value)
  if (command) return (void run[command.name]!(), true)
  if (event.key === 'ArrowDown') return (move(1), true)
  if (event.key === 'ArrowUp') return (move(-1), true)
  const act = actOnKey(event, acts.value)
  const letter = studentKey(event)
  if (letter && !act) return (letterPressed(letter, event.shiftKey), true)
  if (act && chosen.value.length) return (log(act, chosen.value), true)
  if (act && turnRow.value && outcomes.value.includes(act)) return (log(act, [turnRow.value.id]), true)
  return running.value && tickPoint(event)
}

function onKey(event: KeyboardEvent) {
  const target = event.target as HTMLElement
  // A function key writes nothing, so it does in a field what it says.
  if (ending.value || (target.closest(writesText) && !/^F\d+$/.test(event.key))) {
    if (event.key === 'Escape') target.blur()
    return
  }
  if ((event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'z') {
    event.preventDefault()
    takeBack()
    return
  }
  if (event.ctrlKey || event.metaKey || event.altKey) return
  // A key that is held down is one press; only choosing goes on with it.
  if (event.repeat && !event.key.startsWith('Arrow')) return event.preventDefault()
  // On a button these press it.
  if ((event.key === 'Enter' || event.key === ' ') && target.closest('button, a, input, summary')) return
  if (pressed(event)) event.preventDefault()
}

/** A button that was pressed by the pointer gives the keyboard back: Enter is to call the next in line, not to press it again. */
function freeKeyboard(event: MouseEvent) {
  if (event.detail > 0 && !ending.value) (event.target as HTMLElement).closest('button')?.blur()
}

onMounted(() => {
  void loadKeys()
  window.addEventListener('keydown', onKey)
  window.addEventListener('click', freeKeyboard, true)
  narrow.addEventListener('change', measure)
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', onKey)
  window.removeEventListener('click', freeKeyboard, true)
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

  <div v-else class="live" :class="{ dense: rows.length > 28 }" :style="{ '--rows': rows.length }">
    <LessonHead
      :head="head"
      :stage="drawn.stage"
      :timer="running ? drawn.timers.find((t) => t.group === null) : undefined"
      :now="now"
      :here="here"
      :of="rows.length"
      :next-key="keyOf('nextStage')"
      @end="ending = true"
      @next="nextStage"
      @extend="extend"
    />

    <aside class="side" aria-label="Turn and hand line">
      <TurnCard
        v-if="turnRow && running"
        class="turn"
        :row="turnRow"
        :group="groupOf.get(turnRow.id)"
        :outcomes="outcomes"
        @outcome="(act) => log(act, [turnRow!.id])"
      />

      <Gauge v-if="gauge" />
      <KeyList v-if="panel === 'keys'" :acts="acts" :commands="commands" @close="panel = undefined" />
      <DoorPanel v-else-if="panel === 'door'" @close="panel = undefined" />
      <ReachPanel v-else-if="panel === 'reach'" :id="id" @close="panel = undefined" />
      <SignalPanel
        v-else-if="panel === 'signal'"
        @close="panel = undefined"
        @pass="(round) => beginPass({ kind: 'signal', ...round })"
      />
      <TimerPanel v-else-if="panel === 'timer'" @close="panel = undefined" />
      <BoardPanel v-else-if="panel === 'board'" :id="id" @close="panel = undefined" />
      <WayInPanel v-else-if="panel === 'wayIn'" :id="id" @close="panel = undefined" />
      <LinksPanel v-else-if="panel === 'links'" :id="id" @close="panel = undefined" />
      <StudentPanel
        v-else-if="panel === 'student' && chosen.length === 1"
        :key="chosen[0]"
        :student="chosen[0]!"
        @close="panel = undefined"
      />
      <template v-else>
        <ReminderList
          :head="head"
          :before-start="drawn.beforeStart"
          :before-end="drawn.beforeEnd"
          :now="now"
          @tick="(reminder) => note({ type: 'reminderTicked', reminder })"
          @untick="strike"
        />
        <HandLine
          :hands="drawn.hands"
          :name-of="nameOf"
          :now="now"
          :can-call="running"
          :next-key="keyOf('callNext')"
          @stranger="open('door')"
          @call="callNext"
          @call-one="call"
          @set-down="setDown"
        />
        <EdgeList
          v-if="running"
          :commands="commands"
          :missing="missing"
          :draw-by="drawBy"
          @run="(name) => run[name]!()"
          @other-draw="drawBy = drawBy === 'leastHeard' ? 'onceRound' : 'leastHeard'"
        />
        <p v-if="wrong" role="alert" class="text-small font-semibold">{{ wrong }}</p>
        <section v-if="drawn.refused.length" class="mt-4" aria-label="Not stored">
          <h2 class="border-b-[1.5px] border-ink pb-0.5 font-semibold">Not stored</h2>
          <div v-for="r in drawn.refused" :key="r.id" class="border-b border-rule py-1 text-small" role="alert">
            <b>{{ r.text }}.</b> {{ r.why }}
            <button class="quiet" @click="dismiss(r.id)">Put away</button>
          </div>
        </section>
      </template>
    </aside>

    <main class="sheet" :class="{ whole: big }">
      <ChatSheet
        v-if="big === 'chat'"
        ref="bigSheet"
        :messages="messages"
        :can-note="head.stage === 'live' || head.stage === 'ended'"
        @note="note"
        @close="big = undefined"
      />
      <QuestionsSheet
        v-else-if="big === 'questions'"
        :id="id"
        ref="bigSheet"
        :open-key="keyOf('openQuestion')"
        @close="big = undefined"
      />
      <GroupsSheet
        v-else-if="big === 'groups'"
        :id="id"
        ref="bigSheet"
        :chosen="chosen"
        :running="running"
        @choose="(students) => (chosen = students)"
        @close="big = undefined"
      />
      <template v-else>
        <div class="row head-row">
          <span class="name-head"
            ><b>{{ rows.length }} on the roster</b> <span class="text-ink-soft">by family name</span></span
          >
          <span class="scale text-ink-soft" aria-hidden="true"
            ><span>{{ hour(head.countedFrom) }}</span
            ><span>{{ hour((head.countedFrom + head.countedTo) / 2) }}</span
            ><span>{{ hour(head.countedTo) }}</span></span
          >
          <b class="text-pen-speaking">Speaking</b><b class="text-pen-questions">Questions</b
          ><b class="text-pen-chat">Chat</b><b class="group text-pen-group">Group</b><b class="text-pen-nods">Nods</b>
        </div>
        <div role="list" aria-label="Sheet" @mouseleave="hovered = undefined">
          <SheetRow
            v-for="row in rows"
            :key="row.id"
            v-memo="[
              row,
              minute,
              acts,
              chosenSet.has(row.id),
              handsUp.has(row.id),
              row.id === turnRow?.id && running,
              isActing(row.id),
              groupOf.get(row.id),
              outWord(row),
              head.stage,
              head.plan.version,
              head.countedFrom,
              head.countedTo,
            ]"
            :row="row"
            :head="head"
            :now="minute"
            :chosen="chosenSet.has(row.id)"
            :on-turn="row.id === turnRow?.id && running"
            :hand="handsUp.has(row.id)"
            :acts="acts"
            :acting="isActing(row.id)"
            :group="groupOf.get(row.id)"
            :out="outWord(row)"
            @mouseenter="hovered = row.id"
            @pick="(more) => namePressed(row.id, more)"
            @act="(act) => log(act, [row.id])"
          />
        </div>
        <Notice v-if="!rows.length"
          >This class has no roster yet.
          <RouterLink class="quiet" :to="`/classes/${head.classId}/roster`">Bring in a roster</RouterLink> and come
          back: the lesson goes on.</Notice
        >
      </template>
    </main>

    <footer class="foot">
      <div v-if="pass" class="pad" role="status">
        <span>
          <template v-if="pass.kind === 'rollCall'"
            ><b>Roll call.</b> {{ rows.length - out.size }} of {{ rows.length }} here, except those you take out: their
            letter, or a press.</template
          >
          <template v-else
            ><b>{{ pass.statement }}</b> {{ rows.length - out.size }} answered, except those you take out.</template
          >
        </span>
        <button class="press-first !min-h-7 shrink-0 !py-0.5" @click="finishPass">Done <KeyCap k="Enter" /></button>
        <button class="quiet shrink-0" @click="pass = undefined">not now <KeyCap k="Esc" /></button>
        <a v-if="pass.kind === 'rollCall'" class="quiet shrink-0" :href="`/api/lessons/${id}/roll-call.csv`"
          >who is here, as a file</a
        >
      </div>
      <FindForm v-else-if="finding" class="pad" :rows="rows" @found="found" @close="finding = false" />
      <AsideForm
        v-else-if="asideOn"
        class="pad"
        :name="nameOf(asideOn)"
        @note="noteAside"
        @close="asideOn = undefined"
      />
      <div v-else-if="chosen.length > 0 && running" class="pad">
        <span class="shrink-0"
          ><b>{{ chosen.length === 1 ? nameOf(chosen[0]!) : count(chosen.length, 'student') }}</b>
          <button v-if="chosen.length === 1" class="quiet ml-2" @click="open('student')">
            more <KeyCap :k="keyOf('student')" /></button
        ></span>
        <ActStrip :acts="acts" @act="(act) => log(act, chosen)" />
      </div>
      <template v-else>
        <p class="shrink-0">
          Letter, then a key. <button class="quiet" @click="open('keys')">All keys</button>
          <KeyCap :k="keyOf('keys')" />
        </p>
        <LastEntries :can-strike="running" />
      </template>
      <p class="flex shrink-0 items-baseline gap-4">
        <button v-if="running" class="quiet" @click="takeBack">Undo <KeyCap :k="keyOf('undo')" /></button>
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
          <template v-if="unkept">; this window alone keeps what waits</template>
        </span>
      </p>
    </footer>
    <p class="sr-only" aria-live="polite">{{ said }}</p>

    <EndDialog
      :open="ending"
      :number="head.number"
      :waiting="waiting"
      @end="endLesson"
      @close="ending = false"
      @run="(name) => run[name]!()"
    />
    <NotRunning
      v-if="!running"
      :id="id"
      :head="head"
      @start="note({ type: 'lessonStarted' })"
      @resume="head.endedBy && strike(head.endedBy)"
    />
  </div>
</template>

<style scoped>
.live {
  /* Of the rows, too. */
  --columns: 236px 1fr 68px 74px 54px 48px 44px;
  --head: 58px;
  --heading: 28px;
  --foot: 36px;
  --row: clamp(24px, calc((100dvh - var(--head) - var(--heading) - var(--foot)) / max(1, var(--rows)) - 0.1px), 40px);
  display: grid;
  grid-template: var(--head) minmax(0, 1fr) var(--foot) / 250px minmax(0, 1fr);
  grid-template-areas: 'head head' 'side sheet' 'foot foot';
  height: 100dvh;
}
.live > :deep(header) {
  grid-area: head;
}
.side {
  grid-area: side;
  border-right: 2px solid var(--margin);
  padding: 10px 14px 6px 20px;
  overflow-y: auto;
}
.turn {
  margin: -10px -14px 12px -20px;
  padding: 12px 14px 12px 20px;
}
.sheet {
  grid-area: sheet;
  overflow: hidden auto;
  padding: 0 16px;
}
.sheet.whole {
  padding-top: 8px;
}
.head-row {
  position: sticky;
  top: 0;
  z-index: 1;
  height: var(--heading);
  background: var(--paper);
  border-bottom: 1.5px solid var(--ink);
  font-size: var(--text-small);
  display: grid;
  grid-template-columns: var(--columns);
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
  margin: 0 14px 0 112px;
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
/* Thirty students fit in 800 px: what stands above and below them gives way. */
@media (min-width: 901px) and (max-height: 850px) {
  .dense {
    --head: 38px;
    --heading: 18px;
    --foot: 24px;
  }
  .dense .head-row {
    padding-bottom: 0;
    font-size: 0.75rem;
    line-height: 1.2;
  }
  .dense .foot {
    border-top-width: 1.5px;
  }
}
/* Half a window: the sheet stays beside the line, and acts lie at the foot. */
@media (max-width: 900px) {
  .live {
    --columns: minmax(0, 1fr) 82px 50px 54px 34px 34px;
    --row: clamp(24px, calc((100dvh - 104px - 28px - 76px) / max(1, var(--rows))), 34px);
    grid-template-rows: auto minmax(0, 1fr) auto;
    grid-template-columns: 204px minmax(0, 1fr);
  }
  .side {
    padding: 10px 10px 10px 12px;
  }
  .turn {
    margin: -10px -10px 12px -12px;
    padding: 8px 10px 8px 12px;
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
    font-size: 0.6875rem;
  }
  .head-row .group {
    display: none;
  }
  .foot {
    position: sticky;
    bottom: 0;
    background: var(--paper);
    flex-wrap: wrap;
    padding: 6px 12px;
    gap: 4px 16px;
  }
  .sheet {
    padding: 0 10px;
  }
}
/* A narrow one: whose turn it is, then the sheet, and what waits below it. */
@media (max-width: 560px) {
  .live {
    display: flex;
    flex-direction: column;
    height: auto;
    min-height: 100dvh;
    --row: 34px;
    /* No room of its own for what stands beside a name: it lies over the end of it. */
    --columns: minmax(0, 1fr) 0 50px 56px 40px 34px;
  }
  .side {
    display: contents;
  }
  .side > :deep(*) {
    order: 2;
    margin: 12px 12px 0;
  }
  .side > .turn {
    order: 0;
    margin: 0;
    padding: 8px 12px;
  }
  .sheet {
    order: 1;
    overflow: visible;
  }
  .foot {
    order: 3;
    margin-top: auto;
  }
}
</style>
