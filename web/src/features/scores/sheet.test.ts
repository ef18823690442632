import { expect, test } from 'vitest'
import { ref } from 'vue'
import { hoursOf, tagsOf, trendOf, useSheet, type Row } from './sheet'

const row = (called: string, scores: (number | null)[], more: Partial<Row> = {}): Row => ({
  id: called,
  called,
  rest: '',
  tags: '',
  term: null,
  band: null,
  needsLook: [],
  cells: scores.map((score) => ({
    score,
    status: 'present',
    notes: '',
    minutes: score ?? 0,
    restsOnLittle: false,
    corrected: null,
  })),
  ...more,
})

test.each([
  [[50, 50, 50], null],
  [[50, 80, 80, 80], 30],
  [[90, 90, 60, 60, 60], -30],
  [[50, null, 80, 80, 80], 30],
])('the trend of %j is %s', (scores, trend) => expect(trendOf(row('Juno', scores))).toBe(trend))

test.each([
  [[45, 30], '1 h 15 min'],
  [[60, 60], '2 h'],
  [[20], '20 min'],
  [[], '0 min'],
])('minutes %j are %s', (minutes, hours) => expect(hoursOf(row('Juno', minutes))).toBe(hours))

test('tags are told apart and each stands once', () =>
  expect(tagsOf([row('Juno', [], { tags: 'Nort; extra time' }), row('Eino', [], { tags: 'Nort' })])).toEqual([
    'Nort',
    'extra time',
  ]))

test('rows are filtered by tag, band and what needs a look, and sorted with those without a figure last', () => {
  const students = [
    row('Juno', [], { term: 80, band: 'leading', tags: 'Nort' }),
    row('Eino', [], { term: 40, band: 'beginning', needsLook: ['rests on one entry'] }),
    row('Saga', [], { tags: 'Nort' }),
  ]
  const sheet = ref({ classId: '', className: '', places: 0, bands: [], lessons: [], terms: [], students })
  const { rows, sortBy, tag, band, look, looked } = useSheet(sheet)
  const names = () => rows.value.map((r) => r.called).join(' ')
  expect(names()).toBe('Juno Eino Saga')
  sortBy.value = 'term'
  expect(names()).toBe('Eino Juno Saga')
  tag.value = 'Nort'
  expect(names()).toBe('Juno Saga')
  band.value = 'leading'
  expect(names()).toBe('Juno')
  ;[tag.value, band.value, look.value] = ['', '', true]
  expect(names()).toBe('Eino')
  expect(looked.value).toBe(1)
})
