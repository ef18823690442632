import type { Schemas } from '../../api/client'

export type Message = Schemas['ChatLine']
export type Kind = Schemas['ChatKind']
export const kinds: { kind: Kind; label: string; key: string }[] = [
  { kind: 'question', label: 'question', key: '1' },
  { kind: 'answer', label: 'answer', key: '2' },
  { kind: 'idea', label: 'idea', key: '3' },
  { kind: 'social', label: 'social', key: '4' },
  { kind: 'offTask', label: 'off task', key: '5' },
]
export const labelOf = (kind: Kind) => kinds.find((k) => k.kind === kind)?.label ?? 'unsorted'

/** Whether a message still waits to be swept. */
export const waits = (m: Message) => !m.sorted && !m.repeat
/** Whether it is a question that nobody has dealt with. */
export const isOpen = (m: Message) => m.kind === 'question' && !m.dealtWith && !m.repeat
