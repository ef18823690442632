/** What came of asking: a status of 0 is no connection. */
export interface Called<T> {
  status: number
  data?: T | undefined
  detail: string
}

/** Asks for something of a lesson's student page, or sends it something. */
export async function callPage<T>(code: string, path: string, body?: unknown): Promise<Called<T>> {
  const response = await fetch(`/api/page/${encodeURIComponent(code)}${path}`, {
    method: body === undefined ? 'GET' : 'POST',
    headers: body === undefined ? {} : { 'Content-Type': 'application/json' },
    body: body === undefined ? undefined : JSON.stringify(body),
  }).catch(() => undefined)
  if (!response) return { status: 0, detail: 'No connection. It goes on by itself.' }
  const json = (await response.json().catch(() => undefined)) as (T & { detail?: string }) | undefined
  return { status: response.status, data: response.ok ? json : undefined, detail: json?.detail ?? '' }
}
