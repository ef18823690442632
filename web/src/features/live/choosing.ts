import { computed, ref, type Ref } from 'vue'

interface Choosable {
  id: string
  key: string
  whereabouts: string
}

export const isHere = (row: { whereabouts: string }) => row.whereabouts === 'here' || row.whereabouts === 'late'

/** The students that the next act is for. */
export function useChoosing(rows: Ref<readonly Choosable[]>) {
  const chosen = ref<string[]>([])
  const chosenSet = computed(() => new Set(chosen.value))
  const withLetter = (letter: string) => rows.value.filter((r) => r.key === letter).map((r) => r.id)

  /** By their letter. Students who share one take turns on it: pressing again moves on to the next. With `more` it is added to the others or taken out. */
  function pick(letter: string, more: boolean) {
    const sharing = withLetter(letter)
    if (!sharing.length) return
    if (more) {
      const inList = sharing.find((s) => chosenSet.value.has(s))
      chosen.value = inList ? chosen.value.filter((s) => s !== inList) : [...chosen.value, sharing[0]!]
      return
    }
    const at = chosen.value.length === 1 ? sharing.indexOf(chosen.value[0]!) : -1
    chosen.value = [sharing[(at + 1) % sharing.length]!]
  }

  /** By a press on their name: once more puts them back. */
  function toggle(student: string, more: boolean) {
    const had = chosenSet.value.has(student)
    if (more) chosen.value = had ? chosen.value.filter((s) => s !== student) : [...chosen.value, student]
    else chosen.value = had && chosen.value.length === 1 ? [] : [student]
  }

  /** The next row down or up, round and round. */
  function move(step: number) {
    const many = rows.value.length
    const at = rows.value.findIndex((r) => r.id === chosen.value[0])
    const next = rows.value[at < 0 ? (step > 0 ? 0 : many - 1) : (at + step + many) % many]
    if (next) chosen.value = [next.id]
  }

  /** Everyone who is here; once more, everyone. */
  function chooseAll() {
    const present = rows.value.filter(isHere).map((r) => r.id)
    const again =
      present.length === 0 || (chosen.value.length === present.length && present.every((s) => chosenSet.value.has(s)))
    chosen.value = again ? rows.value.map((r) => r.id) : present
  }

  return { chosen, chosenSet, withLetter, pick, toggle, move, chooseAll }
}
