import { describe, expect, it } from 'vitest'
import { joined, partedIn, textOf } from './pictureCells'
import { isIn, scriptsIn } from './pictureScripts'

/** "100 Juno" is a word that begins 100 points from the left; letters are 10 wide and 20 high. */
const line = (...words: [number, string][]) =>
  words.map(([x0, text]) => ({ text, confidence: 90, bbox: { x0, y0: 0, x1: x0 + 10 * text.length, y1: 20 } }))

describe('the cells of a picture', () => {
  it.each([
    ['one name a line', [line([0, 'Juno'], [50, 'Quillfeather'])], 'Juno Quillfeather'],
    [
      'two columns',
      [line([0, 'Juno'], [50, 'Quillfeather'], [300, 'Eino'], [350, 'Rautio'])],
      'Juno Quillfeather\tEino Rautio',
    ],
    ['in any order', [line([300, 'Eino'], [0, 'Juno'], [350, 'Rautio'])], 'Juno\tEino Rautio'],
    ['an empty line', [line([0, 'Juno']), line([0, ' '])], 'Juno'],
    [
      'badges before names',
      [
        line([0, 'JQ'], [60, 'Juno'], [110, 'Quillfeather']),
        line([0, '@'], [60, 'Eino'], [110, 'Rautio']),
        line([0, 'Zainab']),
      ],
      'Juno Quillfeather\nEino Rautio\nZainab',
    ],
    [
      'badges close to names',
      [
        line([0, 'JQ'], [30, 'Juno'], [80, 'Quillfeather']),
        line([0, '(ER)'], [45, 'Eino'], [90, 'Rautio']),
        line([0, 'Zainab']),
      ],
      'Juno Quillfeather\nEino Rautio\nZainab',
    ],
    ['a short name among long ones', [line([0, 'Bo']), line([0, 'Juno']), line([0, 'Eino'])], 'Bo\nJuno\nEino'],
    ['names of two signs', [line([0, '渡辺'], [100, '蓮']), line([0, '王芳'])], '渡辺\t蓮\n王芳'],
    ['signs of one word, close together', [line([0, '王'], [11, '芳'], [30, '明'])], '王芳 明'],
    ['from right to left', [line([0, 'כהן'], [35, 'דנה'])], 'דנה כהן'],
    ['marks of the way letters run', [line([0, '\u200eJuno\u200f'], [50, '\u200e'])], 'Juno'],
  ])('%s', (_, lines, expected) => expect(textOf(partedIn(lines))).toBe(expected))
})

it('a cell holds its words in the order of the line, and is as sure as the least sure of them', () => {
  const [second, first] = line([60, 'Rautio'], [0, 'Eino'])
  expect(joined([{ ...second!, confidence: 40 }, first!])).toEqual({
    text: 'Eino Rautio',
    confidence: 40,
    bbox: { x0: 0, y0: 0, x1: 120, y1: 20 },
  })
})

describe('the scripts to be read, what most names are written in first', () => {
  it.each([
    [['Juno Quillfeather', 'Þóra Ösp'], [['eng', 'isl']]],
    [
      ['Juno', 'Eino', '蓮 渡辺'],
      [
        ['eng', 'isl'],
        ['jpn', 'chi_sim'],
      ],
    ],
    [
      ['Дмитро', 'Оксана', 'דנה', 'दीपा', 'دنا'],
      [['ukr', 'bel'], ['heb'], ['ara'], ['hin'], ['eng', 'isl']],
    ],
    [[], [['eng', 'isl']]],
  ])('of %j', (names, expected) => expect(scriptsIn(names).map((s) => s.languages)).toEqual(expected))

  it.each([
    ['דנה', 'דנה', true],
    ['דנה', 'דנה x', true],
    ['דנה', 'Juno', false],
    ['דנה', '12', false],
    ['Дмитро', 'Juno Дм', false],
  ])('written like %s: %s', (name, text, expected) => expect(isIn(scriptsIn([name])[0]!, text)).toBe(expected))
})
