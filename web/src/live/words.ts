import type { Act } from './outbox'

type Kind = NonNullable<Act['type']>

/** Kinds that come from the meeting, from student pages, from settling or from the server, and are never noted in a window of the teacher. */
type FromElsewhere =
  | 'lessonSettled'
  | 'statusDeclared'
  | 'awayJudged'
  | 'connectionJudged'
  | 'joined'
  | 'left'
  | 'seen'
  | 'attended'
  | 'renamed'
  | 'nameRaisedHand'
  | 'nameLoweredHand'
  | 'nameWrote'
  | 'nameSpoke'
  | 'nameReacted'
  | 'nameOnline'
  | 'ballotsCounted'
  | 'signalGiven'
  | 'studentWrote'
  | 'pageOpened'
  | 'pageClosed'
  | 'pageKnocked'
  | 'fileBroughtIn'
  | 'clockSet'
  | 'questionFromFile'
  | 'nameAnswered'
  | 'actsCompared'
  | 'scoreCorrected'
  | 'scoredAnew'

const items: Record<string, string> = { handLine: 'hand line', wayIn: 'way in' }

/** A kind of act that is missing here does not compile: give it its words, or say that it comes from elsewhere. */
const words: { [K in Exclude<Kind, FromElsewhere>]: (act: Extract<Act, { type?: K }>) => string } = {
  lessonStarted: () => 'lesson started',
  lessonEnded: () => 'lesson ended',
  struck: () => 'an entry struck out',
  marked: (act) => act.mark,
  sentOut: () => 'sent out',
  letBackIn: () => 'let back in',
  excuseRecorded: (act) => `excused: ${act.reason}`,
  handRaised: (act) => (act.ready ? 'said ready' : 'hand up'),
  handEnded: (act) => (act.end === 'setDown' ? 'hand set down' : 'hand withdrawn'),
  called: (act) => (act.origin === 'handedOn' ? 'called, handed on' : 'called'),
  turnTaken: (act) =>
    ({ full: 'full turn', partial: 'partial turn', pass: 'pass', couldNot: 'could not' })[act.outcome]!,
  chatSaid: (act) => `${act.kind} in the chat`,
  reminderTicked: (act) => `${act.readAloud ? 'read aloud' : 'reminder seen to'}: ${act.reminder}`,
  criterionMarked: () => 'a criterion marked',
  nodGiven: (act) => `nod, ${act.reason}`,
  nodsShown: () => 'nods shown to the class',
  rollCallTaken: (act) => `roll call, ${act.here.length} here`,
  pointCovered: () => 'covered a point',
  speakingPaused: (act) => (act.paused ? 'cannot speak today' : 'can speak again'),
  signalRoundHeld: (act) =>
    `signal round, ${act.answered.length} of ${act.answered.length + act.silent.length}: ${act.statement}`,
  chatSorted: (act) => `a message sorted: ${act.kind === 'offTask' ? 'off task' : act.kind}`,
  chatHidden: () => 'a message hidden',
  chatDealtWith: () => 'a question in the chat answered',
  asideNoted: (act) => `aside: ${act.text}`,
  contactTried: () => 'tried to reach',
  stageMoved: () => 'next stage',
  stageExtended: (act) => `stage ${act.minutes < 0 ? 'shortened' : 'extended'} by ${Math.abs(act.minutes)} min`,
  timerStarted: (act) =>
    `timer${act.group ? ' of a group' : ''}, ${Math.floor(act.seconds / 60)}:${String(act.seconds % 60).padStart(2, '0')}`,
  timerStopped: (act) => (act.group ? 'timer of a group ended' : 'timer ended'),
  groupsMade: (act) => `${act.groups.length} groups made`,
  groupJoined: (act) => (act.group ? 'to another group' : 'taken out of the groups'),
  groupRenamed: (act) => `group renamed: ${act.name}`,
  groupsDissolved: () => 'groups dissolved',
  satIn: (act) => `in a group: ${act.contribution === 'not' ? 'did not contribute' : act.contribution}`,
  questionOpened: (act) => `question opened: ${act.question.text}`,
  questionClosed: () => 'question closed',
  answerGiven: () => 'answered',
  cannotAnswer: () => 'cannot answer a question',
  answersMarked: (act) => `${act.students.length} marked, ${act.marks}`,
  keyCorrected: () => 'key of a question corrected',
  wordsMerged: (act) => `“${act.word}” counts as “${act.into}”`,
  rightRevealed: () => 'what was right shown on student pages',
  resultsPut: () => 'results on the board',
  messageShown: (act) => `a message shown to the class${act.withoutName ? ' without a name' : ''}`,
  pageAdmitted: (act) => (act.student ? 'let in to the student page' : 'turned away from the student page'),
  boardPut: (act) => `on the board: ${items[act.item] ?? act.item}`,
  boardTaken: (act) => `off the board: ${items[act.item] ?? act.item}`,
  nameMatched: (act) => (act.student ? `“${act.name}” matched` : `“${act.name}” is not a student`),
  askedLater: (act) => `“${act.name}” will be asked later`,
}

/** An act in words, for as long as only this browser knows of it. */
export const wordsOf = (act: Act) =>
  (words[act.type as keyof typeof words] as ((act: Act) => string) | undefined)?.(act) ?? 'an entry'
