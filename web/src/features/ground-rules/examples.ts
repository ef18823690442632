import { watchDebounced } from '@vueuse/core'
import { ref, type Ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import type { Rules } from './rules'

const quiet = 200

/** What rules come to, in examples that the server reckons while they are changed; or what is wrong with them. */
export function useExamples(rules: Ref<Rules>, first: readonly Schemas['RuleExample'][]) {
  const byRule = (list: readonly Schemas['RuleExample'][]): Record<string, string> =>
    Object.fromEntries(list.map((e) => [e.rule, e.text]))
  const examples = ref(byRule(first))
  const problem = ref<string>()
  let asked = 0

  watchDebounced(
    rules,
    async () => {
      const mine = ++asked
      try {
        const tried = await ask(api.POST('/api/rules/examples', { body: { why: '', rules: rules.value } }))
        if (mine !== asked) return
        examples.value = byRule(tried.examples)
        problem.value = undefined
      } catch (failure) {
        if (mine === asked) problem.value = (failure as Error).message
      }
    },
    { deep: true, debounce: quiet },
  )
  return { examples, problem }
}
