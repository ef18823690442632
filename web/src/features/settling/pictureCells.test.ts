import { describe, expect, it } from 'vitest'
import { cellsOf } from './pictureCells'
import { scriptsIn } from './pictureScripts'

/** "100 Juno" is a word that begins 100 points from the left; letters are 10 wide and 20 high. */
const line = (...words: [number, string][]) =>
  words.map(([x0, text]) => ({ text, bbox: { x0, y0: 0, x1: x0 + 10 * text.length, y1: 20 } }))

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
    ['from right to left', [line([0, 'כהן'], [35, 'דנה'])], 'דנה כהן'],
  ])('%s', (_, lines, expected) => expect(cellsOf(lines)).toBe(expected))
})

describe('the scripts to be read', () => {
  it.each([
    [
      ['Juno Quillfeather', 'Þóra Ösp'],
      ['eng', 'isl'],
    ],
    [['蓮 渡辺'], ['eng', 'isl', 'jpn', 'chi_sim']],
    [
      ['Дмитро', 'دنا', 'דנה', 'दीपा'],
      ['eng', 'isl', 'heb', 'ara', 'ukr', 'bel', 'hin'],
    ],
    [[], ['eng', 'isl']],
  ])('of %j', (names, expected) => expect(scriptsIn(names)).toEqual(expected))
})
