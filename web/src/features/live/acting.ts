import type { Ref } from 'vue'
import type { LoggedAct } from '../../live/acts'
import type { LiveLesson } from '../../live/lesson'
import type { Act } from '../../live/outbox'
import { count } from '../../ui/format'
import type { Sheet } from './sheet'

/** What is told of an act that was just done: what it was, and what is wrong with it. */
export interface Telling {
  said: Ref<string>
  wrong: Ref<string>
}

/** What a teacher does to a lesson by a press: logging acts, giving the word, moving on, taking back. */
export function useActing(lesson: LiveLesson, sheet: Sheet, chosen: Ref<string[]>, { said, wrong }: Telling) {
  const { head, isOver, drawn, note, undo } = lesson
  const { rowOf, nameOf, running, handsUp } = sheet

  /** What an act is for a student as things stand: the hand key takes a hand down again, the pause key ends a pause. */
  function actFor(act: LoggedAct, student: string): Act {
    if (act.name === 'hand' && handsUp.value.has(student)) return { type: 'handEnded', student, end: 'withdrawn' }
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

  function log(act: LoggedAct, students: readonly string[]) {
    if (!students.length || !running.value) return
    if (act.name === 'call' || act.name === 'handOn') warnOfPause(students)
    note(...students.map((student) => actFor(act, student)))
    said.value = `${students.length > 3 ? count(students.length, 'student') : students.map(nameOf).join(', ')}, ${act.label}`
    chosen.value = []
  }

  function call(student: string) {
    warnOfPause([student])
    note({ type: 'called', student, origin: 'hand' })
  }
  function callNext() {
    const next = drawn.value?.hands.find((h) => !h.stranger)
    if (next && running.value) call(next.student)
  }
  const setDown = (...students: string[]) =>
    note(...students.map((student) => ({ type: 'handEnded' as const, student, end: 'setDown' as const })))

  function nextStage() {
    const next = head.value?.plan.stages[(drawn.value?.stage?.index ?? -1) + 1]
    if (next && running.value) note({ type: 'stageMoved', stage: next.id })
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
    if (last) said.value = `struck out: ${last.text}`
  }

  return { log, call, callNext, setDown, nextStage, extend, tickPoint, takeBack }
}
