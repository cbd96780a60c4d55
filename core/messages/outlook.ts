import type { Booking } from '../booking/index.ts'
import type { MailNews } from '../contract/types.ts'
import type { Channel, Practice } from '../practice/index.ts'
import { type Instant, instant } from '../time/index.ts'
import { messageName, type Step } from './letter.ts'
import { plannedLetters, receiverOf } from './letters.ts'
import { stepsOf, type WhySkipped } from './steps.ts'

/** What will become of one message of a booking. */
export interface Outlook {
  /** By what it is steered. */
  message: string
  step: Step
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

/** What is known of whoever is written to. */
export interface OfThem {
  /** The practitioner sends them no steps. */
  hushed?: boolean
  /** Their address has refused the last mail. */
  bounced?: boolean
}

/** Everything that is still to come of messages about a booking, or won't, in order of time. What has gone is in the record. */
export function outlookOf(
  booking: Booking,
  practice: Practice,
  now: Instant,
  { hushed = false, bounced = false }: OfThem = {},
): Outlook[] {
  const { steered = {} } = booking
  const fails = (step: Step, channel: Channel): Pick<Outlook, 'fails'> => {
    if (receiverOf(step) === 'practitioner') return {}
    if (channel === 'text') return booking.asked.person.phone ? {} : { fails: 'no-phone' }
    return bounced ? { fails: 'bounced' } : {}
  }
  const one = (
    step: Step,
    channel: Channel,
    anchor: number,
    rest: Pick<Outlook, 'at' | 'is' | 'why'>,
  ): Outlook => ({
    message: messageName(step, channel, anchor),
    ...{ step, channel, to: receiverOf(step) },
    ...rest,
    ...(rest.is === 'planned' || rest.is === 'draft' ? fails(step, channel) : {}),
  })
  const going = plannedLetters(booking, practice).map(({ step, channel, anchor, at }) => {
    const stays = hushed && step.startsWith('step:')
    return one(step, channel ?? 'email', anchor, {
      at: instant(at),
      ...(stays ? { is: 'skipped' as const, why: 'hushed' as const } : { is: 'planned' as const }),
    })
  })
  const planned = new Set(going.map(({ message }) => message))
  const steps = stepsOf(booking, practice).flatMap((plan) => {
    const { step, name, anchor, at, skipped, joins } = plan
    const found = one(name, step.channel, anchor, {
      at,
      ...(skipped
        ? { is: 'skipped' as const, why: skipped }
        : joins !== undefined
          ? { is: 'joined' as const }
          : { is: step.draft && !steered[messageName(name, step.channel, anchor)]?.held ? 'draft' : 'held' }),
    })
    return planned.has(found.message) ? [] : [found]
  })
  const { tells } = booking
  const told =
    tells && tells.due >= now
      ? [
          one(tells.step, 'email', tells.seq, {
            at: tells.due,
            is: steered[messageName(tells.step, 'email', tells.seq)]?.held ? 'held' : 'planned',
          }),
        ]
      : []
  return [...told, ...going, ...steps].sort((a, b) => a.at - b.at || (a.message < b.message ? -1 : 1))
}
