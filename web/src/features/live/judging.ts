import { computed, ref, type Ref } from 'vue'
import type { Schemas } from '../../api/client'
import type { LiveLesson } from '../../live/lesson'
import { count } from '../../ui/format'
import type { Telling } from './acting'
import type { Sheet } from './sheet'

/** The teacher's own judgement by the criteria of the class. While its panel is open, digits mark the chosen by the criterion that is on. */
export function useJudging(
  { head, note }: LiveLesson,
  { nameOf, running }: Sheet,
  chosen: Ref<string[]>,
  { said, wrong }: Telling,
) {
  const criteria = computed(() => head.value?.plan.criteria ?? [])
  const on = ref(0)
  const criterion = computed(() => criteria.value[on.value])

  /** The next criterion, or the one before; round and round. */
  function turnTo(by: 1 | -1) {
    on.value = (on.value + by + criteria.value.length) % Math.max(1, criteria.value.length)
  }

  function mark(level: Schemas['CriterionLevel']) {
    if (!running.value || !criterion.value) return
    if (!chosen.value.length) {
      wrong.value = 'Choose somebody first: a letter, then the digit.'
      return
    }
    const students = [...chosen.value]
    const marked = { type: 'criterionMarked' as const, criterion: criterion.value.id, level: level.id }
    note(...students.map((student) => ({ ...marked, student })))
    wrong.value = ''
    said.value = `${students.length > 3 ? count(students.length, 'student') : students.map(nameOf).join(', ')}, ${criterion.value.name}: ${level.name}`
    chosen.value = []
  }

  /** What a key does while the panel is open; false if it is not for it. */
  function onKey(event: KeyboardEvent, digit: number) {
    if (event.key === 'ArrowRight' || event.key === 'ArrowLeft')
      return (turnTo(event.key === 'ArrowRight' ? 1 : -1), true)
    const level = criterion.value?.levels[digit - 1]
    if (level) return (mark(level), true)
    // A digit without a level is not to be something else of those who are chosen; of the turn that is on it is what it was.
    return digit > 0 && chosen.value.length > 0
  }
  return { criteria, on, criterion, mark, onKey }
}
