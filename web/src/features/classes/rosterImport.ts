import { computed, ref } from 'vue'
import { sendFile, type Schemas } from '../../api/client'

export type Step = Schemas['RosterCompared']

export const rosterFields = [
  { name: 'number', label: 'student number' },
  { name: 'family', label: 'family name' },
  { name: 'given', label: 'given name' },
  { name: 'preferred', label: 'preferred name' },
  { name: 'name', label: 'whole name' },
  { name: 'email', label: 'e-mail address' },
  { name: 'secondEmail', label: 'second e-mail address' },
  { name: 'phone', label: 'telephone' },
  { name: 'tags', label: 'tags' },
] as const
export const fieldLabels: Record<string, string> = Object.fromEntries(rosterFields.map((f) => [f.name, f.label]))
const kinds = [
  { step: 'joins', head: 'Join', ticked: true },
  { step: 'returns', head: 'Come back', ticked: true },
  { step: 'changes', head: 'Change', ticked: true },
  { step: 'leaves', head: 'Not in this file', ticked: false },
] as const

export interface Part {
  step: string
  head: string
  steps: Step[]
}

/** A roster that is brought into a class: looked at, put right, and stored when the teacher says so. */
export function useRosterImport(id: string, className: () => string | undefined, brought: () => Promise<unknown>) {
  const file = ref<File>()
  const mapping = ref<Record<string, number>>()
  const headless = ref(false)
  const bundleClass = ref<string>()
  const look = ref<Schemas['RosterLook']>()
  const leaveOut = ref(false)
  const ticked = ref(new Set<string>())
  const problem = ref<string>()
  const busy = ref(false)
  const preview = computed(() => look.value?.file)
  const wrong = computed(() => preview.value?.rows.filter((l) => l.problems.length) ?? [])
  const parts = computed(() =>
    kinds
      .map((kind) => ({ ...kind, steps: look.value?.steps.filter((s) => s.step === kind.step) ?? [] }))
      .filter((kind) => kind.steps.length),
  )
  const staying = computed(() => look.value?.steps.filter((s) => s.step === 'stays').length ?? 0)
  const toDo = computed(() => look.value?.steps.filter((s) => ticked.value.has(s.key)).length ?? 0)
  const onlyJoining = computed(() =>
    parts.value.every((p) => p.step === 'joins' || !p.steps.some((s) => ticked.value.has(s.key))),
  )
  const chooses = computed(() => (preview.value?.classes.length ?? 0) > 1)
  const decided = () => {
    const fields: Record<string, string> = {}
    if (mapping.value) fields.mapping = JSON.stringify(mapping.value)
    if (headless.value) fields.headless = 'true'
    if (bundleClass.value) fields.bundleClass = bundleClass.value
    return fields
  }

  async function lookAt(): Promise<void> {
    busy.value = true
    problem.value = undefined
    try {
      look.value = await sendFile<Schemas['RosterLook']>(`/api/classes/${id}/roster/preview`, file.value!, decided())
      const { classes, chosenClass } = look.value.file
      const namesake = classes.find((c) => c.title.trim().toLowerCase() === className()?.toLowerCase())
      if (classes.length > 1 && !chosenClass && namesake) {
        bundleClass.value = namesake.id
        return await lookAt()
      }
      // Nobody leaves unless it is ticked: a file may be of half the class.
      const byItself = kinds.filter((k) => k.ticked).map((k) => k.step as string)
      ticked.value = new Set(look.value.steps.filter((s) => byItself.includes(s.step)).map((s) => s.key))
    } catch (failure) {
      look.value = undefined
      problem.value = (failure as Error).message
    } finally {
      busy.value = false
    }
  }

  async function bringIn() {
    busy.value = true
    problem.value = undefined
    try {
      await sendFile(`/api/classes/${id}/roster`, file.value!, {
        ...decided(),
        leaveOut: String(leaveOut.value),
        ticked: JSON.stringify([...ticked.value]),
      })
      await brought()
    } catch (failure) {
      problem.value = (failure as Error).message
    } finally {
      busy.value = false
    }
  }

  function begin(taken: File, withoutHeadings = false) {
    file.value = taken
    mapping.value = undefined
    bundleClass.value = undefined
    headless.value = withoutHeadings
    leaveOut.value = false
    return lookAt()
  }

  async function beginPasted(text: string) {
    const cells = new File([text], 'pasted cells', { type: 'text/plain' })
    await begin(cells)
    // Cells are often copied without their headings.
    if (problem.value || (preview.value && !preview.value.headingsKnown)) await begin(cells, true)
  }

  function remap(changed: Record<string, number>) {
    mapping.value = changed
    void lookAt()
  }

  function setHeadless(event: Event) {
    headless.value = !(event.target as HTMLInputElement).checked
    mapping.value = undefined
    void lookAt()
  }

  function tick(keys: string[], on: boolean) {
    const next = new Set(ticked.value)
    for (const key of keys) {
      if (on) next.add(key)
      else next.delete(key)
    }
    ticked.value = next
  }

  return {
    file,
    headless,
    bundleClass,
    leaveOut,
    ticked,
    problem,
    busy,
    preview,
    wrong,
    parts,
    staying,
    toDo,
    onlyJoining,
    chooses,
    lookAt,
    bringIn,
    begin,
    beginPasted,
    remap,
    setHeadless,
    tick,
  }
}
