import type { Rules } from '../ground-rules/rules'

/** The kind of file a scheme is kept in, and the newest version of that kind that this program reads; docs/scheme.schema.json describes it. */
const format = 'polite-tally-scheme'
const version = 1

type Scheme = Rules['scheme']

/** A scheme as it is written to a file. */
export const written = (scheme: Scheme) => JSON.stringify({ format, version, scheme }, null, 2)

/** Saves a scheme as a file. */
export function asFile(scheme: Scheme, name: string) {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(new Blob([written(scheme)], { type: 'application/json' }))
  link.download = `scheme-${name.toLowerCase().replace(/[^\p{L}\p{N}]+/gu, '-')}.json`
  link.click()
  URL.revokeObjectURL(link.href)
}

/**
 * The scheme in a file. What the file says nothing of stays as it is; of what it says, every part has to be of the kind that a scheme has.
 * @throws with what is wrong and where.
 */
export function fromFile(text: string, now: Scheme): Scheme {
  let read: unknown
  try {
    read = JSON.parse(text)
  } catch {
    throw new Error('This file is not JSON. Choose one that was saved here as a scheme.')
  }
  const file = read as { format?: unknown; version?: unknown; scheme?: unknown }
  if (
    typeof file !== 'object' ||
    file === null ||
    file.format !== format ||
    typeof file.scheme !== 'object' ||
    !file.scheme
  )
    throw new Error('This file holds no scheme. Choose one that was saved here as a scheme.')
  if (typeof file.version !== 'number' || file.version > version)
    throw new Error(
      `This scheme is of version ${String(file.version)}, and this program reads up to version ${version}. Save it anew where it comes from, or use a newer program.`,
    )
  return merged(now, file.scheme as Record<string, unknown>, 'scheme') as Scheme
}

function merged(now: unknown, told: unknown, where: string): unknown {
  if (Array.isArray(now)) {
    if (!Array.isArray(told)) throw new Error(`In the file ${where} is no list.`)
    return told
  }
  if (typeof now !== 'object' || now === null) {
    if (typeof told !== typeof now) throw new Error(`In the file ${where} is no ${typeof now}.`)
    return told
  }
  if (typeof told !== 'object' || told === null || Array.isArray(told))
    throw new Error(`In the file ${where} has no parts.`)
  const all: Record<string, unknown> = { ...now }
  for (const [name, value] of Object.entries(told)) {
    if (!(name in now)) throw new Error(`In the file ${where} has a part “${name}” that no scheme has.`)
    all[name] = merged((now as Record<string, unknown>)[name], value, `${where}.${name}`)
  }
  return all
}
