import { type Minor, product, sum, timesMoney } from '../money/index.ts'
import { type Currency, money } from '../money/words.ts'
import { type KeysOf, line, list, maybe, id as ownId, text, whole, yes } from '../shape/shape.ts'
import { type Amount, plus, pricedTimes, scaled } from './limit.ts'
import type { Outcome, QuoteLine, Reading } from './outcome.ts'
import { worseOf } from './outcome.ts'

/** What a rule can do, each with what is its own. */
interface Own {
  close: { message: string; services: string[]; enquiry: boolean }
  look: { note: string }
  /** Only shows a text, once it is decided. */
  tell: { text: string }
  /** Minutes times the number answered to a question, or once. */
  minutes: { minutes: number; times?: string; of?: string }
  /** An item with its price, times the number answered to a question (or how many `of` one of its items), or once. */
  item: { name: string; price: Minor; times?: string; of?: string }
  points: { points: number }
  tag: { tag: string }
  deposit: { amount: Minor }
  suggest: { service: string }
  /** A message instead of a booking, whatever else is said. */
  enquiry: object
}

export type Effect = { [K in keyof Own]: { do: K } & Own[K] }[keyof Own]

/** What an effect acts on, when answers are read. */
export interface Acted {
  reading: Reading
  items: QuoteLine[]
  /** How often it acts: as often as what it multiplies by, or once. */
  times: number
  /** Gives the rule as a reason for an outcome. */
  say(outcome: Outcome, note?: string): void
}

/** What effects add up to, when ways are proved. */
export interface Tally {
  outcome: Outcome
  points: number
  minutes: Amount
  /** The least and the most that items come to. */
  least: Minor
  most: Minor
  enquiry: boolean
}

/** What is set of an effect: `times` is by what it multiplies. */
export interface EffectSetting {
  key: string
  label: string
  is: 'text' | 'long' | 'whole' | 'money' | 'service' | 'services' | 'tick' | 'times'
  suffix?: string
}

/** What is needed to say what an effect does. */
export interface EffectAround {
  /** The name of a service, by its id. */
  service: (id: string) => string
  currency: Currency
  /** “ for each …”, where it multiplies. */
  each: string
}

interface EffectKind<E> {
  /** What it is called where one chooses. */
  name: string
  /** What it does to the answers to a question, for the map: its colour there, and a word. */
  mark: { colour: 'leaf' | 'sun' | 'clay' | 'tile'; word: string }
  shape: KeysOf<Omit<E, 'do'> & object>
  settings: readonly EffectSetting[]
  /** A word where there is nothing to set. */
  about?: string
  /** @param service some service of the practice */
  begin(service: string): Omit<E, 'do'>
  /** Whether private answers may decide it: only what no client could notice. */
  unnoticed: boolean
  /** The services it refers to. */
  services?(effect: E): string[]
  /** Why it can't be as it is. */
  fault?(effect: E): string | undefined
  /** What it does, as a clause. */
  words(effect: E, around: EffectAround): string
  apply(effect: E, acted: Acted): void
  /** What it changes in a tally; nothing where that makes no difference to any way. */
  tally?(effect: E, tally: Tally, times: Amount): Partial<Tally>
}

type Of<K extends keyof Own> = { do: K } & Own[K]
const TIMES = { key: 'times', label: 'times', is: 'times' } as const

/** Everything about each effect, in the order in which they are offered. */
export const EFFECTS: { [K in keyof Own]: EffectKind<Of<K>> } = {
  close: {
    name: 'close, with a kind text',
    mark: { colour: 'clay', word: 'can close' },
    shape: { message: text(2_000), services: list(ownId, 500), enquiry: yes },
    settings: [
      { key: 'message', label: 'What they read', is: 'long' },
      { key: 'services', label: 'What else they can do', is: 'services' },
      { key: 'enquiry', label: 'write a message', is: 'tick' },
    ],
    begin: () => ({ message: '', services: [], enquiry: true }),
    unnoticed: false,
    services: ({ services }) => services,
    fault: ({ message }) =>
      message.trim() ? undefined : 'Please write what they read when they are closed.',
    words: () => 'close',
    apply: ({ message, services, enquiry }, { reading, say }) => {
      reading.kind ??= { message, services, enquiry }
      say('closed')
    },
    tally: () => ({ outcome: 'closed' }),
  },
  look: {
    name: 'I look first',
    mark: { colour: 'sun', word: 'can make you look' },
    shape: { note: text(500) },
    settings: [{ key: 'note', label: 'A note for yourself', is: 'text' }],
    begin: () => ({ note: '' }),
    unnoticed: true,
    words: ({ note }) => (note ? `I look first: ${note}` : 'I look first'),
    apply: ({ note }, { say }) => say('look', note),
    tally: (_, { outcome }) => ({ outcome: worseOf(outcome, 'look') }),
  },
  tell: {
    name: 'only show a text',
    mark: { colour: 'tile', word: 'shows a text' },
    shape: { text: text(2_000) },
    settings: [{ key: 'text', label: 'What they read', is: 'long' }],
    begin: () => ({ text: '' }),
    unnoticed: false,
    fault: ({ text }) => (text.trim() ? undefined : 'Please write what they read.'),
    words: () => 'show a text',
    apply: () => {},
  },
  points: {
    name: 'give points',
    mark: { colour: 'tile', word: 'gives points' },
    shape: { points: whole(-1_000_000, 1_000_000) },
    settings: [{ key: 'points', label: 'Points', is: 'whole' }],
    begin: () => ({ points: 1 }),
    unnoticed: true,
    words: ({ points }) => `${points} ${Math.abs(points) === 1 ? 'point' : 'points'}`,
    apply: ({ points }, { reading }) => {
      reading.points = sum(reading.points, points)
    },
    tally: ({ points }, tally) => ({ points: sum(tally.points, points) }),
  },
  minutes: {
    name: 'make it longer',
    mark: { colour: 'leaf', word: 'changes the length' },
    shape: { minutes: whole(-14_400, 14_400), times: maybe(ownId), of: maybe(ownId) },
    settings: [{ key: 'minutes', label: 'By', is: 'whole', suffix: 'min' }, TIMES],
    begin: () => ({ minutes: 15 }),
    unnoticed: false,
    words: ({ minutes }, { each }) => `${minutes} min longer${each}`,
    apply: ({ minutes }, { reading, times }) => {
      reading.quote.minutes = sum(reading.quote.minutes, product(minutes, times))
    },
    tally: ({ minutes }, tally, times) => ({ minutes: plus(tally.minutes, scaled(times, minutes)) }),
  },
  item: {
    name: 'add something to the price',
    mark: { colour: 'leaf', word: 'changes the price' },
    shape: { name: line(), price: whole(0, 1_000_000_000), times: maybe(ownId), of: maybe(ownId) },
    settings: [
      { key: 'name', label: 'What', is: 'text' },
      { key: 'price', label: 'Price', is: 'money' },
      TIMES,
    ],
    begin: () => ({ name: 'Something more', price: 1_000 }),
    unnoticed: false,
    fault: ({ price }) =>
      price < 0 ? 'A price can’t be below zero; use a code to take something off.' : undefined,
    words: ({ name, price }, { currency, each }) => `${name}, ${money(price, currency)}${each}`,
    apply: ({ name, price }, { items, times }) => {
      if (times) items.push({ name, quantity: times, amount: timesMoney(price, times) })
    },
    tally: ({ price }, { least, most }, times) => {
      const amount = pricedTimes(price, times)
      return { least: least + amount, most: most + amount }
    },
  },
  tag: {
    name: 'tag the person',
    mark: { colour: 'tile', word: 'gives a tag' },
    shape: { tag: line(60) },
    settings: [{ key: 'tag', label: 'Tag', is: 'text' }],
    begin: () => ({ tag: 'tag' }),
    unnoticed: true,
    words: ({ tag }) => `tag “${tag}”`,
    apply: ({ tag }, { reading }) => {
      reading.tags.push(tag)
    },
  },
  deposit: {
    name: 'ask a deposit',
    mark: { colour: 'leaf', word: 'asks a deposit' },
    shape: { amount: whole(0, 1_000_000_000) },
    settings: [{ key: 'amount', label: 'Deposit', is: 'money' }],
    begin: () => ({ amount: 1_000 }),
    unnoticed: false,
    words: ({ amount }, { currency }) => `a deposit of ${money(amount, currency)}`,
    apply: ({ amount }, { reading: { quote } }) => {
      quote.deposit = Math.max(quote.deposit, amount)
    },
  },
  suggest: {
    name: 'suggest another service',
    mark: { colour: 'tile', word: 'suggests something else' },
    shape: { service: ownId },
    settings: [{ key: 'service', label: 'Service', is: 'service' }],
    begin: (service) => ({ service }),
    unnoticed: false,
    services: ({ service }) => [service],
    words: ({ service }, around) => `suggest ${around.service(service)}`,
    apply: ({ service }, { reading }) => {
      reading.suggested.push(service)
    },
  },
  enquiry: {
    name: 'ask for a message instead of a booking',
    mark: { colour: 'tile', word: 'asks for a message instead' },
    shape: {},
    settings: [],
    about: 'They are asked to write to you; no time is taken.',
    begin: () => ({}),
    unnoticed: false,
    words: () => 'a message instead of a booking',
    apply: (_, { reading }) => {
      reading.enquiryInstead = true
    },
    tally: () => ({ enquiry: true }),
  },
}

/** The kind of an effect, for what is asked of any. */
export const effectKind = (effect: Pick<Effect, 'do'>): EffectKind<Effect> =>
  EFFECTS[effect.do] as EffectKind<Effect>
