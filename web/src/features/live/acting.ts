import { ref, watch, type Ref } from 'vue'
import type { Schemas } from '../../api/client'
import type { LoggedAct } from '../../live/acts'
import type { DrawnHand } from '../../live/drawn'
import type { LiveLesson } from '../../live/lesson'
import type { Act } from '../../live/outbox'
import { count } from '../../ui/format'
import { beforeTheBell, type Sheet } from './sheet'
import { mayBeHere } from './wordsBeside'

/** What is told of an act that was just done: what it was, and what is wrong with it. */
export interface Telling {
  said: Ref<string>
  wrong: Ref<string>
}

/** Why there is no nod to show the class. */
const nothingToShow: Record<Schemas['NodsOnBoard'], string> = {
  never: 'This class has not agreed to see nods. Its ground rules say so.',
  whenShown: 'Give a nod first, then show the class.',
  always: 'The class sees every nod at once.',
}

/** What a teacher does to a lesson by a press: logging acts, giving the word, moving on, taking back. */
export function useActing(lesson: LiveLesson, sheet: Sheet, chosen: Ref<string[]>, { said, wrong }: Telling) {
  const { head, isOver, drawn, now, note, undo } = lesson
  const { rowOf, nameOf, running, planned, handsUp } = sheet
  /** When somebody was last given the word: a second press so soon was not meant for the next one, whose row nobody has seen yet. */
  let calledAt = -Infinity
  const seenAfter = 500
  /** Who was just noted as late, having been missing for so long: perhaps they were here all the time. */
  const cameLate = ref<{ students: string[]; minutes: number }>()

  /** Nods of the last press, while the class has agreed to see those that are shown. */
  const lastNods = ref<readonly string[]>([])
  /** How often this window put nods before the class. */
  const nodsSeen = ref(0)

  /** What an act is for a student as things stand: the hand key takes a hand down again, the pause key ends a pause. */
  function actFor(act: LoggedAct, student: string): Act {
    if (act.name === 'hand' && handsUp.value.has(student)) return { type: 'handEnded', student, end: 'withdrawn' }
    if (act.name === 'sentOut' && rowOf(student)?.sentOutSince) return { type: 'letBackIn', student }
    if (act.name === 'pause') return { type: 'speakingPaused', student, paused: !rowOf(student)?.paused }
    const by = drawn.value?.turn?.student
    if (act.name === 'handOn' && by && by !== student) return { type: 'called', student, origin: 'handedOn', by }
    return act.make(student)
  }

  /** Whoever cannot speak today is not given the word without a word of it. */
  function warnOfPause(students: readonly string[]) {
    const paused = students.filter((s) => rowOf(s)?.paused).map(nameOf)
    wrong.value = paused.length
      ? `${paused.join(', ')} cannot speak today, by your own note. Undo takes the call back.`
      : ''
  }

  /** Whether the lesson goes on; of one that has not begun it is said. */
  function goesOn() {
    if (planned.value) wrong.value = said.value = 'The lesson has not begun. Start it, then this works.'
    return running.value
  }

  // What was said of that is no longer true.
  watch(planned, () => (wrong.value = said.value = ''))

  function log(act: LoggedAct, students: readonly string[]) {
    if (!students.length || !((planned.value && beforeTheBell.includes(act.name)) || goesOn())) return
    cameLate.value = undefined
    const missed = act.name === 'here' ? students.filter(wasMissing) : []
    if (act.name === 'call' || act.name === 'handOn') warnOfPause(students)
    const entries = note(
      ...students.map((student) => (missed.includes(student) ? markLate(student) : actFor(act, student))),
    )
    lastNods.value = act.pen === 'nods' && head.value!.nodsOnBoard === 'whenShown' ? entries : []
    if (act.pen === 'nods' && head.value!.nodsOnBoard === 'always') nodsSeen.value++
    if (missed.length)
      cameLate.value = { students: missed, minutes: Math.round((now.value - head.value!.countedFrom) / 60_000) }
    said.value = `${students.length > 3 ? count(students.length, 'student') : students.map(nameOf).join(', ')}, ${act.label}`
    chosen.value = []
  }

  /** Puts the nods of the last press before the class, once. */
  function showNods() {
    if (!goesOn()) return
    if (!lastNods.value.length) {
      said.value = nothingToShow[head.value!.nodsOnBoard]
      return
    }
    note({ type: 'nodsShown', nods: [...lastNods.value] })
    lastNods.value = []
    nodsSeen.value++
    said.value = 'Shown to the class'
  }

  const markLate = (student: string): Act => ({ type: 'marked', student, mark: 'late' })
  /** Missing for so long that others are known to have been here before. Where nobody is known to be here, a class is being looked through for the first time. */
  const wasMissing = (student: string) =>
    rowOf(student)?.whereabouts === 'missing' &&
    running.value &&
    head.value!.missingIsKnown &&
    now.value - head.value!.countedFrom > head.value!.lateAfterSeconds * 1000

  /** They were here all the time. */
  function hereFromTheStart() {
    const came = cameLate.value
    cameLate.value = undefined
    if (came) note(...came.students.map((student) => ({ type: 'marked' as const, student, mark: 'here' as const })))
  }

  function call(student: string) {
    calledAt = performance.now()
    warnOfPause([student])
    note({ type: 'called', student, origin: 'hand' })
  }
  function callNext() {
    if (!goesOn() || performance.now() - calledAt < seenAfter) return
    const next = drawn.value?.hands.find((h) => !h.stranger && !isGone(h))
    if (next) call(next.student)
  }
  /** Whoever has left keeps their hand in line for when they are back, and is not called. */
  const isGone = (hand: DrawnHand) => {
    const row = rowOf(hand.student)
    return !!row?.sentOutSince || (row?.whereabouts === 'left' && !mayBeHere(row, now.value))
  }
  const setDown = (...students: string[]) =>
    note(...students.map((student) => ({ type: 'handEnded' as const, student, end: 'setDown' as const })))

  function nextStage() {
    const next = head.value?.plan.stages[(drawn.value?.stage?.index ?? -1) + 1]
    if (goesOn() && next) note({ type: 'stageMoved', stage: next.id })
  }
  function extend(minutes: number) {
    const stage = head.value?.plan.stages[drawn.value?.stage?.index ?? -1]
    if (stage) note({ type: 'stageExtended', stage: stage.id, minutes })
  }

  /** Ticks a point of the plan in the turn that is on; false if there is no turn or no such point. */
  function tickPoint(index: number) {
    const point = head.value?.plan.points[index]
    const row = sheet.turnRow.value
    if (!running.value || !row || !point) return false
    if (!row.points.includes(point.id)) note({ type: 'pointCovered', student: row.id, point: point.id })
    return true
  }

  function takeBack() {
    if (isOver.value) {
      said.value = 'The lesson is over: nothing is undone by a key. Strike it in the list if it should not count.'
      return
    }
    const last = undo()
    calledAt = -Infinity
    lastNods.value = []
    if (last) said.value = `struck out: ${last.text}`
  }

  return {
    goesOn,
    log,
    lastNods,
    nodsSeen,
    showNods,
    cameLate,
    hereFromTheStart,
    isGone,
    call,
    callNext,
    setDown,
    nextStage,
    extend,
    tickPoint,
    takeBack,
  }
}
