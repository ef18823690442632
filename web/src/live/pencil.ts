import type { Schemas } from '../api/client'
import type { Drawn, DrawnEntry, DrawnRow, DrawnStroke, Row, View } from './drawn'
import { wordsOf } from './words'
import { struckIn, struckOf, type Act, type Noted } from './outbox'
import { Presses } from './presses'

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

/** Whether an act is about somebody at the door: by name, and by what tells two of one name apart. */
const isOf = (act: { name: string; beside?: string }, one: Schemas['AtTheDoor']) =>
  one.name === act.name && one.beside === (act.beside ?? '')

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
    timers: head.timers,
    door: head.door,
    askings: head.askings,
    callers: head.callers,
    entries: head.lastEntries.map((e) => ({ ...e, state: e.struck ? 'struck' : 'ink' })),
    refused: [],
    head,
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
  const shown = new Set(head.lastEntries.flatMap((e) => e.entries))
  const struck = struckIn(noted)
  const presses = new Presses()
  for (const entry of noted) {
    if (shown.has(entry.id)) continue
    const student = 'student' in entry.act ? (entry.act.student as string) : undefined
    const name = student && (names.get(student) ?? 'A student')
    if (entry.refused) {
      const text = name ? `${name}, ${wordsOf(entry.act)}` : wordsOf(entry.act)
      drawn.refused.push({ id: entry.id, text, why: entry.refused })
      rowOf(student)?.refused.push({ id: entry.id, why: entry.refused })
      continue
    }
    const undone = struck.get(entry.id)
    const row = rowOf(student)
    const state = undone ? 'struck' : entry.storedAt === undefined ? 'pencil' : 'ink'
    if (row) strand(entry, row, state)
    const handing = entry.act.type === 'called' ? rowOf(entry.act.by ?? undefined) : undefined
    handing?.speaking.push({ key: entry.id, credit: credits.full!, state })
    // What was undone before the sheet showed it never happened, but for the stroke that was drawn.
    if (!undone) apply(entry, drawn, view, row, rowOf)
    if (entry.act.type !== 'struck') presses.add(entry, name, undone)
  }
  drawn.entries.unshift(...presses.all())
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

function turnEnds(row: DrawnRow, drawn: Drawn, outcome: string, entry: Noted) {
  drawn.hands = drawn.hands.filter((h) => h.student !== row.id)
  if (drawn.turn?.student === row.id) drawn.turn = null
  if (credits[outcome]) row.spoke = [...row.spoke, entry.happenedAt]
}

function strike(
  entries: ReadonlySet<string>,
  by: string,
  drawn: Drawn,
  rowOf: (student?: string) => DrawnRow | undefined,
) {
  const strands = (r: DrawnRow) => [r.speaking, r.questions, r.chat, r.group, r.nods].flat()
  for (const { id } of drawn.rows.filter((r) => strands(r).some((s) => entries.has(s.key))))
    for (const s of strands(rowOf(id)!)) if (entries.has(s.key)) s.state = 'struck'
  drawn.entries = drawn.entries.map((e): DrawnEntry => {
    if (e.struckBy.length && e.struckBy.every((s) => entries.has(s))) return { ...e, state: 'pencil', struckBy: [] }
    return e.entries.every((id) => entries.has(id)) ? { ...e, state: 'struck', struckBy: [by] } : e
  })
  if (drawn.head.endedBy && entries.has(drawn.head.endedBy))
    drawn.head = { ...drawn.head, stage: 'live', endedAt: null, endedBy: null }
  drawn.hands = drawn.hands.filter((h) => !entries.has(h.entry))
  // Whether hands go up again with it, the server knows.
  if (drawn.turn && entries.has(drawn.turn.entry)) drawn.turn = null
  for (const r of [...drawn.beforeStart, ...drawn.beforeEnd]) if (r.ticked && entries.has(r.ticked)) r.ticked = null
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
    case 'struck':
      strike(new Set(struckOf(act)), entry.id, drawn, rowOf)
      break
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
      drawn.timers = [
        ...drawn.timers.filter((t) => t.group !== (act.group ?? null)),
        {
          task: act.task,
          from: entry.happenedAt,
          to: entry.happenedAt + act.seconds * 1000,
          group: act.group ?? null,
        },
      ]
      break
    case 'lessonStarted':
      drawn.head = { ...drawn.head, stage: 'live', startedAt: entry.happenedAt }
      break
    case 'lessonEnded':
      drawn.head = { ...drawn.head, stage: 'ended', endedAt: entry.happenedAt, endedBy: entry.id }
      break
    case 'timerStopped':
      drawn.timers = drawn.timers.filter((t) => t.group !== (act.group ?? null))
      break
    case 'groupsMade':
      drawn.groups = act.groups
      drawn.timers = drawn.timers.filter((t) => t.group === null || act.groups.some((g) => g.id === t.group))
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
      drawn.timers = drawn.timers.filter((t) => t.group === null)
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
      drawn.door = drawn.door.filter((d) => !isOf(act, d))
      break
    case 'askedLater':
      drawn.door = [
        ...drawn.door.filter((d) => !isOf(act, d)),
        ...drawn.door.filter((d) => isOf(act, d)).map((d) => ({ ...d, later: entry.id })),
      ]
      break
  }
  if (!row) return
  switch (act.type) {
    case 'marked':
      row.whereabouts = act.mark
      row.pencilled = pencil
      if (act.mark === 'left') Object.assign(row, { since: entry.happenedAt, shownUntil: null })
      break
    case 'sentOut':
      Object.assign(row, {
        whereabouts: 'left',
        since: entry.happenedAt,
        shownUntil: null,
        sentOutSince: entry.happenedAt,
        pencilled: pencil,
      })
      break
    case 'letBackIn':
      Object.assign(row, { sentOutSince: null, pencilled: pencil })
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
          gone: false,
          pencil,
        })
      break
    case 'handEnded':
      drawn.hands = drawn.hands.filter((h) => h.student !== row.id)
      break
    case 'called': {
      const handing = rowOf(act.by ?? undefined)
      if (handing) turnEnds(handing, drawn, 'full', entry)
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
      turnEnds(row, drawn, act.outcome, entry)
      break
    case 'pointCovered':
      row.points = [...row.points, act.point]
      break
    case 'criterionMarked': {
      const others = new Set(
        view.head.plan.criteria.find((c) => c.id === act.criterion)?.levels.map((level) => level.id),
      )
      row.judged = [...row.judged.filter((level) => !others.has(level)), act.level]
      break
    }
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
