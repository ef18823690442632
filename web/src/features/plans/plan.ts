import { useQueryClient } from '@tanstack/vue-query'
import { computed, onScopeDispose, ref, watch } from 'vue'
import { api, ask, Problem, type Filled, type Schemas } from '../../api/client'

export type Plan = Filled<Schemas['Plan']>
export type Question = Filled<Schemas['Question']>
export type View = Schemas['PlanView']

const copy = <T>(value: T) => JSON.parse(JSON.stringify(value)) as T
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b)
const pause = 500

/** What stands where, whatever it says. */
const shapeOf = (plan: Plan) =>
  [
    plan.stages,
    plan.points,
    plan.statements,
    plan.together,
    plan.apart,
    plan.questions,
    ...plan.questions.map((q) => q.options),
  ]
    .map((list) => list.map((item) => item.id).join())
    .join(';')

interface Kept {
  version: number
  origin: Plan
  plan: Plan
}

/**
 * The plan of a lesson in this window. It is stored by itself a moment after each change; until then it lies in the browser,
 * so that a closed tab or a server that is away loses nothing. If another window changed the plan meanwhile, the server brings
 * both changes together and says so.
 */
export function usePlan(lesson: string) {
  const queries = useQueryClient()
  const view = ref<View>()
  const plan = ref<Plan>()
  const problem = ref<string>()
  const storing = ref(false)
  const away = ref(false)
  const merged = ref(false)
  const conflicts = ref<Schemas['MergeConflict'][]>([])
  const past = ref<Plan[]>([])
  const params = { path: { id: lesson } }
  const key = `polite-tally-plan-${lesson}`
  let origin: Plan | undefined
  let before: Plan | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  let undoing = false

  function keep() {
    if (plan.value && origin && view.value && !same(plan.value, origin))
      localStorage.setItem(
        key,
        JSON.stringify({ version: view.value.version, origin, plan: plan.value } satisfies Kept),
      )
    else localStorage.removeItem(key)
  }

  function take(fresh: View, changedMeanwhile: Plan | undefined) {
    view.value = fresh
    origin = copy(fresh.plan as Plan)
    if (!changedMeanwhile) {
      before = copy(origin)
      plan.value = copy(origin)
    }
  }

  async function load() {
    try {
      const fresh = await ask(api.GET('/api/lessons/{id}/plan', { params }))
      take(fresh, undefined)
      const kept = localStorage.getItem(key)
      if (kept) {
        const unsent = JSON.parse(kept) as Kept
        plan.value = unsent.plan
        await send(unsent.version, unsent.origin, unsent.plan)
      }
    } catch (failure) {
      problem.value = (failure as Error).message
    }
  }

  async function send(version: number, from: Plan, wanted: Plan) {
    storing.value = true
    try {
      const stored = await ask(
        api.PUT('/api/lessons/{id}/plan', { params, body: { version, origin: from, plan: wanted } }),
      )
      problem.value = undefined
      away.value = false
      merged.value ||= stored.merged
      conflicts.value = [...conflicts.value, ...stored.conflicts]
      // Typed on while it was on its way: what is here is newer than what was sent.
      const newer = plan.value && !same(plan.value, wanted) ? copy(plan.value) : undefined
      if (stored.merged && newer) {
        // From what was sent, under the version that is past: so the server brings it together with the rest as well.
        return await send(version, wanted, newer)
      }
      if (stored.merged) past.value = [...past.value, copy(wanted)]
      take(stored.view, newer)
      keep()
      if (newer) schedule()
      void queries.invalidateQueries({
        predicate: (q) => ['desk', 'class', 'calendar'].includes(q.queryKey[0] as string),
      })
    } catch (failure) {
      problem.value = (failure as Error).message
      away.value = failure instanceof Problem && (failure.status === 0 || failure.status >= 500)
      if (away.value) schedule(3000)
    } finally {
      storing.value = false
    }
  }

  function schedule(wait = pause) {
    clearTimeout(timer)
    timer = setTimeout(() => {
      if (storing.value) schedule()
      else if (plan.value && origin && view.value && !same(plan.value, origin))
        void send(view.value.version, origin, copy(plan.value))
    }, wait)
  }

  watch(
    plan,
    (now) => {
      if (!now || !before || same(now, before)) return
      // One step back for whatever is added, moved or taken out; of writing one for each pause, not for each letter.
      if (!undoing && (same(before, origin) || shapeOf(before) !== shapeOf(now)))
        past.value = [...past.value, before].slice(-100)
      undoing = false
      before = copy(now)
      keep()
      schedule()
    },
    { deep: true },
  )

  const leaving = () => keep()
  window.addEventListener('pagehide', leaving)
  onScopeDispose(() => {
    window.removeEventListener('pagehide', leaving)
    clearTimeout(timer)
    if (plan.value && origin && view.value && !same(plan.value, origin) && !storing.value)
      void send(view.value.version, origin, copy(plan.value))
  })
  void load()

  return {
    view,
    plan,
    problem,
    merged,
    conflicts,
    canUndo: computed(() => past.value.length > 0),
    state: computed(() => {
      if (away.value) return 'no connection: kept here until there is one'
      if (problem.value) return 'not stored'
      return storing.value || (plan.value && origin && !same(plan.value, view.value?.plan)) ? 'in pencil' : 'all stored'
    }),
    undo() {
      const last = past.value.at(-1)
      if (!last) return
      past.value = past.value.slice(0, -1)
      undoing = true
      plan.value = copy(last)
    },
    /** Takes a plan that the server made: copied from another lesson, or from a file. */
    replaced(stored: Schemas['PlanStored']) {
      if (plan.value) past.value = [...past.value, copy(plan.value)]
      take(stored.view, undefined)
    },
    putAway: () => {
      merged.value = false
      conflicts.value = []
    },
    reload: load,
    /** Another window stored the plan: it is taken at once if nothing waits here; else the next storing brings both together. */
    async catchUp(version: number | undefined) {
      if (version === undefined || !view.value || version <= view.value.version || storing.value) return
      if (plan.value && origin && same(plan.value, origin)) await load()
    },
  }
}

export const newId = () => crypto.randomUUID()

export const kinds: readonly { kind: Question['kind']; label: string }[] = [
  { kind: 'singleChoice', label: 'single choice' },
  { kind: 'multipleChoice', label: 'multiple choice' },
  { kind: 'trueFalse', label: 'true or false' },
  { kind: 'scale', label: 'scale' },
  { kind: 'number', label: 'number' },
  { kind: 'shortText', label: 'short text' },
  { kind: 'ranking', label: 'ranking' },
  { kind: 'wordList', label: 'word list' },
  { kind: 'pictureChoice', label: 'picture choice' },
]

export const kindOf = (question: Pick<Question, 'kind'>) => kinds.find((k) => k.kind === question.kind)!.label

const option = (text = '') => ({ id: newId(), text, right: false, picture: null, alternativeText: '' })

const takesOptions: Question['kind'][] = ['singleChoice', 'multipleChoice', 'ranking', 'pictureChoice']

export const newQuestion = (kind: Question['kind']): Question => ({
  id: newId(),
  kind,
  text: '',
  purpose: 'poll',
  options:
    kind === 'trueFalse' ? [option('true'), option('false')] : takesOptions.includes(kind) ? [option(), option()] : [],
  anonymous: false,
  countsTakingPart: false,
  audience: 'wholeClass',
  allOrNothing: false,
  target: null,
  tolerance: 0,
  scaleFrom: 1,
  scaleTo: 5,
  scaleFromLabel: '',
  scaleToLabel: '',
  acceptedAnswers: [],
  wordsEach: 3,
  timeLimitSeconds: null,
})

export const newOption = option

/** The same question under ids of its own, for use in another place. */
export const copyOf = (question: Question): Question => ({
  ...copy(question),
  id: newId(),
  options: question.options.map((o) => ({ ...o, id: newId() })),
})
