import createClient from 'openapi-fetch'
import type { components, paths } from './schema'

export type Schemas = components['schemas']

/** A schema with its defaults filled in, as the server sends it. */
export type Filled<T> = T extends (infer Item)[]
  ? Filled<Item>[]
  : T extends object
    ? { [Key in keyof T]-?: Filled<Exclude<T[Key], undefined>> }
    : T

/** What went wrong, in the server's words: what it was, where, and what to do. */
export class Problem extends Error {
  constructor(
    message: string,
    readonly status: number,
  ) {
    super(message)
  }
}

const unreachable = 'The server does not answer. Check that Polite Tally is running; what you tapped is kept here.'

/** The API, typed from its description. */
export const api = createClient<paths>({ baseUrl: '' })

const problemOf = (body: unknown, status: number) => {
  const detail = (body as { detail?: string } | undefined)?.detail
  if (detail) return new Problem(detail, status)
  if (status === 401) return new Problem('You are signed out. Sign in again; nothing is lost.', status)
  if (status === 404) return new Problem('This is not here, or it is not yours.', status)
  if (status === 429) return new Problem('That was too often. Wait a minute, then try again.', status)
  return new Problem('Something went wrong on the server; nothing was stored. Try again.', status)
}

/** The data of an answer; throws a Problem for anything else. */
export async function ask<T>(answer: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await answer.catch(() => {
    throw new Problem(unreachable, 0)
  })
  if (!response.ok) throw problemOf(error, response.status)
  return data as T
}

/** The largest file that the server reads, in bytes; a test of the server sees to it that both say the same. */
export const largestFile = 20_000_000
export const largestFileSaid = `${largestFile / 1e6} MB`

/** Sends a file with what was decided about it; to look at it, or to bring it in. */
export async function sendFile<T>(
  path: string,
  file: File,
  decided: Record<string, string>,
  signal?: AbortSignal,
): Promise<T> {
  if (file.size > largestFile)
    throw new Problem(
      `This file is larger than ${largestFileSaid}. Save only what is needed as CSV, and bring in that.`,
      413,
    )
  const form = new FormData()
  form.set('file', file)
  for (const [field, value] of Object.entries(decided)) form.set(field, value)
  const response = await fetch(path, { method: 'POST', body: form, signal }).catch(() => {
    throw new Problem(signal?.aborted ? 'Stopped. If it was in already, it stands among the files.' : unreachable, 0)
  })
  const body = await response.json().catch(() => undefined)
  if (!response.ok) throw problemOf(body, response.status)
  return body as T
}
