import type { Closed, DoorReading, DoorService, Kept, PartReading, Problem } from '@acolhida/core/contract'
import { travelZoneAt } from '@acolhida/core/practice'
import { type Answers, type AnswerValue, addressOf, type Sealed } from '@acolhida/core/questions'
import type { LineWishes } from '@acolhida/core/waiting'
import { say } from '../parts/say.ts'
import type { TypedPerson } from './contact.ts'

/** What a client has filled in so far, for one service. Kept in this browser until it has been sent. */
export interface Filling {
  answers: Answers
  /** What was added, by id. */
  extras?: string[]
  place?: string
  /** Where to come, at the client's: the travel zone, and the address. */
  travel?: string
  address?: string
  /** A price code that has been accepted. */
  code?: string
  person: TypedPerson
  /** When one could come, where one waits for a time. */
  wishes?: LineWishes
  /** The terms agreed to, by their fingerprints and the language they were read in. */
  agreed: string[]
  /** What the relay made of the wish; gone as soon as something changes that it rests on. */
  read?: DoorReading
  /** The start that is kept, with everything as it is shown. */
  kept?: Kept
  /** Private answers as they have been sealed, with what they were sealed from. */
  sealed?: Record<string, { print: string; value: Sealed }>
  /** The part of the questions one is at. */
  part?: number
  /** A no at the end of a part. */
  closed?: Closed
  /** What rules have shown so far, once each. */
  tells?: string[]
  /** Questions answered an earlier time, by id: they are shown, and not asked again. */
  known?: string[]
  /** Why one has been led back, and to which question. */
  note?: string
  look?: string
  /** Names one sending, so that trying again does not ask twice. */
  sendKey: string
}

export const emptyFilling = (sendKey: string): Filling => ({
  answers: {},
  person: { name: '', email: '', phone: '' },
  agreed: [],
  sendKey,
})

/** How far somebody has come: a wish; it has been read and goes on; a start is kept for it. */
export type Stage = 'wish' | 'read' | 'kept'

export const stageOf = ({ read, kept }: Filling): Stage => (!read?.open ? 'wish' : kept ? 'kept' : 'read')

/** Something that happens to a filling. */
export type Happening =
  | { is: 'answered'; service: DoorService; question: string; value: AnswerValue | undefined }
  | { is: 'added'; extras: string[] }
  /** Answers of an earlier time, where nothing has been begun here yet. */
  | { is: 'brought'; answers: Answers }
  | { is: 'placed'; place: string }
  | { is: 'travels'; travel: string | undefined }
  | { is: 'addressed'; address: string }
  | { is: 'wished'; wishes: LineWishes }
  | { is: 'person'; person: Partial<Filling['person']> }
  | { is: 'agreed'; text: string; yes: boolean }
  | { is: 'turned'; part: number }
  /** What is decided at the end of a part. */
  | { is: 'parted'; said: PartReading }
  /** To the part of the question that one has been led back to. */
  | { is: 'led'; part: number }
  /** Looked at once more, as it is. */
  | { is: 'reconsidered'; question?: string | undefined }
  /** What was answered an earlier time is asked like anything else. */
  | { is: 'asked-anew' }
  | { is: 'read'; read: DoorReading }
  | { is: 'kept'; kept: Kept }
  | { is: 'renewed'; more: Pick<Kept, 'until' | 'renewable'> }
  | { is: 'coded'; code: string | undefined; read: DoorReading | undefined; kept: Kept | undefined }
  | { is: 'sealed'; sealed: NonNullable<Filling['sealed']> }
  /** The relay does not take it: `key` names the next sending. */
  | { is: 'refused'; problem: Problem; key: string }

type Optional = 'read' | 'kept' | 'note' | 'look' | 'closed' | 'known' | 'code' | 'travel' | 'address'

/** Without some of its parts. */
function less(filling: Filling, ...keys: Optional[]): Filling {
  const rest = { ...filling }
  for (const key of keys) delete rest[key]
  return rest
}

/** Back to the wish: what was made of it holds no longer. */
const wishOf = (filling: Filling): Filling => less(filling, 'read', 'kept', 'note', 'look', 'closed')
/** Back to what was read: the start holds no longer. */
const readOf = (filling: Filling): Filling => less(filling, 'kept', 'note', 'look')

/** What an answered address says of where to come, where the question is for that. */
function fromAddress(
  service: DoorService,
  question: string,
  value: AnswerValue | undefined,
): Pick<Filling, 'travel' | 'address'> | undefined {
  const of = service.questionnaire?.questions.find((other) => other.id === question)
  if (of?.kind !== 'address' || !of.travel) return undefined
  if (typeof value !== 'string') return {}
  const { street, postalCode, town } = addressOf(value)
  const zones = service.places.flatMap((place) => place.travel ?? [])
  const zone = travelZoneAt(zones, postalCode)
  return {
    ...(zone ? { travel: zone.id } : {}),
    ...(street || town ? { address: `${street}, ${postalCode} ${town}` } : {}),
  }
}

/**
 * A filling after one more happening. Every happening leads back to the furthest stage that still holds, and no
 * further; what was typed stays.
 */
export function afterHappening(filling: Filling, happening: Happening): Filling {
  switch (happening.is) {
    case 'answered': {
      const { service, question, value } = happening
      const { [question]: _, ...others } = filling.answers
      const answers = value === undefined ? others : { ...others, [question]: value }
      const there = fromAddress(service, question, value)
      const wish = wishOf(filling)
      // A corrected address is where to come from now on, whatever was said before.
      const base = there ? less(wish, 'travel', 'address') : wish
      return { ...base, answers, ...there }
    }
    case 'added':
      return { ...wishOf(filling), extras: happening.extras }
    case 'brought':
      if (Object.keys(filling.answers).length > 0) return filling
      return {
        ...wishOf(filling),
        answers: happening.answers,
        known: Object.keys(happening.answers),
      }
    case 'placed':
      return { ...readOf(filling), place: happening.place }
    case 'travels': {
      const { travel } = happening
      const rest = less(readOf(filling), 'travel')
      return travel === undefined ? rest : { ...rest, travel }
    }
    case 'addressed':
      return { ...filling, address: happening.address }
    case 'wished':
      return { ...filling, wishes: happening.wishes }
    case 'person':
      return { ...filling, person: { ...filling.person, ...happening.person } }
    case 'agreed': {
      const { text, yes } = happening
      const others = filling.agreed.filter((other) => other !== text)
      return { ...filling, agreed: yes ? [...others, text] : others }
    }
    case 'turned':
      return { ...less(filling, 'look', 'note'), part: happening.part }
    case 'led':
      return { ...filling, part: happening.part }
    case 'parted': {
      const { closed, tells } = happening.said
      return { ...wishOf(filling), tells, ...(closed ? { closed } : {}) }
    }
    case 'reconsidered': {
      const { question } = happening
      return { ...wishOf(filling), ...(question === undefined ? {} : { look: question }) }
    }
    case 'asked-anew':
      return { ...wishOf(filling), known: [], part: 0 }
    case 'read':
      return { ...wishOf(filling), read: happening.read }
    case 'kept':
      return { ...readOf(filling), place: happening.kept.place, kept: happening.kept }
    case 'renewed':
      return filling.kept ? { ...filling, kept: { ...filling.kept, ...happening.more } } : filling
    case 'coded': {
      const { code, read, kept } = happening
      const rest = less(filling, 'code', 'read', 'kept')
      return {
        ...rest,
        ...(code === undefined ? {} : { code }),
        ...(read ? { read } : {}),
        ...(kept ? { kept } : {}),
      }
    }
    case 'sealed':
      return { ...filling, sealed: happening.sealed }
    case 'refused':
      return afterRefusal({ ...filling, sendKey: happening.key }, happening.problem)
  }
}

/** Where a refusal leads back to, with a word about it. */
function afterRefusal(filling: Filling, { code, message, problems = [] }: Problem): Filling {
  switch (code) {
    case 'answers': {
      const [first] = problems
      // What has been answered an earlier time, and is missing now, is asked like anything else.
      return {
        ...less(wishOf(filling), 'known'),
        note: say('questions.new'),
        ...(first ? { look: first.question } : {}),
      }
    }
    case 'closed':
    case 'enquiry-instead':
      return wishOf(filling)
    case 'not-open':
    case 'not-kept':
    case 'unknown-place':
    case 'travel':
      return { ...readOf(filling), note: message }
    case 'code':
      return { ...less(readOf(filling), 'code'), note: message }
    default:
      return { ...filling, note: message }
  }
}
