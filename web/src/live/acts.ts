import { reactive } from 'vue'
import { api, ask } from '../api/client'
import type { Act } from './outbox'

/** One thing that can be logged about a student, and where it lies on the keyboard. */
export interface LoggedAct {
  name: string
  /** What it is called on screen. */
  label: string
  key: string
  pen: 'attendance' | 'speaking' | 'chat' | 'nods'
  /** Too rare for the strip in the row: it lies in the one at the foot, and on its key. */
  rare?: boolean
  make: (student: string) => Act
}

/** Something the live screen does that is not about chosen students. */
export interface Command {
  name: CommandName
  label: string
  key: string
}

/** Every command that has a key. */
export type CommandName = (typeof fixedCommands)[number]['name']

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
  {
    name: 'hand',
    label: 'hand',
    key: '4',
    pen: 'speaking',
    make: (student) => ({ type: 'handRaised', student, ready: false }),
  },
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
  {
    name: 'handOn',
    label: 'hand on to',
    key: '>',
    pen: 'speaking',
    rare: true,
    make: (student) => ({ type: 'called', student, origin: 'handedOn' }),
  },
  {
    name: 'ready',
    label: 'said ready',
    key: '<',
    pen: 'speaking',
    rare: true,
    make: (student) => ({ type: 'handRaised', student, ready: true }),
  },
  {
    name: 'sentOut',
    label: 'sent out',
    key: ';',
    pen: 'attendance',
    rare: true,
    make: (student) => ({ type: 'sentOut', student }),
  },
  {
    name: 'pause',
    label: 'cannot speak',
    key: '~',
    pen: 'speaking',
    rare: true,
    make: (student) => ({ type: 'speakingPaused', student, paused: true }),
  },
]

/** Every act of a class, in the order in which it is shown. */
export const actsOf = (nodReasons: readonly string[], changed: Record<string, string> = {}): readonly LoggedAct[] =>
  [
    ...fixedActs,
    ...nodReasons.slice(0, nodKeys.length).map((reason, i) => ({
      name: `nod${i + 1}`,
      label: reason,
      key: nodKeys[i]!,
      pen: 'nods' as const,
      make: nod(reason),
    })),
  ].map((act) => (changed[act.name] ? { ...act, key: changed[act.name]! } : act))

/** The acts that say how a turn went. */
export const outcomeNames: readonly string[] = ['full', 'partial', 'pass', 'couldNot']

const fixedCommands = [
  { name: 'callNext', label: 'call the next in line', key: 'Enter' },
  { name: 'draw', label: 'draw a name', key: '\\' },
  { name: 'rollCall', label: 'roll call', key: 'F2' },
  { name: 'nextStage', label: 'next stage', key: 'F8' },
  { name: 'signal', label: 'signal round', key: 'F4' },
  { name: 'chat', label: 'sweep the chat', key: 'F9' },
  { name: 'questions', label: 'questions and answers', key: 'F6' },
  { name: 'openQuestion', label: 'open the next question; again, close it', key: 'F7' },
  { name: 'door', label: 'names at the door', key: '`' },
  { name: 'reach', label: 'reach the missing', key: 'PageUp' },
  { name: 'groups', label: 'groups', key: 'PageDown' },
  { name: 'board', label: 'class board', key: 'End' },
  { name: 'timer', label: 'time for a task', key: 'Insert' },
  { name: 'rubric', label: 'rubric: letters choose, a digit marks', key: '%' },
  { name: 'showNods', label: 'show the class the last nods', key: '&' },
  { name: 'student', label: 'more about the chosen student', key: '!' },
  { name: 'aside', label: 'aside about the chosen student', key: '#' },
  { name: 'find', label: 'find by name', key: ' ' },
  { name: 'all', label: 'everyone who is here; again, everyone', key: 'Home' },
  { name: 'undo', label: 'undo, any number of times', key: 'Backspace' },
  { name: 'keys', label: 'all keys', key: '?' },
] as const

/** Every command. */
export const commandsOf = (changed: Record<string, string> = {}): readonly Command[] =>
  fixedCommands.map((command) => (changed[command.name] ? { ...command, key: changed[command.name]! } : command))

// Where the signs of commands lie on a keyboard, for layouts that write something else there.
const places: Record<string, string> = {
  Backslash: '\\',
  Backquote: '`',
}

// Where the signs lie that pick the 27th to the 30th student, whatever the layout writes there.
const studentPlaces: Record<string, string> = {
  BracketLeft: '[',
  BracketRight: ']',
  Semicolon: ';',
  Quote: "'",
}

/** The key of a student that was pressed, shifted or not: a letter, or one of the four signs beside the letters. */
export function studentKey(event: Pressed): string | undefined {
  if (/^[a-z]$/i.test(event.key)) return event.key.toLowerCase()
  return studentPlaces[event.code]
}

type Pressed = Pick<KeyboardEvent, 'key' | 'code'> & { shiftKey?: boolean }

/**
 * The act on a key. Digits count by where they lie as well as by what they write, so that layouts which put signs there,
 * and the numeric pad, work alike.
 */
export function actOnKey(event: Pressed, acts: readonly LoggedAct[]): LoggedAct | undefined {
  const digit = digitOf(event)
  return acts.find((a) => a.key === event.key) ?? acts.find((a) => a.key === digit)
}

/** The digit on a key, by where it lies. */
export const digitOf = (event: Pressed) => /^(?:Digit|Numpad)(\d)$/.exec(event.code)?.[1]

/**
 * The command on a key: by what it writes, else by where the sign lies, unless what is written there picks a student or is an act.
 */
export function commandOnKey(
  event: Pressed,
  commands: readonly Command[],
  acts: readonly LoggedAct[] = [],
): Command | undefined {
  const written = commands.find((c) => c.key === event.key)
  if (written || event.shiftKey || studentKey(event) || acts.some((a) => a.key === event.key)) return written
  return commands.find((c) => c.key === places[event.code])
}

/** Keys that this teacher changed: asked for once, kept by the server. */
export const changedKeys = reactive<Record<string, string>>({})

let asked = false
export async function loadKeys() {
  if (asked) return
  asked = true
  const { changed } = await ask(api.GET('/api/live-keys')).catch(() => ({ changed: {} }))
  Object.assign(changedKeys, changed)
}

/** Gives something another key, or with none its own again. What had that key before loses it to what it was. */
export async function changeKey(name: string, key: string | undefined) {
  const changed: Record<string, string> = { ...changedKeys }
  delete changed[name]
  if (key) changed[name] = key
  await ask(api.PUT('/api/live-keys', { body: { changed } }))
  for (const old of Object.keys(changedKeys)) delete changedKeys[old]
  Object.assign(changedKeys, changed)
}
