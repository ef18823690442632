import { computed, inject, nextTick, provide, ref, type InjectionKey } from 'vue'
import { useRoute } from 'vue-router'
import type { CommandName } from '../../live/acts'
import { useLive, type LiveLesson } from '../../live/lesson'
import { useActing } from './acting'
import { isHere, useChoosing } from './choosing'
import { useDraw } from './draw'
import { useJudging } from './judging'
import { usePass, type Pass } from './pass'
import { useSheet } from './sheet'

/** What lies beside the sheet, in place of reminders and hand line. */
export type PanelName =
  'keys' | 'wayIn' | 'door' | 'reach' | 'signal' | 'timer' | 'board' | 'links' | 'student' | 'rubric'
/** What stands in place of the sheet. */
export type BigName = 'chat' | 'groups' | 'questions'
/** Everything that a key or a line at the edge does that is not about chosen students. */
export type Doing = CommandName | 'wayIn' | 'links'

/** What can be asked of whatever stands in place of the sheet. */
export interface BigSheet {
  onKey: (event: KeyboardEvent) => boolean
  /** Of the questions: opens the next one that waits. */
  openNext?: () => void
}

/** A teacher at a lesson, in this window: who is chosen, what is open, and what each press does. */
export function provideTeaching(id: string, lesson: LiveLesson) {
  const route = useRoute()
  const { drawn, note, head } = lesson
  const sheet = useSheet(lesson)
  const choosing = useChoosing(sheet.rows)
  const telling = { said: ref(''), wrong: ref('') }
  const acting = useActing(lesson, sheet, choosing.chosen, telling)
  const judging = useJudging(lesson, sheet, choosing.chosen, telling)
  const draw = useDraw(id, lesson, sheet, telling)
  const passing = usePass(lesson)
  const { running } = sheet
  const { chosen } = choosing
  const { pass, out } = passing

  const panel = ref<PanelName>()
  const big = ref<BigName | undefined>(route.query.open === 'chat' ? 'chat' : undefined)
  const bigSheet = ref<BigSheet>()
  const ending = ref(false)
  const finding = ref(false)
  const asideOn = ref<string>()

  const open = (name: PanelName) => (panel.value = panel.value === name ? undefined : name)
  const openBig = (name: BigName) => (big.value = big.value === name ? undefined : name)

  function beginPass(next: Pass) {
    if (!(next.kind === 'rollCall' && sheet.planned.value) && !acting.goesOn()) return
    big.value = undefined
    chosen.value = []
    // Enter is to finish the pass, not to press again what began it.
    ;(document.activeElement as HTMLElement | null)?.blur()
    passing.begin(next)
  }
  /** Begins a signal round with everybody in: for the next statement of the plan that had none yet, or for whatever is asked aloud. The same key puts the round away. */
  function beginSignal() {
    if (pass.value?.kind === 'signal') {
      pass.value = undefined
      panel.value = undefined
      return
    }
    panel.value = 'signal'
    const held = new Set(head.value?.rounds.map((r) => r.statement))
    const next = head.value?.plan.statements.find((s) => !held.has(s.text))
    beginPass({ kind: 'signal', statement: next?.text ?? '', ledBy: null })
  }
  function finishPass() {
    telling.said.value = passing.finish() ?? ''
    if (panel.value === 'signal') panel.value = undefined
  }

  /** Closes the question that was opened last, or opens the next one that waits, in its sheet. Whoever is filling in a blank means the question of the blank. */
  async function openQuestion() {
    if (big.value === 'questions' && document.activeElement?.closest('[data-blank]'))
      return bigSheet.value?.openNext?.()
    const asked = drawn.value?.askings.findLast((a) => a.closedAt === null)
    if (asked) {
      note({ type: 'questionClosed', asking: asked.asking })
      telling.said.value = 'Question closed'
      return
    }
    if (!acting.goesOn()) return
    big.value = 'questions'
    await nextTick()
    bigSheet.value?.openNext?.()
  }

  const one = () => (chosen.value.length === 1 ? chosen.value[0] : undefined)
  // A command that is missing here does not compile.
  const run: Record<Doing, () => unknown> = {
    callNext: acting.callNext,
    draw: () => acting.goesOn() && draw.drawName(),
    rollCall: () => (pass.value?.kind === 'rollCall' ? (pass.value = undefined) : beginPass({ kind: 'rollCall' })),
    nextStage: acting.nextStage,
    signal: beginSignal,
    chat: () => openBig('chat'),
    groups: () => openBig('groups'),
    questions: () => openBig('questions'),
    openQuestion,
    wayIn: () => open('wayIn'),
    door: () => open('door'),
    reach: () => open('reach'),
    board: () => open('board'),
    timer: () => open('timer'),
    rubric: () => open('rubric'),
    links: () => open('links'),
    keys: () => open('keys'),
    showNods: acting.showNods,
    student: () => one() && open('student'),
    aside: () => (asideOn.value = one() ?? asideOn.value),
    find: () => (finding.value = true),
    all: choosing.chooseAll,
    undo: acting.takeBack,
  }

  /** A letter: in a pass it takes somebody out or back in, else it chooses. */
  function letterPressed(letter: string, more: boolean) {
    const sharing = choosing.withLetter(letter)
    if (!pass.value) choosing.pick(letter, more)
    else if (sharing.length) passing.takeOut(sharing.find((s) => !out.value.has(s)) ?? sharing[0]!)
  }
  /** A press on a name does the same. */
  const namePressed = (student: string, more: boolean) =>
    pass.value ? passing.takeOut(student) : choosing.toggle(student, more)

  /** Puts away what is open, one thing a press. */
  function escape() {
    if (pass.value) pass.value = undefined
    else if (chosen.value.length) chosen.value = []
    else if (panel.value) panel.value = undefined
    else big.value = undefined
  }

  /** Whether the acts lie in the row of a student: it is chosen alone, or the pointer is on it. */
  const isActing = (student: string) =>
    sheet.wide.value &&
    (running.value || sheet.planned.value) &&
    !pass.value &&
    (sheet.hovered.value === student || one() === student)
  /** In a pass over the class: what stands beside somebody who was taken out. */
  const outWord = (row: { id: string; whereabouts: string }) => {
    if (!pass.value || !out.value.has(row.id)) return undefined
    return pass.value.kind === 'signal' && isHere(row) ? 'no answer' : 'not here'
  }

  /** Why somebody was sent out is an aside, asked for at once. */
  function log(...[act, students]: Parameters<typeof acting.log>) {
    const sendsOut =
      act.name === 'sentOut' && running.value && students.length === 1 && !sheet.rowOf(students[0]!)?.sentOutSince
    acting.log(act, students)
    if (sendsOut) asideOn.value = students[0]
  }

  const teaching = {
    ...sheet,
    ...choosing,
    ...telling,
    ...acting,
    log,
    ...draw,
    judging,
    pass,
    out,
    panel,
    big,
    bigSheet,
    ending,
    finding,
    asideOn,
    open,
    beginPass,
    finishPass,
    run,
    letterPressed,
    namePressed,
    escape,
    isActing,
    outWord,
    onTurn: computed(() => (running.value ? sheet.turnRow.value?.id : undefined)),
  }
  provide(key, teaching)
  return teaching
}

export type Teaching = ReturnType<typeof provideTeaching>

const key: InjectionKey<Teaching> = Symbol('the teacher at the lesson of this window')

/** The teacher at the lesson of this window, and the lesson, for the parts of the live screen. */
export const useTeaching = () => ({ ...useLive(), ...inject(key)! })
