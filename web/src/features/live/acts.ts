import type { Act } from '../../live/outbox'

/** One thing that can be logged about a student, and where it lies on the keyboard. */
export interface LoggedAct {
  name: string
  /** What it is called on screen. */
  label: string
  key: string
  pen: 'attendance' | 'speaking' | 'chat' | 'nods'
  make: (student: string) => Act
}

/** The keys of nods, in the order of the reasons among the ground rules of the class. */
export const nodKeys = ['0', '+', '*', '/', '='] as const

const turn =
  (outcome: 'full' | 'partial' | 'pass' | 'couldNot') =>
  (student: string): Act => ({
    type: 'turnTaken',
    student,
    outcome,
    origin: 'invited',
  })
const chat =
  (kind: 'question' | 'answer' | 'idea') =>
  (student: string): Act => ({ type: 'chatSaid', student, kind, text: null })
const mark =
  (mark: 'here' | 'late' | 'left') =>
  (student: string): Act => ({ type: 'marked', student, mark })
const nod =
  (reason: string) =>
  (student: string): Act => ({ type: 'nodGiven', student, reason })

/** What can be logged whatever the class has agreed on. Digits and signs, so that letters are free to pick students. */
const fixedActs: readonly LoggedAct[] = [
  { name: 'here', label: 'here', key: '1', pen: 'attendance', make: mark('here') },
  { name: 'late', label: 'late', key: '2', pen: 'attendance', make: mark('late') },
  { name: 'left', label: 'left', key: '3', pen: 'attendance', make: mark('left') },
  { name: 'hand', label: 'hand', key: '4', pen: 'speaking', make: (student) => ({ type: 'handRaised', student }) },
  {
    name: 'call',
    label: 'call',
    key: '5',
    pen: 'speaking',
    make: (student) => ({ type: 'called', student, origin: 'invited' }),
  },
  { name: 'full', label: 'full', key: '6', pen: 'speaking', make: turn('full') },
  { name: 'partial', label: 'partial', key: '7', pen: 'speaking', make: turn('partial') },
  { name: 'pass', label: 'pass', key: '8', pen: 'speaking', make: turn('pass') },
  { name: 'couldNot', label: 'could not', key: '9', pen: 'speaking', make: turn('couldNot') },
  { name: 'question', label: 'question', key: ',', pen: 'chat', make: chat('question') },
  { name: 'answer', label: 'answer', key: '.', pen: 'chat', make: chat('answer') },
  { name: 'idea', label: 'idea', key: '-', pen: 'chat', make: chat('idea') },
]

/** Every act of a class, in the order in which it is shown. */
export const actsOf = (nodReasons: readonly string[]): readonly LoggedAct[] => [
  ...fixedActs,
  ...nodReasons.slice(0, nodKeys.length).map((reason, i) => ({
    name: `nod${i + 1}`,
    label: reason,
    key: nodKeys[i]!,
    pen: 'nods' as const,
    make: nod(reason),
  })),
]

export const outcomes = fixedActs.filter((a) => ['full', 'partial', 'pass', 'couldNot'].includes(a.name))

/**
 * The act on a key. Digits count by where they lie as well as by what they write, so that layouts which put signs there,
 * and the numeric pad, work alike.
 */
export function actOnKey(
  event: Pick<KeyboardEvent, 'key' | 'code'>,
  acts: readonly LoggedAct[],
): LoggedAct | undefined {
  const digit = /^(?:Digit|Numpad)(\d)$/.exec(event.code)?.[1]
  return acts.find((a) => a.key === event.key) ?? acts.find((a) => a.key === digit)
}

const words: Record<string, (act: never) => string> = {
  lessonStarted: () => 'lesson started',
  lessonEnded: () => 'lesson ended',
  struck: () => 'an entry struck out',
  marked: (act: { mark: string }) => act.mark,
  excuseRecorded: (act: { reason: string }) => `excused: ${act.reason}`,
  handRaised: () => 'hand up',
  handEnded: (act: { end: string }) => (act.end === 'setDown' ? 'hand set down' : 'hand withdrawn'),
  called: () => 'called',
  turnTaken: (act: { outcome: string }) =>
    ({ full: 'full turn', partial: 'partial turn', pass: 'pass', couldNot: 'could not' })[act.outcome]!,
  chatSaid: (act: { kind: string }) => `${act.kind} in the chat`,
  reminderTicked: (act: { reminder: string }) => `reminder seen to: ${act.reminder}`,
  nodGiven: (act: { reason: string }) => `nod, ${act.reason}`,
}

/** An act in words, for as long as only this browser knows of it. */
export const wordsOf = (act: Act) => words[act.type ?? '']?.(act as never) ?? 'an entry'
