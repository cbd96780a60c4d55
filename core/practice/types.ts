import type { Minor } from '../money/index.ts'
import type { Question, Questionnaire } from '../questions/types.ts'
import type { Terms } from '../terms/types.ts'
import type {
  Duration,
  Instant,
  Language,
  LocalDate,
  LocalDateTime,
  WallTime,
  Weekday,
} from '../time/index.ts'
import type { BeforeSession, MessageText, Messaging, Sequence, Translated } from './messaging.ts'
import type { Path } from './path.ts'
import type { Preparation } from './preparation.ts'
import type { Waitlist } from './waitlist.ts'

/** Who is asking, as far as hours and services care. */
export type Standing = 'new' | 'known'

export interface Profile {
  /** The last part of the door's address. */
  slug: string
  name: string
  headline: string
  greeting: string
  /** How the practitioner is spoken of, what they say of themselves, and a small picture of them: as they wish. */
  pronouns?: string
  about?: string
  picture?: string
  /** Where clients' answers go. */
  email: string
  phone?: string
  /** IANA name. */
  zone: string
  /** ISO 4217. */
  currency: string
  /** The first day of the practitioner's week. */
  weekStart: Weekday
  tax?: Tax
}

/** A tax on what is charged. */
export interface Tax {
  name: string
  /** In basis points: 2300 is 23 %. */
  rate: number
  /** It comes on top of the prices; else it is in them. */
  onTop?: boolean
  /** Other rates, each from its first day on, in the practice's zone. */
  later?: { from: LocalDate; rate: number }[]
}

/** What stands on invoices besides. */
export interface Invoicing {
  /** "Speech therapist"; the number by which the practice is registered; where it is. */
  title?: string
  registration?: string
  address?: string
  /** What stands before the running number, and the first one. */
  prefix?: string
  first?: number
}

export type PlaceKind = 'studio' | 'video' | 'phone' | 'client' | 'other'

/** How far one travels to a client: named by the practitioner, chosen by the client or found by postal code. */
export interface TravelZone {
  id: string
  name: string
  surcharge: Minor
  /** Minutes kept clear before and after, on top of the service's own. */
  clear: number
  /** How the postal codes in it begin. */
  postalCodes: string[]
}

export interface Place {
  id: string
  kind: PlaceKind
  /** "the studio in Coimbra": reads on after a length, "75 minutes at …". */
  name: string
  /** Street, link or number; told when `told` says. With `{code}` in it, each booking has a room of its own. */
  address?: string
  /** What codes of rooms are made with; known to nobody else. */
  roomKey?: string
  told: 'door' | 'confirmation' | 'last-reminder'
  whoCalls?: 'practitioner' | 'client'
  /** IANA name; the practice's zone where it is left out. */
  zone?: string
  /** The place's own hours; the practice's where they are left out. */
  hours?: Hours
  /** At the client's: how far one goes. Whoever is farther away writes instead of booking. */
  travel?: TravelZone[]
}

/** A stretch of one day in which sessions can take place. It ends after it begins, at 24:00 at the latest. */
export interface Block {
  from: WallTime
  to: WallTime
  /** Kept for certain services, places or known people. Binds clients, never the practitioner. */
  reservedFor?: { services?: string[]; places?: string[]; known?: boolean }
}

/** Blocks of a usual week, Monday first. */
export type Week = [Block[], Block[], Block[], Block[], Block[], Block[], Block[]]

/** Some weeks with a week of their own in place of the usual one, both dates included. No two meet. */
export interface OtherWeeks {
  from: LocalDate
  to: LocalDate
  weekly: Week
  note?: string
}

export interface ChangedDay {
  date: LocalDate
  blocks: Block[]
  note?: string
}

export interface Hours {
  /** Blocks of each weekday, Monday first. */
  weekly: Week
  seasons?: OtherWeeks[]
  /** Replaces the weekly hours of its date whole, in a season, too. */
  changedDays: ChangedDay[]
}

/** Time away, in the practice's zone; a whole day runs from 00:00 to 00:00 of the next. */
export interface Away {
  id: string
  from: LocalDateTime
  to: LocalDateTime
  /** How it comes again: a rule of RFC 5545 (§3.3.10), "FREQ=WEEKLY;BYDAY=FR"; each time as long as the first. */
  repeat?: string
  note?: string
}

/** `whole`: the lower amount or rate at a start that keeps the day whole. */
export type Price =
  | { kind: 'free' }
  | { kind: 'fixed'; amount: Minor; whole?: Minor; least?: Minor }
  | { kind: 'hourly'; rate: Minor; whole?: Minor; least?: Minor }

/** Something the client can add. */
export interface Extra {
  id: string
  name: string
  minutes: number
  price: Minor
}

/** From which to which date of the practice a service is at the door, or off it; both included. */
export interface Season {
  on: boolean
  from?: LocalDate
  to?: LocalDate
}

export type Starts =
  /** Every so many minutes from the start of a block. */
  { kind: 'every'; minutes: number } | { kind: 'fixed'; times: WallTime[] }

export type Reach =
  | { kind: 'days'; days: number }
  | { kind: 'working-days'; days: number }
  | { kind: 'until'; date: LocalDate }
  /** A month opens on this day of the month before. */
  | { kind: 'months'; opensOn: number }

/** Who waits for the practitioner's word: everybody, only those the rules want looked at, or nobody who fits. */
export type Approval = 'ask' | 'unsure' | 'straight'

export interface GroupDate {
  id: string
  start: LocalDateTime
  place: string
}

/** A group date with fewer people than this at its last moment is called off. */
export interface LeastNumber {
  people: number
  /** The last moment lies this long before the start. */
  by: Duration
}

/** How much of a price is paid with one line: a sum, a share of it, or what is left. */
export type HowMuch = { kind: 'sum'; amount: Minor } | { kind: 'share'; percent: number } | { kind: 'rest' }

/** When it is to be paid: on asking, once the word is given, so long before, on the day, or so long after. */
export type WhenPaid =
  | { kind: 'asking' }
  | { kind: 'word' }
  | { kind: 'before'; by: Duration }
  | { kind: 'on-the-day' }
  | { kind: 'after'; by: Duration }

/** One line of how a price is paid. */
export interface PaymentLine {
  id: string
  much: HowMuch
  due: WhenPaid
  /** It must come before the session is booked; until then the time is held, and free again when it has not come. */
  first?: boolean
  /** Only of them; of everybody where it is left out. */
  standing?: Standing
}

export interface Service {
  id: string
  name: string
  description: string
  /** The heading it stands under at the door. */
  section?: string
  /** A small picture, as a data: address. */
  picture?: string
  /** Not told before the questions are answered; whoever agrees has seen both. */
  priceHidden?: boolean
  lengthHidden?: boolean
  extras?: Extra[]
  /** Length in minutes before the answers add to it. */
  minutes: number
  /** Never shorter than this, whatever the answers say. */
  leastMinutes?: number
  /** The length is rounded up to a multiple of this many minutes. */
  lengthStep: number
  places: string[]
  price: Price
  /** Minutes before and after in which nothing else may sit. */
  clearBefore: number
  clearAfter: number
  /** Whether kept-clear time must lie inside the hours, too. */
  clearInsideHours: boolean
  starts: Starts
  earliestStart?: WallTime
  latestStart?: WallTime
  notice: Duration
  reach: Reach
  perDay?: number
  perWeek?: number
  /** More than one makes it a group. */
  seats: number
  /** Where a group takes place: on the dates given, or at any opening. */
  groupAt: 'dates' | 'any'
  groupDates: GroupDate[]
  /** For group dates. */
  least?: LeastNumber
  /** Show clients at most so many openings, well chosen. */
  showAtMost?: number
  /** Offer a start only where what stays free is nothing or still usable. */
  tidy: boolean
  bookableBy: 'everyone' | 'link' | 'invited'
  /** The secret part of its own link, where it is not for everyone. */
  linkKey?: string
  approval: Record<Standing, Approval>
  questionnaire?: string
  terms: string[]
  /** Rules of its own in place of the practice's; what counts is the practice's all the same. */
  houseRules?: HouseRules
  /** How its price is paid; all of it on the day where it is left out. */
  payment?: PaymentLine[]
  /** What is shown to whoever has booked it: words, and a page or document. */
  afterwards?: { text: string; address?: string }
  /** The word for how far one has come with somebody, once it is booked, and once it has taken place. */
  moves?: { booked?: string; attended?: string }
  /** What goes out with each of its bookings, in this order: preparations by their ids. */
  prepares?: string[]
  /** Something to read or do before the session. */
  before?: BeforeSession
  /** What goes around each of its bookings, by its id. */
  sequence?: string
  /** Since when that one does. */
  sequenceSince?: Instant
  /** How freed times find whoever waits; nothing where nobody can get in line by themselves. */
  waitlist?: Waitlist
  /** Shown at the door and open to requests. */
  on: boolean
  /** Where it is on: only in these dates, or only outside them. */
  season?: Season
  colour: 'leaf' | 'tile' | 'clay' | 'sun'
}

/** What a cancellation costs, in percent of the price, up to a moment before the start. */
export interface CancelTier {
  until: Duration
  share: number
}

/** What so many points within a time lead to, and for how long after the last of them. */
export interface Lead {
  points: number
  within: Duration
  /** Looked at by the practitioner first, paid before it is booked, or nothing online any more. */
  to: 'ask' | 'pay-first' | 'not-online'
  lasts: Duration
}

/** What counts against a client, in points, and what that leads to. */
export interface Counting {
  /** For a session missed. */
  missed: number
  /** For one that its client cancelled when that was no longer free. */
  late: number
  leads: Lead[]
}

/** What a client gets, in percent of the price, where the practitioner does not keep to what was agreed. */
export interface MySide {
  /** Where the practitioner cancels later than so long before the start. */
  within: Duration
  cancelled: number
  /** Where the practitioner says that they come more than so many minutes late. */
  grace: number
  late: number
}

export interface HouseRules {
  /** In order, the earliest deadline first. */
  cancel: CancelTier[]
  /** The share once every tier has passed. */
  cancelAfter: number
  move: { until: Duration; times: number }
  graceMinutes: number
  /** Nothing counts where it is left out. */
  counting?: Counting
  /** The practitioner promises nothing where it is left out. */
  mine?: MySide
}

export interface Answering {
  /** How long a request waits for the practitioner's word, */
  answerTime: Duration
  /** but never nearer to the start than this, */
  wordLead: Duration
  /** and never shorter than this, unless the start comes first. */
  leastAnswerTime: Duration
  /** How long a request is held until the link mailed to its address has been opened; half an hour without it. */
  proofTime?: Duration
  /** How long a time waits for a payment that must come first; a day without it. */
  payTime?: Duration
}

/** What can be done by card. */
export interface Cards {
  /** A card is asked for with the request: only looked at, or kept for what may be owed later. */
  ask?: 'check' | 'keep'
  /** That is asked only of those who have not been here yet. */
  strangers?: boolean
}

/** Words that lower a price: a first talk can carry one and be given free. */
export interface PriceCode {
  id: string
  /** As it is typed; capitals and spaces don't matter. */
  code: string
  off: { kind: 'amount'; amount: Minor } | { kind: 'share'; percent: number }
  /** Not in use yet, or no longer: whoever types it is told that there is none. */
  idle?: boolean
  /** The first and the last day it can be used, in the practice's zone. */
  from?: LocalDate
  to?: LocalDate
  /** How many bookings it is good for. */
  uses?: number
  /** Only for these; for all where it is left out. */
  services?: string[]
  people?: string[]
}

/** Another calendar of the practitioner: read by the relay from its address, or opened once as a file. */
export interface Subscription {
  id: string
  name: string
  /** Absent for a file, whose busy times are among the desk's own sessions. */
  url?: string
  /** The practitioner's address in it, if another than their usual one: what it has declined is free. */
  owner?: string
}

export interface Practice {
  id: string
  profile: Profile
  places: Place[]
  hours: Hours
  away: Away[]
  services: Service[]
  questionnaires: Questionnaire[]
  terms: Terms[]
  houseRules: HouseRules
  answering: Answering
  /** The space between two sessions: the larger of what both want, or the sum. */
  space: 'larger' | 'sum'
  /** A stretch shorter than this many minutes is of no use. */
  shortestUsable: number
  limits: { perDay?: number; perWeek?: number /** open requests one person may have */; openRequests: number }
  codes?: PriceCode[]
  /** Questions kept to be used again. */
  library?: Question[]
  /** Other calendars that must not clash. */
  calendars?: Subscription[]
  /** From this moment each week, the whole coming week is closed. */
  weekCloses?: { weekday: Weekday; time: WallTime }
  /** From which session date on it is kept here what is open; of everything where it is left out. */
  moneyFrom?: LocalDate
  /** Where money can be transferred to. */
  transfer?: { name: string; iban: string; bic?: string }
  invoicing?: Invoicing
  /** Clients can pay by card, at the till that the relay is set up with. */
  cards?: Cards
  /** Whether a session may take place whose client has not agreed to what they must; it may where this is left out. */
  unagreed?: 'may' | 'may-not'
  /** The language one's own texts are written in (English where it is left out), and others that clients can read in. */
  language?: Language
  languages?: Language[]
  /** One's own texts in other languages: by language, then by `OwnText.key`. */
  translated?: Record<string, Record<string, Translated>>
  /** Sentences of the catalogues in one's own words: by language, then by catalogue and name. */
  words?: Record<string, Record<string, string>>
  /** What is sent when, and what it says. */
  sequences?: Sequence[]
  texts?: MessageText[]
  messaging?: Messaging
  /** Programmes that are given to clients. */
  paths?: Path[]
  /** What clients read, sign, fill, bring or tick. */
  preparations?: Preparation[]
  /** Whether the door is open, and what it says while it is closed; open where this is left out. */
  door?: { open: boolean; text: string }
}
