import type { Schemas } from '../api/client'
import type { View } from './drawn'

/**
 * The sheet as a patch leaves it. `old` if the sheet is past it already; `gap` if something was sent before it that this window has not had;
 * `unknown` if it names somebody of whom this window knows nothing yet.
 */
export function patched(seen: View, change: Schemas['LivePatch']): View | 'old' | 'gap' | 'unknown' {
  if (change.head.position < seen.head.position) return 'old'
  if (change.from > seen.head.position) return 'gap'
  const rows = new Map([...seen.rows, ...change.rows].map((r) => [r.id, r]))
  const order = change.order.map((id) => rows.get(id))
  return order.includes(undefined) ? 'unknown' : { head: change.head, rows: order as View['rows'] }
}
