import type { Schemas } from '../api/client'

/** An answer without a name: the tab keeps what it is until its question is closed, and that it was taken. */
export interface Ballot {
  id: string
  answer?: Schemas['PageAct']['answer']
  taken?: boolean
}

// The id of an anonymous answer is all that can change it. The server keeps such answers in memory until their question closes, so this tab keeps
// them, too, and sends them again if the server had to start anew.
const place = (asking: string) => `polite-tally-ballot-${asking}`

export const ballotOf = (asking: string) => JSON.parse(sessionStorage.getItem(place(asking)) ?? 'null') as Ballot | null

export const keepBallot = (asking: string, ballot: Ballot) =>
  sessionStorage.setItem(place(asking), JSON.stringify(ballot))
