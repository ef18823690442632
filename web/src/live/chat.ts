import type { Schemas } from '../api/client'
import type { Noted } from './outbox'

/** The chat with this browser's own words on it. */
export function drawChat(messages: readonly Schemas['ChatLine'][], noted: readonly Noted[]): Schemas['ChatLine'][] {
  const drawn = messages.map((m) => ({ ...m }))
  const gone = new Set<string>()
  for (const { act, refused } of noted) {
    if (refused) continue
    const message = 'message' in act ? drawn.find((m) => m.entry === act.message) : undefined
    if (!message) continue
    if (act.type === 'chatSorted') Object.assign(message, { kind: act.kind, sorted: true })
    if (act.type === 'chatDealtWith') message.dealtWith = true
    if (act.type === 'messageShown') message.shown = message.entry
    if (act.type === 'chatHidden') gone.add(message.entry)
  }
  return drawn.filter((m) => !gone.has(m.entry))
}
