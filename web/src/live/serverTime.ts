/** How far two clocks drift apart at most, in milliseconds a millisecond: a bad quartz. */
const drift = 0.0002
/** Further apart than this, one of the clocks was set. */
const wasSet = 60_000

/**
 * The server's clock, as this window sees it. What the server says is old by the time it has come, by a delay that nobody knows; so the answer
 * that came quickest is believed, and others only as far as the clocks may have drifted since. The times of what is noted never run backwards.
 */
export class ServerTime {
  private ahead = 0
  private known = false
  private at = 0
  private last = 0

  constructor(private readonly here = () => Date.now()) {}

  /** The server said what time it is. */
  heard(server: number) {
    const here = this.here()
    const seen = server - here
    const least = this.ahead - (here - this.at) * drift
    this.ahead = !this.known || Math.abs(seen - this.ahead) > wasSet ? seen : Math.max(seen, least)
    this.known = true
    this.at = here
  }

  /** The time by the server's clock. */
  now = () => this.here() + this.ahead

  /** The time of something that is noted now: not before that of what this window noted before, unless a clock was set back meanwhile. */
  note() {
    const now = this.now()
    this.last = this.last - now > wasSet ? now : Math.max(now, this.last)
    return this.last
  }
}
