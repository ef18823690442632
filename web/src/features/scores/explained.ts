import type { Schemas } from '../../api/client'
import { second } from '../../ui/format'
import { strands } from '../ground-rules/rules'

/** What a strand is called in a line of an explanation. */
export const strandName = (strand: Schemas['Strand']) => strands.find((s) => s.name === strand)!.label.toLowerCase()

/** Strands that weigh something, or say something though they weigh nothing. */
export const weighed = (answer: Schemas['Explanation']) => answer.score.strands.filter((s) => s.weight > 0 || s.value)

/** The nods among the parts of a score. */
export function nodsOf(figure: Schemas['Figure'] | null | undefined): Schemas['Figure'] | undefined {
  return !figure ? undefined : figure.label === 'Nods' ? figure : figure.parts.map(nodsOf).find(Boolean)
}

/** What the strands come to together: earned, of what was possible. */
export const together = (answer: Schemas['Explanation']) => ({
  earned: answer.score.strands.reduce((sum, s) => sum + (s.value ? s.value.value * s.weight : 0), 0),
  possible: answer.score.strands.reduce((sum, s) => sum + (s.value ? s.weight : 0), 0),
})

const head = (shown: number | null, student: string, strand?: Schemas['Strand']) =>
  `Why ${shown ?? 'no score'}${strand ? ` for ${strandName(strand)}` : ''}, ${student}?`

/** Why a score of a lesson is what it is, in lines to be pasted anywhere. */
export function lessonInWords(answer: Schemas['Explanation']) {
  const { earned, possible } = together(answer)
  const nods = nodsOf(answer.score.total)
  return [
    head(answer.shown, answer.student),
    `${answer.lesson}${answer.version ? `, version ${answer.version} of the scheme` : ''}`,
    answer.sentence,
    '',
    ...weighed(answer).map(
      (s) =>
        `${strandName(s.strand)}: ${s.because}${s.value ? `; ${s.value.value.toFixed(2)} × ${s.weight} = ${(s.value.value * s.weight).toFixed(2)}` : ''}`,
    ),
    ...(nods && nods.value > 0 ? [`nods: +${nods.value}`] : []),
    ...(answer.score.total
      ? [
          `together: ${earned.toFixed(2)} of ${possible}, times 100${nods && nods.value > 0 ? `, and ${nods.value}` : ''} = ${answer.score.total.value.toFixed(1)}`,
        ]
      : []),
    ...answer.corrections.map((c) => `${c.said}, ${c.by}`),
    '',
    ...answer.entries.map((e) => `${second(e.at)} ${e.text}`),
  ].join('\n')
}

/** Why a score over a term is what it is, in lines to be pasted anywhere. */
export const termInWords = (answer: Schemas['TermExplanation'], strand?: Schemas['Strand']) =>
  [
    head(answer.shown, answer.student, strand),
    answer.total ? '' : `Not enough yet: ${answer.scored} of ${answer.needed} scored lessons.`,
    ...(answer.total?.parts[0]?.parts ?? []).map(
      (l) => `${l.label}: ${l.parts[0]!.value.toFixed(1)} × ${l.parts[1]!.value}`,
    ),
    ...(answer.total ? [`together: ${answer.total.value.toFixed(1)}`] : []),
    ...(answer.leftOut.length ? [`left out: ${answer.leftOut.join('; ')}`] : []),
  ].join('\n')
