import arabic from '@tesseract.js-data/ara/4.0.0_best_int/ara.traineddata.gz?url'
import belarusian from '@tesseract.js-data/bel/4.0.0_best_int/bel.traineddata.gz?url'
import chinese from '@tesseract.js-data/chi_sim/4.0.0_best_int/chi_sim.traineddata.gz?url'
import english from '@tesseract.js-data/eng/4.0.0_best_int/eng.traineddata.gz?url'
import hebrew from '@tesseract.js-data/heb/4.0.0_best_int/heb.traineddata.gz?url'
import hindi from '@tesseract.js-data/hin/4.0.0_best_int/hin.traineddata.gz?url'
import icelandic from '@tesseract.js-data/isl/4.0.0_best_int/isl.traineddata.gz?url'
import japanese from '@tesseract.js-data/jpn/4.0.0_best_int/jpn.traineddata.gz?url'
import ukrainian from '@tesseract.js-data/ukr/4.0.0_best_int/ukr.traineddata.gz?url'

/** What reads letters of each script. For Cyrillic there is no data of one language with all letters: two together have them. */
const scripts: [RegExp, string[]][] = [
  [/\p{Script=Hebrew}/u, [hebrew]],
  [/\p{Script=Arabic}/u, [arabic]],
  [/\p{Script=Cyrillic}/u, [ukrainian, belarusian]],
  [/[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}]/u, [japanese, chinese]],
  [/\p{Script=Devanagari}/u, [hindi]],
]

/** Where the data of all languages lies. */
export const folder = english.slice(0, english.lastIndexOf('/'))

/** "eng" of ".../eng.traineddata.gz". */
const codeIn = (address: string) => address.slice(address.lastIndexOf('/') + 1).split('.')[0]!

/** The languages to read pictures with: Latin letters with their marks, and the scripts that names of the class are written in, for each makes the reading slower. */
export const scriptsIn = (names: string[]) =>
  [
    english,
    icelandic,
    ...scripts.filter(([script]) => names.some((n) => script.test(n))).flatMap(([, data]) => data),
  ].map(codeIn)
