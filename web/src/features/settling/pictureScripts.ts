import arabic from '@tesseract.js-data/ara/4.0.0_best_int/ara.traineddata.gz?url'
import belarusian from '@tesseract.js-data/bel/4.0.0_best_int/bel.traineddata.gz?url'
import chinese from '@tesseract.js-data/chi_sim/4.0.0_best_int/chi_sim.traineddata.gz?url'
import english from '@tesseract.js-data/eng/4.0.0_best_int/eng.traineddata.gz?url'
import hebrew from '@tesseract.js-data/heb/4.0.0_best_int/heb.traineddata.gz?url'
import hindi from '@tesseract.js-data/hin/4.0.0_best_int/hin.traineddata.gz?url'
import icelandic from '@tesseract.js-data/isl/4.0.0_best_int/isl.traineddata.gz?url'
import japanese from '@tesseract.js-data/jpn/4.0.0_best_int/jpn.traineddata.gz?url'
import ukrainian from '@tesseract.js-data/ukr/4.0.0_best_int/ukr.traineddata.gz?url'

/** The letters that belong together, and what reads them. */
export interface Script {
  letter: RegExp
  languages: string[]
}

/** "eng" of ".../eng.traineddata.gz". */
const codeIn = (address: string) => address.slice(address.lastIndexOf('/') + 1).split('.')[0]!

const script = (letter: RegExp, ...data: string[]): Script => ({ letter, languages: data.map(codeIn) })

/** Latin letters with their marks. */
const latin = script(/\p{Script=Latin}/gu, english, icelandic)

/** For Cyrillic there is no data of one language with all letters: two together have them. */
const others = [
  script(/\p{Script=Hebrew}/gu, hebrew),
  script(/\p{Script=Arabic}/gu, arabic),
  script(/\p{Script=Cyrillic}/gu, ukrainian, belarusian),
  script(/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/gu, japanese, chinese),
  script(/\p{Script=Devanagari}/gu, hindi),
]

/** Where the data of all languages lies. */
export const folder = english.slice(0, english.lastIndexOf('/'))

/** The scripts to read pictures with: Latin letters, and those that names of the class are written in; what most are written in comes first. */
export function scriptsIn(names: string[]) {
  const written = ({ letter }: Script) => names.filter((name) => name.search(letter) >= 0).length
  return [latin, ...others.filter(written)].sort((a, b) => written(b) - written(a))
}

/** Whether most letters of a text are of this script. */
export const isIn = ({ letter }: Script, text: string) =>
  2 * (text.match(letter)?.length ?? 0) > (text.match(/\p{L}/gu)?.length ?? 0)
