import { ref } from 'vue'
import { useLive } from '../../live/lesson'

export const contributions = [
  { contribution: 'contributed', label: 'contributed', key: '1' },
  { contribution: 'some', label: 'some', key: '2' },
  { contribution: 'not', label: 'not', key: '3' },
] as const
export type Contribution = (typeof contributions)[number]['contribution']

/** Sitting in with one group after the other, and what is marked there. */
export function useSitIn(marked: () => void) {
  const { drawn, note } = useLive()
  const sitting = ref<string>()
  // What was marked in this visit, and by which entry: pressing another mark strikes the first one out.
  const seen = ref<Record<string, { contribution: string; entry: string }>>({})
  function sitIn(group: string) {
    sitting.value = sitting.value === group ? undefined : group
    seen.value = {}
  }
  function mark(student: string, contribution: Contribution) {
    if (!sitting.value) return
    const before = seen.value[student]
    if (before && drawn.value?.entries.some((e) => e.state !== 'struck' && e.id === before.entry))
      note({ type: 'struck', entry: before.entry })
    const [entry] = note({ type: 'satIn', student, group: sitting.value, contribution })
    seen.value = { ...seen.value, [student]: { contribution, entry: entry! } }
    marked()
  }
  return { sitting, seen, sitIn, mark }
}
