import { describe, expect, test } from 'vitest'
import { draw, type Row, type View } from './pencil'
import { entryId, type Act, type Noted } from './outbox'

const row = (id: string): Row => ({
  id,
  called: id,
  rest: '',
  shortName: id,
  key: id[0]!,
  tags: '',
  whereabouts: 'missing',
  lateSeconds: null,
  since: null,
  stretches: [],
  spoke: [],
  dropouts: 0,
  speaking: [],
  chat: [],
  nods: [],
})
const view = {
  head: {
    hands: [],
    turn: null,
    lastEntries: [],
    beforeStart: [{ text: 'Start the recording', ticked: null }],
    beforeEnd: [{ text: 'Stop the recording', ticked: 'e1' }],
  },
  rows: [row('juno'), row('eino')],
} as unknown as View
let next = 0
const noted = (act: Act, more: Partial<Noted> = {}): Noted => ({
  id: `n${next++}`,
  lesson: 'l',
  happenedAt: 1,
  order: next,
  act,
  ...more,
})
const nod = (student: string): Act => ({ type: 'nodGiven', student, reason: 'on time' })
const juno = (list: readonly Noted[]) => draw(view, list).rows[0]!

describe('reminders', () => {
  test('are ticked at once, in pencil, and the tick can be struck out', () => {
    const tick = noted({ type: 'reminderTicked', reminder: 'Start the recording' })
    expect(draw(view, [tick]).beforeStart[0]).toEqual({ text: 'Start the recording', ticked: tick.id, pencil: true })
    expect(draw(view, [tick, noted({ type: 'struck', entry: tick.id })]).beforeStart[0]!.ticked).toBeNull()
    expect(draw(view, [noted({ type: 'struck', entry: 'e1' })]).beforeEnd[0]!.ticked).toBeNull()
    expect(draw(view, []).beforeEnd[0]!.ticked).toBe('e1')
  })
})

describe('what is noted is drawn at once', () => {
  test('in pencil until it is stored, then in ink', () => {
    expect(juno([noted(nod('juno'))]).nods[0]!.state).toBe('pencil')
    expect(juno([noted(nod('juno'), { storedAt: 7 })]).nods[0]!.state).toBe('ink')
  })

  test('a refused entry leaves no stroke but its reason', () => {
    const drawn = draw(view, [noted(nod('juno'), { refused: 'This lesson is settled.' })])
    expect(drawn.rows[0]!.nods).toHaveLength(0)
    expect(drawn.rows[0]!.refused[0]!.why).toBe('This lesson is settled.')
    expect(drawn.refused[0]!.text).toBe('juno, nod, on time')
  })

  test('a hand goes up, is called, and its turn ends', () => {
    const up = noted({ type: 'handRaised', student: 'eino' })
    const call = noted({ type: 'called', student: 'eino', origin: 'hand' })
    const full = noted({ type: 'turnTaken', student: 'eino', outcome: 'partial', origin: 'invited' })
    expect(draw(view, [up]).hands).toHaveLength(1)
    expect(draw(view, [up, call])).toMatchObject({ hands: [], turn: { student: 'eino' } })
    expect(draw(view, [up, call, full]).turn).toBeNull()
    expect(draw(view, [up, call, full]).rows[1]!.speaking[0]!.credit).toBe(0.5)
  })

  test('a strike is drawn over what it strikes out, and takes the entry out of undo', () => {
    const given = noted(nod('juno'))
    const drawn = draw(view, [given, noted({ type: 'struck', entry: given.id })])
    expect(drawn.rows[0]!.nods[0]!.state).toBe('struck')
    expect(drawn.entries.find((e) => e.state !== 'struck' && e.canStrike)).toBeUndefined()
  })

  test('an entry that the server’s sheet shows already is not drawn twice', () => {
    const given = noted(nod('juno'))
    const shown = {
      head: { ...view.head, lastEntries: [{ id: given.id, at: 1, text: 'juno, nod', struck: false, canStrike: true }] },
      rows: [{ ...row('juno'), nods: [{ entry: given.id, credit: 1, struck: false }] }],
    } as View
    expect(draw(shown, [given]).rows[0]!.nods).toHaveLength(1)
    expect(draw(shown, [given]).entries).toHaveLength(1)
  })

  test('the server’s own sheet is left as it is', () => {
    draw(view, [noted(nod('juno'))])
    expect(view.rows[0]!.nods).toHaveLength(0)
  })
})

test('ids are UUIDs of version 7 in the order of their time', () => {
  const ids = [1_000, 1_700_000_000_000, 1_800_000_000_000].map(entryId)
  expect(ids).toEqual([...ids].sort())
  for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
})
