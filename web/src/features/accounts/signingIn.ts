import { ref } from 'vue'
import { api, ask, type Schemas } from '../../api/client'
import { renewSession } from '../../api/session'

/** Signing in, wherever that is done. `done` hears who it is now. */
export function useSigningIn(done: (session: Schemas['Session'] | undefined) => unknown) {
  const email = ref('')
  const password = ref('')
  const problem = ref<string>()
  const busy = ref(false)

  async function go(action: () => Promise<unknown>) {
    busy.value = true
    problem.value = undefined
    try {
      await action()
      await done(await renewSession())
    } catch (failure) {
      problem.value = (failure as Error).message
    } finally {
      busy.value = false
    }
  }
  const lookAround = () => go(() => ask(api.POST('/api/session/demo')))
  const signIn = () =>
    go(() => ask(api.POST('/api/session', { body: { email: email.value, password: password.value } })))

  return { email, password, problem, busy, go, lookAround, signIn }
}
