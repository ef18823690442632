import { useLocalStorage } from '@vueuse/core'
import { api, ask, Problem } from '../../api/client'
import type { LiveLesson } from '../../live/lesson'
import { entryId } from '../../live/outbox'
import type { Telling } from './acting'
import type { Sheet } from './sheet'

/** Drawing a name by chance, in the manner that this teacher chose last. */
export function useDraw(
  lesson: string,
  { serverTime, stored, drawn }: LiveLesson,
  { running, nameOf }: Sheet,
  { said, wrong }: Telling,
) {
  const drawBy = useLocalStorage<'leastHeard' | 'onceRound'>('polite-tally-draw', 'leastHeard')
  // Kept until there is an answer, so that a draw whose answer got lost is not drawn anew.
  let drawing = ''

  async function drawName() {
    if (!running.value) return
    wrong.value = ''
    // The name may stand on the sheet before the answer is here: what is drawn now is another one.
    if (drawn.value?.entries.some((entry) => entry.entries.includes(drawing))) drawing = ''
    const id = (drawing ||= entryId(serverTime()))
    const forget = () => {
      if (drawing === id) drawing = ''
    }
    try {
      // Who was just marked as unable to speak is not drawn.
      await stored()
      const name = await ask(
        api.POST('/api/lessons/{id}/draw', {
          params: { path: { id: lesson } },
          body: { id, manner: drawBy.value },
        }),
      )
      forget()
      said.value = `Drawn: ${nameOf(name.student)}, ${name.why}`
    } catch (failure) {
      wrong.value = (failure as Error).message
      if (failure instanceof Problem && failure.status !== 0) forget()
    }
  }
  const otherDraw = () => (drawBy.value = drawBy.value === 'leastHeard' ? 'onceRound' : 'leastHeard')

  return { drawBy, drawName, otherDraw }
}
