/** What is asked for, as a part of an address; empty without anything asked. */
export function queryOf(asked: object) {
  const query = new URLSearchParams(
    Object.entries(asked).flatMap(([name, value]) => (value ? [[name, String(value)]] : [])),
  )
  return query.size ? `?${query}` : ''
}
