import type { Schemas } from '../../api/client'
import { api, ask } from '../../api/client'
import { hour, isoDay } from '../../ui/format'

export type Lesson = Schemas['LessonLine']

/** Whether its time is over and nobody began it here: it was held without the sheet, or not at all. */
export const isMissed = (lesson: Lesson, now = Date.now()) =>
  lesson.stage === 'planned' && !lesson.cancelled && lesson.plannedEnd <= now

/** Where a lesson is, in a word. */
export const stageOf = (lesson: Lesson) =>
  lesson.cancelled
    ? 'cancelled'
    : isMissed(lesson)
      ? 'not begun'
      : { planned: 'planned', live: 'live now', ended: 'to settle', settled: 'settled' }[lesson.stage]

/** The view a lesson opens in: planned ones in their plan, a live one on its sheet, others where they are settled. */
export const wayTo = (lesson: Lesson) =>
  `/lessons/${lesson.id}/${
    lesson.stage === 'live' ? 'live' : lesson.stage === 'planned' && !isMissed(lesson) ? 'plan' : 'settle'
  }`

/** A lesson as it is sent to be changed. */
export const asPlanned = (lesson: Lesson): Schemas['LessonPlanned'] => ({
  title: lesson.title,
  day: isoDay(lesson.plannedStart),
  time: hour(lesson.plannedStart),
  minutes: Math.round((lesson.plannedEnd - lesson.plannedStart) / 60_000),
  dropIn: lesson.dropIn,
  meetingLink: lesson.meetingLink,
  cancelled: lesson.cancelled,
})

export const changeLesson = (id: string, body: Schemas['LessonPlanned']) =>
  ask(api.PUT('/api/lessons/{id}', { params: { path: { id } }, body }))
