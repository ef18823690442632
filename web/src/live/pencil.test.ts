import { describe, expect, test } from 'vitest'
import type { Row, View } from './drawn'
import { draw } from './pencil'
import { drawChat } from './chat'
import { entryId, strikeOf, type Act, type Noted } from './outbox'

const row = (id: string): Row => ({
  id,
  called: id,
  rest: '',
  shortName: id,
  key: id[0]!,
  tags: '',
  whereabouts: 'missing',
  shownUntil: null,
  sentOutSince: null,
  lateSeconds: null,
  since: null,
  stretches: [],
  spoke: [],
  dropouts: 0,
  speaking: [],
  questions: [],
  chat: [],
  nods: [],
  group: [],
  points: [],
  paused: null,
  rounds: 0,
  asides: [],
  contacts: 0,
  online: null,
  page: false,
  signal: null,
  judged: [],
})
const view = {
  head: {
    hands: [],
    turn: null,
    lastEntries: [],
    beforeStart: [{ text: 'Start the recording', ticked: null }],
    beforeEnd: [{ text: 'Stop the recording', ticked: 'e1' }],
    startedAt: 0,
    plan: {
      stages: [
        { id: 'read', name: 'Read the glass', minutes: 10 },
        { id: 'pairs', name: 'In pairs', minutes: 15 },
      ],
      criteria: [
        { id: 'listens', name: 'listens', levels: [{ id: 'well' }, { id: 'hardly' }] },
        { id: 'asks', name: 'asks', levels: [{ id: 'often' }] },
      ],
      stage: { index: 0, from: 0, to: 600_000, plannedTo: 600_000, extended: 0 },
    },
    groups: [],
    board: [],
    askings: [],
    callers: [],
    timers: [],
    door: [
      { name: 'galaxy tab 7', beside: '', first: 1, inMeeting: true, proposals: [], somebodyOf: null, later: null },
      { name: 'harbour-office-3', beside: '', first: 2, inMeeting: true, proposals: [], somebodyOf: null, later: null },
    ],
  },
  rows: [row('juno'), row('eino')],
} as unknown as View
let next = 0
const noted = (act: Act, more: Partial<Noted> = {}): Noted => ({
  id: `n${next++}`,
  lesson: 'l',
  happenedAt: 1,
  together: null,
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

  test('of two marks by one criterion the later counts, and another criterion keeps its own', () => {
    const mark = (criterion: string, level: string) =>
      noted({ type: 'criterionMarked', student: 'juno', criterion, level })
    expect(juno([mark('listens', 'well'), mark('asks', 'often'), mark('listens', 'hardly')]).judged).toEqual([
      'often',
      'hardly',
    ])
  })

  test('a hand goes up, is called, and its turn ends', () => {
    const up = noted({ type: 'handRaised', ready: false, student: 'eino' })
    const call = noted({ type: 'called', student: 'eino', origin: 'hand' })
    const full = noted({ type: 'turnTaken', student: 'eino', outcome: 'partial', origin: 'invited' })
    expect(draw(view, [up]).hands).toHaveLength(1)
    expect(draw(view, [up, call])).toMatchObject({ hands: [], turn: { student: 'eino' } })
    expect(draw(view, [up, call, full]).turn).toBeNull()
    expect(draw(view, [up, call, full]).rows[1]!.speaking[0]!.credit).toBe(0.5)
  })

  test('handing on ends one turn as a full one and begins another', () => {
    const call = noted({ type: 'called', student: 'juno', origin: 'invited' })
    const on = noted({ type: 'called', student: 'eino', origin: 'handedOn', by: 'juno' })
    const drawn = draw(view, [call, on])
    expect(drawn.turn!.student).toBe('eino')
    expect(drawn.rows[0]!.speaking).toMatchObject([{ credit: 1 }])
    expect(draw(view, [call, on, noted({ type: 'struck', entry: on.id })]).turn!.student).toBe('juno')
  })

  test('a strike is drawn over what it strikes out, and takes the entry out of undo', () => {
    const given = noted(nod('juno'))
    const drawn = draw(view, [given, noted({ type: 'struck', entry: given.id })])
    expect(drawn.rows[0]!.nods[0]!.state).toBe('struck')
    expect(drawn.entries.find((e) => e.state !== 'struck' && e.canStrike)).toBeUndefined()
  })

  test('what is undone before it is stored is as if it had not been, so that the same key does it anew', () => {
    const up = noted({ type: 'handRaised', ready: false, student: 'eino' })
    const call = noted({ type: 'called', student: 'eino', origin: 'hand' })
    expect(draw(view, [up, noted({ type: 'struck', entry: up.id })]).hands).toHaveLength(0)
    expect(draw(view, [up, call, noted({ type: 'struck', entry: call.id })])).toMatchObject({
      hands: [{ student: 'eino', entry: up.id }],
      turn: null,
    })
    const here = noted({ type: 'marked', student: 'juno', mark: 'left' })
    expect(juno([here, noted({ type: 'struck', entry: here.id })]).whereabouts).toBe(juno([]).whereabouts)
  })

  test('a hand or a turn of the server’s sheet is gone as soon as its entry is struck', () => {
    const hand = { student: 'eino', raisedAt: 1, entry: 'e7', lapsed: false, ready: false, stranger: null }
    const turn = { student: 'juno', entry: 'e8', origin: 'hand', at: 2, waitedSeconds: 1, why: null }
    const there = { ...view, head: { ...view.head, hands: [hand], turn } } as View
    expect(draw(there, [noted({ type: 'struck', entry: 'e7' })])).toMatchObject({ hands: [], turn: { entry: 'e8' } })
    expect(draw(there, [noted({ type: 'struck', entry: 'e8' })])).toMatchObject({
      hands: [{ entry: 'e7' }],
      turn: null,
    })
  })

  test('an entry that the server’s sheet shows already is not drawn twice', () => {
    const given = noted(nod('juno'))
    const shown = {
      head: {
        ...view.head,
        lastEntries: [
          {
            id: given.id,
            entries: [given.id],
            struckBy: [],
            at: 1,
            text: 'juno, nod',
            struck: false,
            canStrike: true,
            helper: null,
          },
        ],
      },
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

describe('one press', () => {
  const down = (student: string): Act => ({ type: 'handEnded', student, end: 'setDown' })
  const press = (acts: Act[], more: Partial<Noted> = {}) => acts.map((act) => noted(act, { together: 'p1', ...more }))
  test.each<[string, Act[], string]>([
    ['the same of a few is one line with their names', [nod('juno'), nod('eino')], 'juno, eino, nod, on time'],
    ['the same of many is counted', ['juno', 'eino', 'juno', 'eino'].map(down), '4 students, hand set down'],
    [
      'different acts are all said',
      [
        { type: 'turnTaken', student: 'juno', outcome: 'full', origin: 'invited' },
        { type: 'called', student: 'eino', origin: 'drawn' },
      ],
      'juno, full turn; eino, called',
    ],
    ['one act is as it was', [nod('juno')], 'juno, nod, on time'],
  ])('%s', (_, acts, text) => {
    const [line, ...none] = draw(view, press(acts)).entries
    expect(none).toEqual([])
    expect(line!.text).toBe(text)
    expect(line!.entries).toHaveLength(acts.length)
  })
  test('is struck out together, and put back together', () => {
    const both = press([nod('juno'), nod('eino')])
    const strike = noted(strikeOf(both.map((n) => n.id)))
    const struck = draw(view, [...both, strike])
    expect(struck.rows.map((r) => r.nods[0]!.state)).toEqual(['struck', 'struck'])
    expect(struck.entries).toMatchObject([{ state: 'struck', struckBy: [strike.id] }])
    const back = draw(view, [...both, strike, noted(strikeOf(struck.entries[0]!.struckBy))])
    expect(back.rows.map((r) => r.nods[0]!.state)).toEqual(['pencil', 'pencil'])
    expect(back.entries).toMatchObject([{ state: 'pencil', struckBy: [] }])
  })
  test('that the server shows as struck out is drawn as put back at once', () => {
    const line = {
      id: 'e1',
      entries: ['e1', 'e2'],
      struckBy: ['s1'],
      at: 1,
      text: 'both',
      struck: true,
      canStrike: true,
      helper: null,
    }
    const shown = { ...view, head: { ...view.head, lastEntries: [line] } } as View
    expect(draw(shown, []).entries[0]!.state).toBe('struck')
    expect(draw(shown, [noted(strikeOf(['s1']))]).entries[0]!.state).toBe('pencil')
  })
})

test('ids are UUIDs of version 7 in the order of their time', () => {
  const ids = [1_000, 1_700_000_000_000, 1_800_000_000_000].map(entryId)
  expect(ids).toEqual([...ids].sort())
  for (const id of ids) expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/)
})

describe('the lesson as a whole is drawn at once', () => {
  const after = (...acts: Act[]) =>
    draw(
      view,
      acts.map((act, i) => noted(act, { happenedAt: 700_000 + i })),
    )

  test('the next stage, and more time for it', () => {
    expect(after({ type: 'stageMoved', stage: 'pairs' }).stage).toEqual({
      index: 1,
      from: 700_000,
      to: 700_000 + 900_000,
      plannedTo: 1_500_000,
      extended: 0,
    })
    expect(after({ type: 'stageExtended', stage: 'read', minutes: 2 }).stage!.to).toBe(720_000)
    expect(after({ type: 'stageMoved', stage: 'gone from the plan' }).stage!.index).toBe(0)
  })

  test('groups, moved members, new names, and their end', () => {
    const groups = [
      { id: 'g1', name: 'Group 1', members: ['juno'] },
      { id: 'g2', name: 'Group 2', members: ['eino'] },
    ]
    const moved = after({ type: 'groupsMade', groups }, { type: 'groupJoined', student: 'eino', group: 'g1' })
    expect(moved.groups.map((g) => g.members)).toEqual([['juno', 'eino'], []])
    expect(
      after({ type: 'groupsMade', groups }, { type: 'groupRenamed', group: 'g2', name: 'Gulls' }).groups[1]!.name,
    ).toBe('Gulls')
    expect(after({ type: 'groupsMade', groups }, { type: 'groupsDissolved' }).groups).toEqual([])
  })

  test('the board and the timer', () => {
    expect(after({ type: 'boardPut', item: 'stage' }).board.map((b) => b.item)).toEqual(['stage'])
    expect(after({ type: 'boardPut', item: 'stage' }, { type: 'boardTaken', item: 'stage' }).board).toEqual([])
    const start = { type: 'timerStarted', seconds: 60, task: '' } as const
    const ofClass = { task: '', from: 700_000, to: 760_000, group: null }
    expect(after(start).timers).toEqual([ofClass])
    expect(after(start, { type: 'timerStopped' }).timers).toEqual([])
    const gulls = { type: 'groupsMade' as const, groups: [{ id: 'g1', name: 'Gulls', members: [] }] }
    const both = [gulls, start, { ...start, group: 'g1' }] as const
    const groups = (...more: Act[]) => after(...both, ...more).timers.map((t) => t.group)
    expect(groups()).toEqual([null, 'g1'])
    expect(groups({ type: 'timerStopped', group: 'g1' })).toEqual([null])
    expect(groups({ type: 'groupsDissolved' })).toEqual([null])
  })

  test('a name at the door that is decided is gone, one asked later goes to the end', () => {
    expect(after({ type: 'nameMatched', name: 'galaxy tab 7', student: 'juno' }).door.map((d) => d.name)).toEqual([
      'harbour-office-3',
    ])
    // Another of the same name stays.
    expect(after({ type: 'nameMatched', name: 'galaxy tab 7', beside: '#b2', student: 'juno' }).door).toHaveLength(2)
    expect(after({ type: 'askedLater', name: 'galaxy tab 7' }).door.map((d) => d.name)).toEqual([
      'harbour-office-3',
      'galaxy tab 7',
    ])
  })

  test('a lesson is over as soon as its end is noted', () => {
    const live = { ...view, head: { ...view.head, stage: 'live', endedBy: null } } as View
    const end = noted({ type: 'lessonEnded' }, { happenedAt: 700_000 })
    expect(draw(live, []).head.stage).toBe('live')
    expect(draw(live, [end]).head).toMatchObject({ stage: 'ended', endedAt: 700_000, endedBy: end.id })
    expect(draw(live, [end, noted(strikeOf([end.id]))]).head.stage).toBe('live')
  })
  test('and goes on as soon as its end is struck out; one that begins has begun', () => {
    const over = { ...view, head: { ...view.head, stage: 'ended', endedAt: 5, endedBy: 'e9' } } as View
    expect(draw(over, []).head.stage).toBe('ended')
    expect(draw(over, [noted(strikeOf(['e9']))]).head).toMatchObject({ stage: 'live', endedAt: null, endedBy: null })
    expect(
      draw({ ...over, head: { ...over.head, stage: 'planned' } }, [noted({ type: 'lessonStarted' })]).head.stage,
    ).toBe('live')
  })

  test('a roll call marks those it names as here, and those it misses as gone', () => {
    expect(after({ type: 'rollCallTaken', here: ['eino'] }).rows.map((r) => r.whereabouts)).toEqual(['missing', 'here'])
    const gone = after({ type: 'rollCallTaken', here: ['juno', 'eino'] }, { type: 'rollCallTaken', here: ['eino'] })
    expect(gone.rows.map((r) => r.whereabouts)).toEqual(['left', 'here'])
  })

  test('rows that nothing is pencilled on stay the same objects, so that only changed rows are drawn anew', () => {
    const [before, now] = [draw(view, []), after(nod('juno'))]
    expect(now.rows[1]).toBe(before.rows[1])
    expect(now.rows[0]).not.toBe(before.rows[0])
  })
})

describe('the chat', () => {
  const line = (entry: string) => ({ entry, kind: 'unsorted', sorted: false, dealtWith: false }) as never
  const swept = (...acts: Act[]) =>
    drawChat(
      [line('m1'), line('m2')],
      acts.map((act) => noted(act)),
    )

  test('what was swept here is settled at once, what was hidden is gone', () => {
    expect(swept({ type: 'chatSorted', message: 'm1', kind: 'idea' })[0]).toMatchObject({ kind: 'idea', sorted: true })
    expect(swept({ type: 'chatDealtWith', message: 'm2' })[1]).toMatchObject({ dealtWith: true })
    expect(swept({ type: 'chatHidden', message: 'm1' }).map((m) => m.entry)).toEqual(['m2'])
  })

  test('a refused word changes nothing', () => {
    const refused = noted({ type: 'chatHidden', message: 'm1' }, { refused: 'no' })
    expect(drawChat([line('m1')], [refused])).toHaveLength(1)
  })
})

test('a question is pencilled in when it is opened, and closed', () => {
  const opened = noted({
    type: 'questionOpened',
    question: { id: 'q1', kind: 'singleChoice', text: 'Fog?' },
    group: null,
    copyOf: null,
    longerFor: [],
    longerSeconds: 0,
  } as Act)
  const [asked] = draw(view, [opened]).askings
  expect(asked).toMatchObject({ asking: opened.id, question: 'q1', text: 'Fog?', closedAt: null, goesTo: 2 })
  const closed = noted({ type: 'questionClosed', asking: opened.id })
  expect(draw(view, [opened, closed]).askings[0]!.closedAt).toBe(1)
})

test('an answer entered for somebody is one stroke, however often it is changed', () => {
  const answer = (): Act => ({ type: 'answerGiven', student: 'juno', asking: 'a1', answer: { options: ['o1'] } }) as Act
  expect(draw(view, [noted(answer()), noted(answer())]).rows[0]!.questions).toHaveLength(1)
})

test('results on the board are drawn there at once', () =>
  expect(
    draw(view, [
      noted({ type: 'resultsPut', asking: 'a1', withRight: false, holdBackFew: false, named: [] }),
    ]).board.map((b) => b.item),
  ).toEqual(['results']))
