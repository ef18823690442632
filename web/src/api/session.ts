import { ref } from 'vue'
import { api, ask, type Schemas } from './client'

/** Who is signed in; undefined until the server has said. */
export const session = ref<Schemas['Session']>()

/** Asks the server once; with the server away the answer stays unknown, and views say so themselves. */
export async function loadSession(): Promise<Schemas['Session'] | undefined> {
  if (!session.value) session.value = await ask(api.GET('/api/session')).catch(() => undefined)
  return session.value
}

/** Asks again after somebody signed in or out: the token against forgery belongs to the account. */
export async function renewSession() {
  session.value = undefined
  return loadSession()
}

/** The time zone of the school; all times on screen are in it. */
export const timeZone = () => session.value?.account?.timeZone ?? 'UTC'
