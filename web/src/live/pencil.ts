import type { Schemas } from '../api/client'
import { wordsOf } from '../features/live/acts'
import type { Act, Noted } from './outbox'

export type View = Schemas['LiveView']
export type Row = Schemas['LiveRow']

export interface DrawnStroke {
  key: string
  credit: number
  state: 'ink' | 'pencil' | 'struck'
}

export interface DrawnRow extends Omit<Row, 'speaking' | 'chat' | 'nods'> {
  speaking: DrawnStroke[]
  chat: DrawnStroke[]
  nods: DrawnStroke[]
  /** The whereabouts are only pencilled. */
  pencilled: boolean
  refused: { id: string; why: string }[]
}

export interface DrawnEntry {
  id: string
  at: number
  text: string
  state: 'ink' | 'pencil' | 'struck'
  canStrike: boolean
}

export interface Drawn {
  rows: DrawnRow[]
  hands: { student: string; raisedAt: number; lapsed: boolean; pencil: boolean }[]
  turn: { student: string; at: number; waitedSeconds: number | null; pencil: boolean } | null
  entries: DrawnEntry[]
  refused: { id: string; text: string; why: string }[]
  beforeStart: DrawnReminder[]
  beforeEnd: DrawnReminder[]
}

export interface DrawnReminder {
  text: string
  /** The entry that says it was seen to; null while it was not. */
  ticked: string | null
  pencil: boolean
}

const credits: Record<string, number> = { full: 1, partial: 0.5 }

const strokes = (list: Schemas['Stroke'][]): DrawnStroke[] =>
  list.map((s) => ({ key: s.entry, credit: s.credit, state: s.struck ? 'struck' : 'ink' }))

/**
 * Draws what this browser has noted over what the server has said. Nothing is decided here: the rules live on the server,
 * and as soon as its sheet shows an entry, this stops drawing it.
 */
export function draw(view: View, noted: readonly Noted[]): Drawn {
  const names = new Map(view.rows.map((r) => [r.id, r.shortName]))
  const rows = new Map(
    view.rows.map((row) => [
      row.id,
      {
        ...row,
        speaking: strokes(row.speaking),
        chat: strokes(row.chat),
        nods: strokes(row.nods),
        pencilled: false,
        refused: [],
      } as DrawnRow,
    ]),
  )
  const drawn: Drawn = {
    rows: [],
    hands: view.head.hands.map((h) => ({ ...h, pencil: false })),
    turn: view.head.turn ? { ...view.head.turn, pencil: false } : null,
    entries: view.head.lastEntries.map((e) => ({ ...e, state: e.struck ? 'struck' : 'ink' })),
    refused: [],
    beforeStart: view.head.beforeStart.map((r) => ({ ...r, pencil: false })),
    beforeEnd: view.head.beforeEnd.map((r) => ({ ...r, pencil: false })),
  }

  // The server's sheet may show an entry before its answer has come back.
  const shown = new Set(view.head.lastEntries.map((e) => e.id))
  for (const entry of noted) {
    if (shown.has(entry.id)) continue
    const student = 'student' in entry.act ? (entry.act.student as string) : undefined
    if (entry.refused) {
      const text = `${student ? `${names.get(student) ?? 'A student'}, ` : ''}${wordsOf(entry.act)}`
      drawn.refused.push({ id: entry.id, text, why: entry.refused })
      if (student) rows.get(student)?.refused.push({ id: entry.id, why: entry.refused })
      continue
    }
    apply(entry, drawn, student ? rows.get(student) : undefined, rows)
    if (entry.act.type !== 'struck')
      drawn.entries.unshift({
        id: entry.id,
        at: entry.happenedAt,
        text: `${student ? `${names.get(student) ?? 'A student'}, ` : ''}${wordsOf(entry.act)}`,
        state: entry.storedAt === undefined ? 'pencil' : 'ink',
        canStrike: student !== undefined || entry.act.type === 'reminderTicked',
      })
  }

  drawn.rows = view.rows.map((row) => rows.get(row.id)!)
  return drawn
}

function apply(entry: Noted, drawn: Drawn, row: DrawnRow | undefined, rows: Map<string, DrawnRow>) {
  const act: Act = entry.act
  const pencil = entry.storedAt === undefined
  const stroke = (credit: number): DrawnStroke => ({ key: entry.id, credit, state: pencil ? 'pencil' : 'ink' })
  if (act.type === 'struck') {
    for (const strand of [...rows.values()].flatMap((r) => [r.speaking, r.chat, r.nods]))
      for (const s of strand) if (s.key === act.entry) s.state = 'struck'
    for (const e of drawn.entries) if (e.id === act.entry) e.state = 'struck'
    for (const r of [...drawn.beforeStart, ...drawn.beforeEnd]) if (r.ticked === act.entry) r.ticked = null
    return
  }
  if (act.type === 'reminderTicked') {
    for (const r of [...drawn.beforeStart, ...drawn.beforeEnd])
      if (r.text === act.reminder) Object.assign(r, { ticked: entry.id, pencil })
    return
  }
  if (!row) return
  switch (act.type) {
    case 'marked':
      row.whereabouts = act.mark
      row.pencilled = pencil
      if (act.mark === 'left') row.since = entry.happenedAt
      break
    case 'handRaised':
      if (!drawn.hands.some((h) => h.student === row.id))
        drawn.hands.push({ student: row.id, raisedAt: entry.happenedAt, lapsed: false, pencil })
      break
    case 'handEnded':
      drawn.hands = drawn.hands.filter((h) => h.student !== row.id)
      break
    case 'called':
      drawn.turn = { student: row.id, at: entry.happenedAt, waitedSeconds: null, pencil }
      drawn.hands = drawn.hands.filter((h) => h.student !== row.id)
      break
    case 'turnTaken':
      if (drawn.turn?.student === row.id) drawn.turn = null
      drawn.hands = drawn.hands.filter((h) => h.student !== row.id)
      if (credits[act.outcome]) row.speaking.push(stroke(credits[act.outcome]!))
      break
    case 'chatSaid':
      row.chat.push(stroke(1))
      break
    case 'nodGiven':
      row.nods.push(stroke(1))
      break
  }
}
