import { type Due, type Message, usefulUntil } from '../agenda/index.ts'
import type { MailNews } from '../contract/desk-types.ts'
import { LINK_TOKEN, type Which, WORD_TOKEN, YOURS_TOKEN } from '../messages/index.ts'
import { normalMail } from '../people/index.ts'
import { fingerprint } from '../terms/index.ts'
import { DAY, instant, MINUTE, shift } from '../time/index.ts'
import { type Handed, recipientOf, toHand } from './to-hand.ts'
import type { Work } from './work.ts'

/** What the key is made from with which a client's answers are sealed until they send them: for each address one. */
export const halfKeyOf = (email: string): string => `half ${normalMail(email)}`

/** How long after one try the next comes, in minutes; the last of them again and again, while it is of use. */
const WAITS = [1, 2, 5, 15, 60, 180, 360]

/**
 * Writes a message from how things stand now, and notes that it is being handed over, before anybody is spoken to.
 * @returns nothing where it is no longer to go; why is in the record
 */
export function hand(work: Work, { due }: { due: Due }): Handed | undefined {
  const { house, now, changes } = work
  const { key, subject, doing } = due
  if (doing.do !== 'message' || house.due(key)?.at !== due.at || due.at > now) return undefined
  const before = house.message(key, subject)
  const message: Message = {
    state: 'handed',
    step: doing.step,
    tries: (before?.tries ?? 0) + 1,
    due: due.at,
  }
  const letter = toHand(house, due, now)
  if ('not' in letter) {
    const { not: state, reason } = letter
    changes.push({ type: 'message', key, subject, message: { ...message, state } })
    note(work, due, { state, to: recipientOf(house, subject, doing) ?? '', subject: '', reason })
    return undefined
  }
  changes.push({ type: 'message', key, subject, message })
  const { leads, service, about, as, ...rest } = letter
  const word = rest.text.includes(WORD_TOKEN)
  if (!word && !rest.text.includes(LINK_TOKEN) && !rest.text.includes(YOURS_TOKEN) && !rest.unsubscribe)
    return { key, ...rest }
  const id = work.ids()
  const half = rest.text.includes(YOURS_TOKEN) ? { half: halfKeyOf(rest.recipient) } : {}
  // A link that came by text proves nothing about a mail address: whoever typed it may have typed any phone. Nor does
  // one that went to somebody else than who asked.
  const other = !word && as !== undefined && as !== 'asks' ? { as } : {}
  const proves = !word && letter.channel !== 'text' && other.as === undefined
  changes.push({ type: 'link', link: { id, subject: about, proves, ...other, ...(word ? { word } : {}) } })
  return { key, ...rest, link: { id, leads: word ? 'word' : leads, service, ...half } }
}

/**
 * Several in one transaction, as the disk is slower than all the rest. No two of one subject: the lines of its record
 * are counted.
 * @returns in their order; nothing for what is no longer to go
 */
export const handSeveral = (work: Work, { dues }: { dues: readonly Due[] }): (Handed | undefined)[] =>
  dues.map((due) => hand(work, { due }))

/** A line of the record about a message. */
function note(
  { house, now, changes }: Work,
  { key: _, subject, doing, at }: Due,
  news: Omit<MailNews, 'step' | 'due' | 'channel' | 'anchor'>,
) {
  if (doing.do !== 'message') return
  const { step, anchor, channel } = doing
  // As long as a file of the desk's takes, whatever a host has answered.
  const { reason, text } = news
  const said: typeof news = {
    ...news,
    subject: news.subject.slice(0, 500),
    ...(reason === undefined ? {} : { reason: reason.slice(0, 1_000) }),
    ...(text === undefined ? {} : { text: text.slice(0, 100_000) }),
  }
  const body: MailNews = { step, ...said, due: at, anchor, ...(channel === 'text' ? { channel } : {}) }
  changes.push({ type: 'mail', subject, seq: house.lines('mail', subject) + 1, at: now, body })
}

/** What came of handing a message over. */
export interface Went {
  due: Due
  /** Nothing where it went; else why not. */
  problem?: string
  /** It will never be taken: the address is none, or refuses. */
  final?: boolean
  recipient: string
  subject: string
  /** As it went, private links masked. */
  text: string
}

/** Notes that a message has gone, is tried again while it is of use, or can't be sent. */
export function went(work: Work, { due, problem, final, recipient, subject: title, text }: Went) {
  const { house, now, changes } = work
  const { key, subject, doing } = due
  const before = house.message(key, subject)
  if (before?.state !== 'handed' || doing.do !== 'message') return {}
  if (problem !== undefined && !final) {
    const wait = WAITS[Math.min(before.tries, WAITS.length) - 1]!
    const next = shift(now, wait * MINUTE)
    const useful = usefulUntil(house, subject, doing) ?? instant(before.due + LONGEST)
    if (next <= useful) {
      const again: Message = { ...before, state: 'again', due: next }
      changes.push({ type: 'message', key, subject, message: again })
      // The desk hears of it once, however often it is tried.
      if (before.tries === 1)
        note(work, due, { state: 'waiting', to: recipient, subject: title, reason: problem })
      return {}
    }
  }
  const state = problem === undefined ? ('sent' as const) : ('failed' as const)
  changes.push({ type: 'message', key, subject, message: { ...before, state } })
  note(work, due, {
    state,
    to: recipient,
    subject: title,
    ...(problem === undefined ? {} : { reason: final ? `refused ${problem}` : problem }),
    text,
    print: fingerprint({ subject: title, text }),
  })
  return {}
}

/** Of several in one transaction, no two of one subject. */
export function wentSeveral(work: Work, { all }: { all: readonly Went[] }) {
  for (const one of all) went(work, one)
  return {}
}

/** For how long what has no last moment of its own is tried, in ms. */
const LONGEST = 5 * DAY

/** After the relay has ended in between: nobody knows whether it went, and it is not sent again by itself. */
export function unknown(
  work: Work,
  { key, subject, which }: { key: string; subject: Due['subject']; which: Which },
) {
  const { house, changes } = work
  const before = house.message(key, subject)
  if (before?.state !== 'handed') return {}
  changes.push({ type: 'message', key, subject, message: { ...before, state: 'unknown' } })
  const due: Due = { key, subject, at: before.due, doing: { do: 'message', ...which } }
  note(work, due, {
    state: 'unknown',
    to: recipientOf(house, subject, which) ?? '',
    subject: '',
    reason: 'The relay ended while it was being handed over; it may have gone or not.',
  })
  return {}
}
