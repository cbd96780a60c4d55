import type { Booking } from '../booking/index.ts'
import type { MailNews } from '../contract/desk-types.ts'
import type { Channel, Practice } from '../practice/index.ts'
import { HOUR, type Instant, instant } from '../time/index.ts'
import { keptFrom, type OfThem } from './kept-from.ts'
import { messageName, nameOfMail, type Step, steeredOf, type Which } from './letter.ts'
import { plannedLetters, receiverOf } from './letters.ts'
import { stepsOf, type WhySkipped, whichOf } from './steps.ts'

/** What will become of one message of a booking. */
export interface Outlook {
  /** By what it is steered. */
  message: string
  step: Step
  anchor: number
  channel: Channel
  to: 'client' | 'practitioner'
  at: Instant
  /**
   * `planned`: it goes at `at`. `held`: by the practitioner. `draft`: it is laid before them. `skipped`: it does not go.
   * `joined`: with another message.
   */
  is: 'planned' | 'held' | 'draft' | 'skipped' | 'joined'
  why?: WhySkipped
  /** Why it will fail when it goes: no phone is known, or their address has refused the last mail. */
  fails?: 'no-phone' | 'bounced'
}

/** Whether an address has refused the last that was sent to it, for good. */
export function hasBounced(
  mails: readonly (Pick<MailNews, 'to' | 'state' | 'reason' | 'channel'> & { at: Instant })[],
  email: string,
): boolean {
  const theirs = mails.filter(({ to, channel }) => to === email && channel !== 'text')
  const last = theirs.reduce<(typeof theirs)[number] | undefined>(
    (newest, mail) => (newest === undefined || mail.at >= newest.at ? mail : newest),
    undefined,
  )
  return last?.state === 'failed' && last.reason?.startsWith('refused ') === true
}

/** What is soon told of how a booking stands. */
const toldOf = ({ tells }: Booking, now: Instant): (Which & { at: Instant })[] =>
  tells && tells.due >= now ? [{ step: tells.step, anchor: tells.seq, at: tells.due }] : []

/** How long after its moment a line of the record about a message is waited for. */
const WAITED = HOUR

/** What of it is still to come: what was to go before now has a line of the record, or the relay has not told of it yet. */
export function toCome(
  all: readonly Outlook[],
  record: readonly Pick<MailNews, 'step' | 'channel' | 'anchor'>[],
  now: Instant,
): Outlook[] {
  const gone = new Set(record.map(nameOfMail))
  return all.filter(({ message, at, is }) => !gone.has(message) && (is !== 'planned' || at >= now - WAITED))
}

/**
 * Everything that is still to come of messages about a booking, or won't, in order of time. What has gone is in the
 * record.
 * @param them what is known of its client beyond it; `bounced`: their address has refused the last mail
 */
export function outlookOf(
  booking: Booking,
  practice: Practice,
  now: Instant,
  them: OfThem & { bounced?: boolean } = {},
): Outlook[] {
  const fails = (step: Step, channel: Channel): Pick<Outlook, 'fails'> => {
    if (receiverOf(step) === 'practitioner') return {}
    if (channel === 'text') return booking.asked.person.phone ? {} : { fails: 'no-phone' }
    return them.bounced ? { fails: 'bounced' } : {}
  }
  const one = (which: Which, rest: Pick<Outlook, 'at' | 'is' | 'why'>): Outlook => {
    const { step, channel = 'email', anchor } = which
    return {
      message: messageName(which),
      ...{ step, channel, anchor, to: receiverOf(step) },
      ...rest,
      ...(rest.is === 'planned' || rest.is === 'draft' ? fails(step, channel) : {}),
    }
  }
  const plans = stepsOf(booking, practice)
  const going = plannedLetters(booking, practice).map((letter) => {
    const why = keptFrom(booking, letter, plans, them)
    return one(letter, { at: instant(letter.at), ...(why ? { is: 'skipped', why } : { is: 'planned' }) })
  })
  const planned = new Set(going.map(({ message }) => message))
  const steps = plans.flatMap((plan) => {
    const { step, at, skipped, joins } = plan
    const which = whichOf(plan)
    if (planned.has(messageName(which))) return []
    if (skipped) return [one(which, { at, is: 'skipped', why: skipped })]
    if (joins !== undefined) return [one(which, { at, is: 'joined' })]
    return [one(which, { at, is: step.draft && !steeredOf(booking, which)?.held ? 'draft' : 'held' })]
  })
  const told = toldOf(booking, now).map(({ at, ...which }) =>
    one(which, { at, is: steeredOf(booking, which)?.held ? 'held' : 'planned' }),
  )
  return [...told, ...going, ...steps].sort((a, b) => a.at - b.at || (a.message < b.message ? -1 : 1))
}
