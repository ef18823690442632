import { computed, ref, type Ref } from 'vue'
import { api, ask, sendFile, type Schemas } from '../../api/client'
import { count, minutes, shortDay } from '../../ui/format'
import { inTurn } from '../../ui/inTurn'
import type { Example } from './marks'

type Look = Schemas['FileLook']
type View = Schemas['SettlingView']
type Kind = Schemas['FileKind']

/** What a kind of file is called. */
export const kinds: Record<Kind, string> = {
  attendance: 'attendance list',
  chat: 'saved chat',
  captions: 'captions',
  answers: 'answers',
  people: 'list of people',
}

/** What is counted in a file of a kind. */
const rowsOf: Record<Kind, [string, string]> = {
  attendance: ['row', 'rows'],
  chat: ['message', 'messages'],
  captions: ['stretch of speech', 'stretches of speech'],
  answers: ['row', 'rows'],
  people: ['name', 'names'],
}

/** "31 rows", "28 messages". */
export const rowsIn = (kind: Kind, rows: number) => count(rows, ...rowsOf[kind])

/** What is said of a question in a table of answers. */
export interface QuestionChoice {
  place: number
  /** The question of the lesson or of its plan that it is; null for one of its own. */
  as: string | null
  leave: boolean
  right: string[]
  byPoints: boolean
}

/** What was decided about a file that is being looked at. */
export interface Decided {
  kind?: Kind
  mapping?: Record<string, number>
  zone?: string
  leaveOut?: boolean
  sure?: boolean
  questions?: QuestionChoice[]
  /** When a list of people was seen. */
  at?: number
  picture?: boolean
  /** What was marked in one of its lines. */
  marks?: Example
  /** Whether what the class knows of its layout is left out of account. */
  anew?: boolean
}

/** A file that was dropped and is not brought in yet. */
export interface Dropped {
  file: File
  decided: Decided
  look?: Look
  problem?: string
  busy: boolean
  /** How far a picture is read, or a file stored, from 0 to 1, while that is known. */
  progress?: number
  /** How many large files of others are read before this one, while it waits for its turn. */
  before?: number
  /** The files in a mail or an archive, while it is asked whether they are of this lesson. */
  inside?: File[]
  /** The other lesson that a mail seems to be about. */
  fits?: Schemas['MailLesson']
  /** Whether something was decided about it here. */
  isDecided?: boolean
  /** Whether it was a picture and is the text of it now. */
  isRead?: boolean
  /** Whether it is in, and stays here to say how it was read. */
  isIn?: boolean
  stop: AbortController
}

/** Whether something has to be said before it can be brought in. */
export const asksSomething = ({ look, decided }: Dropped) =>
  !look?.kind ||
  look.problems.length > 0 ||
  look.unclear.length > 0 ||
  (look.doubts.length > 0 && !decided.sure) ||
  (look.wrongRows > 0 && !decided.leaveOut)

/** Whether the same file is in already. What was decided about it here may be another reading of it. */
export const isKnown = (one: Dropped) => one.look?.broughtInBefore && !one.isDecided && !asksSomething(one)

const formOf = ({ kind, mapping, zone, leaveOut, sure, questions, at, picture, marks, anew }: Decided) => {
  const form: Record<string, string> = { leaveOut: String(leaveOut ?? false), sure: String(sure ?? false) }
  if (kind) form.kind = JSON.stringify(kind)
  if (mapping) form.mapping = JSON.stringify(mapping)
  if (zone) form.zone = zone
  if (at) form.at = JSON.stringify(at)
  if (picture) form.picture = 'true'
  if (anew) form.anew = 'true'
  if (marks) form.marks = JSON.stringify(marks)
  if (questions) form.questions = JSON.stringify(questions)
  return form
}

/** A mail or an archive: what is in it is brought in, not the thing itself. */
const holdsFiles = ({ name, type }: File) =>
  /\.(eml|zip)$/i.test(name) || /^(message\/rfc822|application\/(x-)?zip)/.test(type)

const isPicture = ({ type, name }: File) => type.startsWith('image/') || /\.(png|jpe?g|webp|gif|bmp)$/i.test(name)

/** The files dropped on a lesson; names are those of its class. What asks nothing is brought in at once, one after the other; the others wait for an answer. */
export function useFiles(
  lesson: string,
  span: { from: number; to: number },
  names: () => string[],
  taken: (view: View) => void,
) {
  const dropped: Ref<Dropped[]> = ref([])
  const next = inTurn()

  async function attempt(one: Dropped, action: () => Promise<void>) {
    one.busy = true
    one.problem = undefined
    one.stop = new AbortController()
    // One after the other, so that what the first says of names is known to the next.
    await next(action).catch((failure: unknown) => (one.problem = (failure as Error).message))
    one.busy = false
  }

  const look = (one: Dropped) =>
    attempt(one, async () => {
      if (!one.isRead && isPicture(one.file)) await read(one)
      one.look = await whileWatched(one, () =>
        sendFile<Look>(`/api/lessons/${lesson}/files/look`, one.file, formOf(one.decided), one.stop.signal),
      )
      if (!asksSomething(one) && !isKnown(one)) await store(one)
    })

  /** A picture is read here; what is sent is the text in it. */
  async function read(one: Dropped) {
    const { linesIn } = await import('./picture')
    const text = await linesIn(one.file, names(), (share) => (one.progress = share), one.stop.signal)
    one.progress = undefined
    if (!/\p{L}/u.test(text)) throw new Error('No text is found in this picture. Take it larger, or paste the names.')
    one.decided = { ...one.decided, kind: 'people', picture: true, at: one.decided.at ?? momentOf(one.file) }
    one.file = new File([text], one.file.name, { type: 'text/plain' })
    one.isRead = true
  }

  // A picture taken during the lesson is of the moment when it was taken.
  function momentOf(file: File) {
    return file.lastModified >= span.from && file.lastModified <= span.to ? file.lastModified : undefined
  }

  async function store(one: Dropped) {
    taken(
      await whileWatched(one, () =>
        sendFile<View>(`/api/lessons/${lesson}/files`, one.file, formOf(one.decided), one.stop.signal),
      ),
    )
    if (one.look?.like) one.isIn = true
    else leave(one)
  }

  async function whileWatched<T>(one: Dropped, sending: () => Promise<T>) {
    // Only a large one is not there before the first look.
    const looking = setInterval(() => void howFar(one), 700)
    try {
      return await sending()
    } finally {
      clearInterval(looking)
      one.progress = one.before = undefined
    }
  }

  async function howFar(one: Dropped) {
    const path = { id: lesson }
    // Where nobody answers, the file itself says so.
    const all = await ask(api.GET('/api/lessons/{id}/files/coming', { params: { path } })).catch(() => [])
    const coming = all.find((file) => file.name === one.file.name)
    one.before = coming?.before || undefined
    if (coming?.of) one.progress = coming.stored / coming.of
  }

  function leave(one: Dropped) {
    dropped.value = dropped.value.filter((d) => d !== one)
  }

  function take(file: File) {
    dropped.value.push({ file, decided: {}, busy: true, stop: new AbortController() })
    const one = dropped.value.at(-1)!
    void (holdsFiles(file) ? open(one) : look(one))
  }

  const open = (one: Dropped) =>
    attempt(one, async () => {
      const path = `/api/lessons/${lesson}/files/open`
      const { files, fits } = await sendFile<Schemas['OpenedMail']>(path, one.file, {}, one.stop.signal)
      one.inside = files.map(
        ({ name, content }) => new File([Uint8Array.from(atob(content), (letter) => letter.charCodeAt(0))], name),
      )
      one.fits = fits ?? undefined
      if (!fits) takeOut(one)
    })

  /** The files in a mail stand in its place. */
  function takeOut(one: Dropped) {
    leave(one)
    one.inside?.forEach(take)
  }

  function decide(one: Dropped, more: Decided) {
    one.isDecided = true
    one.isIn = false
    one.decided = { ...one.decided, ...more }
    void look(one)
  }

  return {
    dropped,
    take,
    takeOut,
    decide,
    leave,
    waiting: computed(() =>
      dropped.value
        .filter((d) => !d.isIn)
        .map((d) => d.file.name)
        .join(', '),
    ),
  }
}

/** "“chat.txt” of 30 Nov": the file like which another is read. */
export const likeWhat = ({ fileName, notedAt }: Schemas['KnownLayoutLine']) => `“${fileName}” of ${shortDay(notedAt)}`

/** How far a clock is off, in words: "40 s", "2 min 5 s". */
export function lengthOf(seconds: number) {
  const [whole, rest] = [Math.floor(seconds / 60), Math.round(seconds % 60)]
  return whole >= 10
    ? minutes(seconds * 1000)
    : [whole ? `${whole} min` : '', rest || !whole ? `${rest} s` : ''].filter(Boolean).join(' ')
}

const acts: Record<NonNullable<Schemas['TraceKind']>, string> = {
  join: 'join',
  leave: 'leave',
  message: 'message',
  speech: 'turn',
  turnEnd: 'turn',
  length: 'length',
  answer: 'answer',
}

/** How the clock of a file goes, and how that is known. */
export function clockOf(file: Schemas['FileIn']) {
  const off = file.aheadSeconds
  const goes = off ? `clock ${lengthOf(Math.abs(off))} ${off > 0 ? 'ahead' : 'behind'}` : 'clock right'
  if (file.clockByHand) return `${goes}, set by you`
  if (!file.clockBy && file.clockPairs) return 'clock taken as right: other files go by this one'
  return file.clockBy
    ? `${goes}, by ${count(file.clockPairs, acts[file.clockBy])}`
    : 'clock taken as right: nothing to compare it with'
}
