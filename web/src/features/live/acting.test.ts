import { computed, ref } from 'vue'
import { beforeEach, describe, expect, test, vi } from 'vitest'
import { actsOf } from '../../live/acts'
import type { LiveLesson } from '../../live/lesson'
import type { Act } from '../../live/outbox'
import { useActing } from './acting'
import type { Sheet } from './sheet'

const juno = {
  id: 'juno',
  shortName: 'Juno',
  paused: null as string | null,
  points: [] as string[],
  whereabouts: 'here',
  shownUntil: null as number | null,
  sentOutSince: null as number | null,
  page: false,
}
const eino = { ...juno, id: 'eino', shortName: 'Eino' }
const zainab = { ...juno, id: 'zainab', shortName: 'Zainab', paused: 'entry' }

let noted: Act[]
let chosen: ReturnType<typeof ref<string[]>>
let said: ReturnType<typeof ref<string>>
let wrong: ReturnType<typeof ref<string>>
let lesson: {
  stage: string
  turn?: string
  up: string[]
  points: string[]
  minute: number
  known?: boolean
  left?: string
  missing?: string
}

/** A teacher at a lesson with three students, of whom Zainab cannot speak today. */
function teacher() {
  const rows = [juno, eino, zainab].map((r) => ({
    ...r,
    whereabouts: r.id === lesson.left ? 'left' : r.id === lesson.missing ? 'missing' : 'here',
  }))
  const row = (id: string) => rows.find((r) => r.id === id)
  const drawn = {
    turn: lesson.turn ? { student: lesson.turn } : null,
    hands: lesson.up.map((student) => ({ student, stranger: student.startsWith('?') ? 'galaxy tab 7' : null })),
    stage: { index: 0 },
  }
  const plan = {
    points: lesson.points.map((id) => ({ id })),
    stages: [{ id: 'readings' }, { id: 'pairs' }],
  }
  const live = {
    head: ref({
      stage: lesson.stage,
      plan,
      countedFrom: 0,
      lateAfterSeconds: 300,
      missingIsKnown: lesson.known ?? true,
    }),
    drawn: ref(drawn),
    now: ref(lesson.minute * 60_000),
    isOver: computed(() => lesson.stage === 'ended'),
    note: (...acts: Act[]) => void noted.push(...acts),
    undo: () => ({ text: 'Juno, full turn' }),
  }
  const sheet = {
    rowOf: row,
    nameOf: (id: string) => row(id)?.shortName ?? '',
    running: computed(() => lesson.stage === 'live'),
    planned: computed(() => lesson.stage === 'planned'),
    handsUp: computed(() => new Set(lesson.up)),
    turnRow: computed(() => row(lesson.turn ?? '')),
  }
  return useActing(live as unknown as LiveLesson, sheet as unknown as Sheet, chosen as never, {
    said: said as never,
    wrong: wrong as never,
  })
}
const act = (name: string) => actsOf(['on time']).find((a) => a.name === name)!

beforeEach(() => {
  noted = []
  chosen = ref(['juno'])
  said = ref('')
  wrong = ref('')
  lesson = { stage: 'live', up: [], points: [], minute: 13 }
})

describe('an act on a key', () => {
  test('is noted for all who are chosen, said, and nobody is chosen any more', () => {
    teacher().log(act('full'), ['juno', 'eino'])
    expect(noted.map((a) => 'student' in a && a.student)).toEqual(['juno', 'eino'])
    expect([said.value, chosen.value]).toEqual(['Juno, Eino, full', []])
  })

  test('that makes sense before the bell is noted; of any other it is said that the lesson has not begun', () => {
    lesson.stage = 'planned'
    const { log } = teacher()
    for (const name of ['here', 'hand', 'pause', 'full', 'question']) log(act(name), ['juno'])
    expect(noted.map((a) => a.type)).toEqual(['marked', 'handRaised', 'speakingPaused'])
    expect(wrong.value).toBe('The lesson has not begun. Start it, then this works.')
  })

  test.each([
    ['missing for 13 minutes: late, and here from the start by one press', { missing: 'juno' }, 'late', 13],
    ['missing for 4 minutes', { missing: 'juno', minute: 4 }, 'here', undefined],
    [
      'missing in a class that is looked through for the first time',
      { missing: 'juno', known: false },
      'here',
      undefined,
    ],
    ['here already', {}, 'here', undefined],
  ])('here, of somebody %s', (_, given, mark, minutes) => {
    Object.assign(lesson, given)
    const { log, cameLate, hereFromTheStart } = teacher()
    log(act('here'), ['juno'])
    expect(noted).toEqual([{ type: 'marked', student: 'juno', mark }])
    expect(cameLate.value?.minutes).toBe(minutes)
    if (!minutes) return
    hereFromTheStart()
    expect(noted[1]).toEqual({ type: 'marked', student: 'juno', mark: 'here' })
    expect(cameLate.value).toBeUndefined()
  })

  test('is not noted while the lesson does not run', () => {
    lesson.stage = 'ended'
    teacher().log(act('full'), ['juno'])
    expect([noted, chosen.value]).toEqual([[], ['juno']])
  })

  test.each([
    [
      'a hand that is up goes down again',
      ['juno'],
      'hand',
      'juno',
      { type: 'handEnded', student: 'juno', end: 'withdrawn' },
    ],
    ['a hand that is down goes up', [], 'hand', 'juno', { type: 'handRaised', student: 'juno', ready: false }],
    ['who cannot speak can again', [], 'pause', 'zainab', { type: 'speakingPaused', student: 'zainab', paused: false }],
    ['who can speak cannot', [], 'pause', 'juno', { type: 'speakingPaused', student: 'juno', paused: true }],
  ])('%s', (_, up, name, student, wanted) => {
    lesson.up = up
    teacher().log(act(name), [student])
    expect(noted).toEqual([wanted])
  })

  test('handing on says by whom, if somebody else has the word', () => {
    lesson.turn = 'eino'
    teacher().log(act('handOn'), ['juno'])
    expect(noted).toEqual([{ type: 'called', student: 'juno', origin: 'handedOn', by: 'eino' }])
  })

  test('who cannot speak today is not called without a word of it', () => {
    teacher().log(act('call'), ['zainab'])
    expect(wrong.value).toContain('Zainab cannot speak today')
    teacher().log(act('call'), ['juno'])
    expect(wrong.value).toBe('')
  })
})

describe('without choosing anybody', () => {
  test('the next in line is called, and nobody whom the roster does not know', () => {
    lesson.up = ['?stranger', 'eino', 'juno']
    teacher().callNext()
    expect(noted).toEqual([{ type: 'called', student: 'eino', origin: 'hand' }])
  })

  test('a point is ticked in the turn that is on, once', () => {
    lesson.points = ['isobars']
    expect([teacher().tickPoint(0), noted]).toEqual([false, []])
    lesson.turn = 'juno'
    expect([teacher().tickPoint(1), noted]).toEqual([false, []])
    expect(teacher().tickPoint(0)).toBe(true)
    expect(noted).toEqual([{ type: 'pointCovered', student: 'juno', point: 'isobars' }])
  })

  test('the next stage begins, or the one that is on gets more time', () => {
    const { nextStage, extend } = teacher()
    nextStage()
    extend(5)
    expect(noted).toEqual([
      { type: 'stageMoved', stage: 'pairs' },
      { type: 'stageExtended', stage: 'readings', minutes: 5 },
    ])
  })

  test('undo says what it struck out, and does nothing when the lesson is over', () => {
    teacher().takeBack()
    expect(said.value).toBe('struck out: Juno, full turn')
    lesson.stage = 'ended'
    teacher().takeBack()
    expect(said.value).toContain('The lesson is over')
  })
})

describe('the next in line', () => {
  test('is one a press: a second press within half a second calls nobody', () => {
    vi.useFakeTimers()
    lesson.up = ['juno', 'eino']
    const { callNext } = teacher()
    callNext()
    vi.advanceTimersByTime(150)
    callNext()
    expect(noted).toEqual([{ type: 'called', student: 'juno', origin: 'hand' }])
    vi.advanceTimersByTime(400)
    callNext()
    expect(noted.length).toBe(2)
    vi.useRealTimers()
  })

  test('is never somebody who has left', () => {
    Object.assign(lesson, { up: ['juno', 'eino'], left: 'juno' })
    teacher().callNext()
    expect(noted).toEqual([{ type: 'called', student: 'eino', origin: 'hand' }])
  })
})
