import type { Schemas } from '../api/client'
import { wordsOf } from '../features/live/acts'
import type { Act, Noted } from './outbox'

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

export interface DrawnEntry {
  id: string
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
  pencil: boolean
}

/** What is drawn of the head of the lesson: as the server said it, with this browser's own entries over it. */
export interface Drawn extends Pick<Head, 'groups' | 'board' | 'timer' | 'door' | 'askings' | 'callers'> {
  rows: DrawnRow[]
  hands: DrawnHand[]
  turn: (Schemas['TurnNow'] & { pencil: boolean }) | null
  stage: Schemas['StageOn'] | null
  entries: DrawnEntry[]
  refused: { id: string; text: string; why: string }[]
  /** The lesson has ended, if only in pencil: what is noted then is not undone in passing. */
  over: boolean
  beforeStart: DrawnReminder[]
  beforeEnd: DrawnReminder[]
}

export interface DrawnReminder {
  text: string
  /** The entry that says it was seen to; null while it was not. */
  ticked: string | null
  pencil: boolean
}

const credits: Record<string, number> = { full: 1, partial: 0.5, contributed: 1, some: 0.5 }

const strokes = (list: Schemas['Stroke'][]): DrawnStroke[] =>
  list.map((s) => ({ key: s.entry, credit: s.credit, state: s.struck ? 'struck' : 'ink' }))

const asInk = (row: Row): DrawnRow => ({
  ...row,
  speaking: strokes(row.speaking),
  questions: strokes(row.questions),
  chat: strokes(row.chat),
  group: strokes(row.group),
  nods: strokes(row.nods),
  pencilled: false,
  refused: [],
})

// A row that nothing is pencilled on stays the same object from patch to patch, so that only rows that changed are drawn anew.
const inked = new WeakMap<Row, DrawnRow>()
const inkedOf = (row: Row) => {
  let drawn = inked.get(row)
  if (!drawn) inked.set(row, (drawn = asInk(row)))
  return drawn
}

/**
 * Draws what this browser has noted over what the server has said. Nothing is decided here: the rules live on the server,
 * and as soon as its sheet shows an entry, this stops drawing it.
 */
export function draw(view: View, noted: readonly Noted[]): Drawn {
  const { head } = view
  const names = new Map(view.rows.map((r) => [r.id, r.shortName]))
  const place = new Map(view.rows.map((r, i) => [r.id, i]))
  const own = new Set<string>()
  const drawn: Drawn = {
    rows: view.rows.map(inkedOf),
    hands: head.hands.map((h) => ({ ...h, pencil: false })),
    turn: head.turn ? { ...head.turn, pencil: false } : null,
    stage: head.plan.stage,
    groups: head.groups,
    board: head.board,
    timer: head.timer,
    door: head.door,
    askings: head.askings,
    callers: head.callers,
    entries: head.lastEntries.map((e) => ({ ...e, state: e.struck ? 'struck' : 'ink' })),
    refused: [],
    over: ['ended', 'settled'].includes(head.stage),
    beforeStart: head.beforeStart.map((r) => ({ ...r, pencil: false })),
    beforeEnd: head.beforeEnd.map((r) => ({ ...r, pencil: false })),
  }

  /** A row of this drawing's own, to be written on. */
  const rowOf = (student: string | undefined) => {
    const at = student === undefined ? undefined : place.get(student)
    if (at === undefined) return undefined
    if (!own.has(student!)) {
      own.add(student!)
      drawn.rows[at] = asInk(view.rows[at]!)
    }
    return drawn.rows[at]
  }

  // The server's sheet may show an entry before its answer has come back.
  const shown = new Set(head.lastEntries.map((e) => e.id))
  const struck = new Set(noted.flatMap(({ act, refused }) => (act.type === 'struck' && !refused ? [act.entry] : [])))
  for (const entry of noted) {
    if (shown.has(entry.id)) continue
    const student = 'student' in entry.act ? (entry.act.student as string) : undefined
    const text = `${student ? `${names.get(student) ?? 'A student'}, ` : ''}${wordsOf(entry.act)}`
    if (entry.refused) {
      drawn.refused.push({ id: entry.id, text, why: entry.refused })
      rowOf(student)?.refused.push({ id: entry.id, why: entry.refused })
      continue
    }
    const undone = struck.has(entry.id)
    const row = rowOf(student)
    if (row) strand(entry, row, undone ? 'struck' : entry.storedAt === undefined ? 'pencil' : 'ink')
    // What was undone before the sheet showed it never happened, but for the stroke that was drawn.
    if (!undone) apply(entry, drawn, view, row, rowOf)
    if (entry.act.type !== 'struck')
      drawn.entries.unshift({
        id: entry.id,
        at: entry.happenedAt,
        text,
        state: undone ? 'struck' : entry.storedAt === undefined ? 'pencil' : 'ink',
        canStrike: !['lessonStarted', 'lessonEnded', 'lessonSettled'].includes(entry.act.type!),
        helper: null,
      })
  }
  return drawn
}

/** Draws the stroke of an entry, if it has one. */
function strand({ id, act }: Noted, row: DrawnRow, state: DrawnStroke['state']) {
  const stroke = (credit: number | undefined, key = id): DrawnStroke[] => (credit ? [{ key, credit, state }] : [])
  if (act.type === 'turnTaken') row.speaking.push(...stroke(credits[act.outcome]))
  else if (act.type === 'answerGiven')
    row.questions = [...row.questions.filter((s) => s.key !== act.asking), ...stroke(1, act.asking)]
  else if (act.type === 'chatSaid') row.chat.push(...stroke(1))
  else if (act.type === 'satIn') row.group.push(...stroke(credits[act.contribution]))
  else if (act.type === 'nodGiven') row.nods.push(...stroke(1))
}

function apply(
  entry: Noted,
  drawn: Drawn,
  view: View,
  row: DrawnRow | undefined,
  rowOf: (student?: string) => DrawnRow | undefined,
) {
  const act: Act = entry.act
  const pencil = entry.storedAt === undefined
  switch (act.type) {
    case 'struck': {
      const has = (strand: readonly { key: string }[]) => strand.some((s) => s.key === act.entry)
      const struckRow = drawn.rows.find(
        (r) => has(r.speaking) || has(r.questions) || has(r.chat) || has(r.group) || has(r.nods),
      )
      const mine = rowOf(struckRow?.id)
      if (mine)
        for (const s of [...mine.speaking, ...mine.questions, ...mine.chat, ...mine.group, ...mine.nods])
          if (s.key === act.entry) s.state = 'struck'
      for (const e of drawn.entries) if (e.id === act.entry) e.state = 'struck'
      drawn.hands = drawn.hands.filter((h) => h.entry !== act.entry)
      // Whether a hand goes up again with it, the server knows.
      if (drawn.turn?.entry === act.entry) drawn.turn = null
      for (const r of [...drawn.beforeStart, ...drawn.beforeEnd]) if (r.ticked === act.entry) r.ticked = null
      break
    }
    case 'reminderTicked':
      for (const r of [...drawn.beforeStart, ...drawn.beforeEnd])
        if (r.text === act.reminder) Object.assign(r, { ticked: entry.id, pencil })
      break
    case 'rollCallTaken': {
      const here = new Set(act.here)
      for (const { id, whereabouts } of drawn.rows) {
        const isIn = here.has(id)
        if (isIn && ['missing', 'left'].includes(whereabouts))
          Object.assign(rowOf(id)!, { whereabouts: 'here', pencilled: pencil })
        else if (!isIn && ['here', 'late'].includes(whereabouts))
          Object.assign(rowOf(id)!, { whereabouts: 'left', since: entry.happenedAt, pencilled: pencil })
      }
      break
    }
    case 'stageMoved': {
      const { stages } = view.head.plan
      const index = stages.findIndex((s) => s.id === act.stage)
      const minutes = (upTo: number) => stages.slice(0, upTo).reduce((sum, s) => sum + s.minutes, 0)
      if (index >= 0)
        drawn.stage = {
          index,
          from: entry.happenedAt,
          to: entry.happenedAt + stages[index]!.minutes * 60_000,
          plannedTo: (view.head.startedAt ?? view.head.plannedStart) + minutes(index + 1) * 60_000,
          extended: 0,
        }
      break
    }
    case 'stageExtended':
      if (drawn.stage)
        drawn.stage = {
          ...drawn.stage,
          to: drawn.stage.to + act.minutes * 60_000,
          extended: drawn.stage.extended + act.minutes,
        }
      break
    case 'timerStarted':
      drawn.timer = { task: act.task, from: entry.happenedAt, to: entry.happenedAt + act.seconds * 1000 }
      break
    case 'lessonEnded':
      drawn.over = true
      break
    case 'timerStopped':
      drawn.timer = null
      break
    case 'groupsMade':
      drawn.groups = act.groups
      break
    case 'groupJoined':
      drawn.groups = drawn.groups.map((g) => ({
        ...g,
        members: [...g.members.filter((m) => m !== act.student), ...(g.id === act.group ? [act.student] : [])],
      }))
      break
    case 'groupRenamed':
      drawn.groups = drawn.groups.map((g) => (g.id === act.group ? { ...g, name: act.name } : g))
      break
    case 'groupsDissolved':
      drawn.groups = []
      break
    case 'boardPut':
      drawn.board = [
        ...drawn.board.filter((b) => b.item !== act.item),
        { item: act.item, text: act.text ?? null, since: entry.happenedAt },
      ]
      break
    case 'boardTaken':
      drawn.board = drawn.board.filter((b) => b.item !== act.item)
      break
    case 'resultsPut':
      drawn.board = [
        ...drawn.board.filter((b) => b.item !== 'results'),
        { item: 'results', text: null, since: entry.happenedAt },
      ]
      break
    case 'questionOpened':
      drawn.askings = [
        ...drawn.askings,
        {
          asking: entry.id,
          question: act.question.id,
          text: act.question.text ?? '',
          kind: act.question.kind,
          purpose: act.question.purpose ?? 'poll',
          anonymous: act.question.anonymous ?? false,
          group: act.group,
          openedAt: entry.happenedAt,
          closedAt: null,
          seconds: act.question.timeLimitSeconds ?? null,
          answered: 0,
          cannot: 0,
          goesTo: view.rows.length,
        },
      ]
      break
    case 'questionClosed':
      drawn.askings = drawn.askings.map((a) => (a.asking === act.asking ? { ...a, closedAt: entry.happenedAt } : a))
      break
    case 'pageAdmitted':
      drawn.callers = drawn.callers.filter((c) => c.session !== act.session)
      break
    case 'nameMatched':
      drawn.door = drawn.door.filter((d) => d.name !== act.name)
      break
    case 'askedLater':
      drawn.door = [
        ...drawn.door.filter((d) => d.name !== act.name),
        ...drawn.door.filter((d) => d.name === act.name).map((d) => ({ ...d, later: entry.id })),
      ]
      break
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
        drawn.hands.push({
          student: row.id,
          raisedAt: entry.happenedAt,
          entry: entry.id,
          lapsed: false,
          ready: act.ready ?? false,
          stranger: null,
          pencil,
        })
      break
    case 'handEnded':
      drawn.hands = drawn.hands.filter((h) => h.student !== row.id)
      break
    case 'called': {
      const hand = drawn.hands.find((h) => h.student === row.id)
      drawn.hands = drawn.hands.filter((h) => h !== hand)
      drawn.turn = {
        student: row.id,
        entry: entry.id,
        origin: act.origin,
        at: entry.happenedAt,
        waitedSeconds: hand ? (entry.happenedAt - hand.raisedAt) / 1000 : null,
        why: act.why ?? null,
        pencil,
      }
      break
    }
    case 'turnTaken':
      drawn.hands = drawn.hands.filter((h) => h.student !== row.id)
      if (drawn.turn?.student === row.id) drawn.turn = null
      if (credits[act.outcome]) row.spoke = [...row.spoke, entry.happenedAt]
      break
    case 'pointCovered':
      row.points = [...row.points, act.point]
      break
    case 'speakingPaused':
      row.paused = act.paused ? entry.id : null
      break
    case 'asideNoted':
      row.asides = [...row.asides, act.text]
      break
    case 'contactTried':
      row.contacts++
      break
  }
}

/** The chat with this browser's own words on it. */
export function drawChat(messages: readonly Schemas['ChatLine'][], noted: readonly Noted[]): Schemas['ChatLine'][] {
  const drawn = messages.map((m) => ({ ...m }))
  const gone = new Set<string>()
  for (const { act, refused } of noted) {
    if (refused) continue
    const message = 'message' in act ? drawn.find((m) => m.entry === act.message) : undefined
    if (!message) continue
    if (act.type === 'chatSorted') Object.assign(message, { kind: act.kind, sorted: true })
    if (act.type === 'chatDealtWith') message.dealtWith = true
    if (act.type === 'messageShown') message.shown = message.entry
    if (act.type === 'chatHidden') gone.add(message.entry)
  }
  return drawn.filter((m) => !gone.has(m.entry))
}
