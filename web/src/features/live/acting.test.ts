import { computed, ref } from 'vue'
import { beforeEach, describe, expect, test } from 'vitest'
import { actsOf } from '../../live/acts'
import type { LiveLesson } from '../../live/lesson'
import type { Act } from '../../live/outbox'
import { useActing } from './acting'
import type { Sheet } from './sheet'

const juno = { id: 'juno', shortName: 'Juno', paused: null as string | null, points: [] as string[] }
const eino = { ...juno, id: 'eino', shortName: 'Eino' }
const zainab = { ...juno, id: 'zainab', shortName: 'Zainab', paused: 'entry' }

let noted: Act[]
let chosen: ReturnType<typeof ref<string[]>>
let said: ReturnType<typeof ref<string>>
let wrong: ReturnType<typeof ref<string>>
let lesson: { stage: string; turn?: string; up: string[]; points: string[] }

/** A teacher at a lesson with three students, of whom Zainab cannot speak today. */
function teacher() {
  const rows = [juno, eino, zainab]
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
    head: ref({ stage: lesson.stage, plan }),
    drawn: ref(drawn),
    isOver: computed(() => lesson.stage === 'ended'),
    note: (...acts: Act[]) => void noted.push(...acts),
    undo: () => ({ text: 'Juno, full turn' }),
  }
  const sheet = {
    rowOf: row,
    nameOf: (id: string) => row(id)?.shortName ?? '',
    running: computed(() => lesson.stage === 'live'),
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
  lesson = { stage: 'live', up: [], points: [] }
})

describe('an act on a key', () => {
  test('is noted for all who are chosen, said, and nobody is chosen any more', () => {
    teacher().log(act('full'), ['juno', 'eino'])
    expect(noted.map((a) => 'student' in a && a.student)).toEqual(['juno', 'eino'])
    expect([said.value, chosen.value]).toEqual(['Juno, Eino, full', []])
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
