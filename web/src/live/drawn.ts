import type { Schemas } from '../api/client'

export type View = Schemas['LiveView']
export type Row = Schemas['LiveRow']
export type Head = Schemas['LiveHead']

export interface DrawnStroke {
  key: string
  credit: number
  state: 'ink' | 'pencil' | 'struck'
}

export interface DrawnRow extends Omit<Row, 'speaking' | 'questions' | 'chat' | 'group' | 'nods'> {
  speaking: DrawnStroke[]
  questions: DrawnStroke[]
  chat: DrawnStroke[]
  group: DrawnStroke[]
  nods: DrawnStroke[]
  /** The whereabouts are only pencilled. */
  pencilled: boolean
  refused: { id: string; why: string }[]
}

/** What one press noted. */
export interface DrawnEntry {
  id: string
  /** All its entries: they are struck out together. */
  entries: readonly string[]
  /** The strikes that strike it out: striking those out puts it back. */
  struckBy: readonly string[]
  at: number
  text: string
  state: 'ink' | 'pencil' | 'struck'
  canStrike: boolean
  /** The helper who noted it; null if the teacher did. */
  helper: string | null
}

export interface DrawnHand {
  student: string
  raisedAt: number
  /** The entry that raised it. */
  entry: string
  lapsed: boolean
  ready: boolean
  /** The name, if it belongs to nobody yet. */
  stranger: string | null
  /** They have left: the hand stays for when they are back. */
  gone: boolean
  pencil: boolean
}

/** What is drawn of the head of the lesson: as the server said it, with this browser's own entries over it. */
export interface Drawn extends Pick<Head, 'groups' | 'board' | 'timers' | 'door' | 'askings' | 'callers'> {
  rows: DrawnRow[]
  hands: DrawnHand[]
  turn: (Schemas['TurnNow'] & { pencil: boolean }) | null
  stage: Schemas['StageOn'] | null
  entries: DrawnEntry[]
  refused: { id: string; text: string; why: string }[]
  /** As the server said it, but begun, ended or resumed in pencil. */
  head: Head
  beforeStart: DrawnReminder[]
  beforeEnd: DrawnReminder[]
}

export interface DrawnReminder {
  text: string
  /** What is read to the class with it. */
  readAloud: string | null
  /** The entry that says it was seen to; null while it was not. */
  ticked: string | null
  pencil: boolean
}
