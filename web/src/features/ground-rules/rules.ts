import type { Filled, Schemas } from '../../api/client'

export type Rules = Filled<Schemas['ClassRules']>

/** One rule on the page: where it lies in the record, and how it is written. */
export interface RuleField {
  rule: string
  label: string
  /** What the number is in: minutes are kept as seconds, percent as a share of 1. */
  unit: 'min' | 's' | '%' | 'of 1' | 'turns' | 'messages' | 'points' | 'lessons' | 'places' | 'choice'
  choices?: readonly { value: string | boolean; label: string }[]
  get: (rules: Rules) => number | string | boolean
  set: (rules: Rules, value: number | string | boolean) => void
  step?: number
}

/** Makes the fields of the rules that stand in one place. */
const fieldsIn =
  <T extends object>(place: (rules: Rules) => T) =>
  (rule: keyof T & string, label: string, unit: RuleField['unit'], more: Partial<RuleField> = {}): RuleField => ({
    rule,
    label,
    unit,
    get: (rules) => place(rules)[rule] as number | boolean | string,
    set: (rules, value) => (place(rules)[rule] = value as T[keyof T & string]),
    ...more,
  })
const attendance = fieldsIn((rules) => rules.scheme.attendance)
const scheme = fieldsIn((rules) => rules.scheme)
const ofClass = fieldsIn((rules) => rules)

const yesNo = (yes: string, no: string) => ({
  choices: [
    { value: false, label: no },
    { value: true, label: yes },
  ],
})

/** What says where somebody was, and what else a class agrees on: nothing of it weighs a score. */
export const groundSections: readonly { head: string; fields: readonly RuleField[] }[] = [
  {
    head: 'Attendance',
    fields: [
      attendance('lateAfter', 'Late after', 'min'),
      attendance('lateInDropIn', 'In a drop-in lesson', 'choice', yesNo('the same is late', 'nobody is late')),
      attendance('leftEarlyBefore', 'Left early before', 'min'),
      attendance('bridge', 'A dropout is bridged up to', 'min'),
      attendance('absentBelow', 'Absent below', 'min'),
      attendance('absentBelowShare', 'or below, if that is less', '%'),
      attendance('enoughShare', 'Enough presence', '%'),
    ],
  },
  {
    head: 'In the lesson',
    fields: [
      ofClass('readyJoinsLine', 'Who writes “ready”', 'choice', yesNo('joins the hand line', 'only wrote in the chat')),
      ofClass('nodsOnBoard', 'Nods on the board', 'choice', {
        choices: [
          { value: 'never', label: 'are not shown' },
          { value: 'whenShown', label: 'are shown when you press' },
          { value: 'always', label: 'are shown, all of them' },
        ],
      }),
      ofClass('extraTimeShare', 'Extra time, for those tagged so, adds', '%'),
      ofClass('speechSeconds', 'Speech nobody noted is asked about from', 's'),
      ofClass('keepsSpoken', 'The words of captions', 'choice', yesNo('are kept', 'are not kept')),
    ],
  },
  {
    head: 'On the student page',
    fields: [
      ofClass('pageByName', 'Without a pass', 'choice', yesNo('a name knocks, and you let in', 'nobody comes in')),
      ofClass('pageShowsStrokes', 'One’s own strokes', 'choice', yesNo('are shown', 'are not shown')),
      ofClass('pageShowsScores', 'One’s own scores', 'choice', yesNo('are shown, with why', 'are not shown')),
      ofClass(
        'signalsAnyTime',
        'Agreed signals',
        'choice',
        yesNo('can be given at any time', 'belong to signal rounds'),
      ),
      ofClass(
        'studentsHandOn',
        'Whoever has the word',
        'choice',
        yesNo('may hand on to another', 'leaves it to you who is next'),
      ),
    ],
  },
]

/** What a score is made of, apart from the weights of its strands. */
export const schemeSections: readonly { head: string; fields: readonly RuleField[] }[] = [
  {
    head: 'Credit for being there',
    fields: [
      attendance('creditBy', 'Credit goes by', 'choice', {
        choices: [
          { value: 'status', label: 'status: present, late, absent' },
          { value: 'share', label: 'share of the time' },
        ],
      }),
      attendance('lateCredit', 'A late student earns', 'of 1', { step: 0.05 }),
      attendance('leftEarlyCredit', 'A student who left early earns', 'of 1', { step: 0.05 }),
      attendance(
        'missedCounts',
        'What is asked before a student comes or after they leave, without an excuse,',
        'choice',
        yesNo('counts as not answered', 'does not count'),
      ),
      scheme(
        'absenceScoresZero',
        'Absence without excuse',
        'choice',
        yesNo('scores 0 in every strand', 'scores 0 in attendance alone'),
      ),
    ],
  },
  {
    head: 'Speaking',
    fields: [
      scheme('speakingTarget', 'Turns for a full strand', 'turns', { step: 0.5 }),
      scheme('uncalledHand', 'A hand never called earns', 'of 1', { step: 0.05 }),
      scheme('signalAnswered', 'A signal round answered earns', 'of 1', { step: 0.05 }),
      scheme('signalGiven', 'A signal of one’s own accord earns', 'of 1', { step: 0.05 }),
      scheme(
        'openLineIsChance',
        'An open hand line',
        'choice',
        yesNo('is a chance for all who were there', 'is a chance for whoever is in it'),
      ),
      scheme('writtenStandsIn', 'A message, in place of a part of a turn, earns', 'of 1', { step: 0.05 }),
      scheme('writtenAtMost', 'Messages, in place of a turn, earn at most', 'of 1', { step: 0.05 }),
    ],
  },
  {
    head: 'Questions and chat',
    fields: [
      scheme('marksShare', 'Marks weigh, against answering', '%'),
      scheme('chatCounts', 'The chat', 'choice', yesNo('counts', 'does not count')),
      scheme('chatTarget', 'Messages for a full strand', 'messages', { step: 1 }),
      scheme('turnInChat', 'A full turn, in place of messages, counts', 'messages', { step: 0.25 }),
      scheme('turnsInChatAtMost', 'Full turns, in place of messages, fill at most', '%'),
    ],
  },
  {
    head: 'Nods and the term',
    fields: [
      scheme('nodPoints', 'A nod adds', 'points', { step: 0.5 }),
      scheme('nodsAtMost', 'Nods add at most', 'points', { step: 0.5 }),
      scheme('lowestLeftOut', 'Over a term, lowest left out', 'lessons'),
      scheme('lessonsWeighTheSame', 'Lessons weigh', 'choice', yesNo('all the same', 'by their minutes')),
      scheme('lessonsForTerm', 'A term score takes', 'lessons'),
      scheme('places', 'Scores are shown with', 'places'),
    ],
  },
]

/** Every threshold, in the order of the page. */
export const ruleSections = [...groundSections, ...schemeSections]

/** The strands, in their order; the rubric weighs nothing until a class has criteria. */
export const strands = [
  { name: 'attendance', label: 'Attendance', pen: 'var(--pen-attendance)' },
  { name: 'speaking', label: 'Speaking', pen: 'var(--pen-speaking)' },
  { name: 'questions', label: 'Questions', pen: 'var(--pen-questions)' },
  { name: 'chat', label: 'Chat', pen: 'var(--pen-chat)' },
  { name: 'groupWork', label: 'Group work', pen: 'var(--pen-group)' },
  { name: 'rubric', label: 'Rubric', pen: 'var(--pen-rubric)' },
] as const satisfies readonly { name: Schemas['Strand']; label: string; pen: string }[]

/** What stands in the field for a stored value. */
export const shownValue = (field: RuleField, rules: Rules) => {
  const value = field.get(rules)
  if (typeof value !== 'number') return value
  if (field.unit === 'min') return +(value / 60).toFixed(2)
  return field.unit === '%' ? +(value * 100).toFixed(2) : value
}

/** What is stored for what was written in the field. */
export const storedValue = (field: RuleField, written: number) =>
  field.unit === 'min' ? written * 60 : field.unit === '%' ? +(written / 100).toFixed(6) : written

/** Takes what was written or chosen in a field; what is no number yet changes nothing. */
export function writeInto(rules: Rules, field: RuleField, event: Event) {
  const input = event.target as HTMLInputElement | HTMLSelectElement
  if (field.choices) field.set(rules, field.choices[(input as HTMLSelectElement).selectedIndex]!.value)
  else if (input.value !== '' && Number.isFinite(Number(input.value)))
    field.set(rules, storedValue(field, Number(input.value)))
}

/** Where the part with this heading stands on the page. */
export const placeOf = (head: string) => `rules-${head.toLowerCase().replace(/ /g, '-')}`

/** The parts of the page, to jump to. */
export const partsOf = (withScheme: boolean) => [
  ...(withScheme ? ruleSections : groundSections).map((s) => ({ id: placeOf(s.head), label: s.head })),
  ...(withScheme ? [{ id: 'weights', label: 'Weights' }] : []),
  { id: 'nods', label: 'Nods' },
  { id: 'signals', label: 'Signals' },
  { id: 'before-start', label: 'Reminders' },
  { id: 'rubric', label: 'Rubric' },
  { id: 'word', label: 'Word ahead' },
]
