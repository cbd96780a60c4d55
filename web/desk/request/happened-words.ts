import type { BookingEvent, PayWay } from '@acolhida/core/booking'
import { money } from '@acolhida/core/money'
import { type Practice, placeOf } from '@acolhida/core/practice'
import { type Instant, languageName } from '@acolhida/core/time'
import { messageTitle } from '../messages/titles.ts'
import { counted, currencyOf, OUTCOME, serviceName, termsTitle, when } from '../parts/words.ts'

type Told = { [T in BookingEvent['type']]: (event: Extract<BookingEvent, { type: T }>) => string }

/** What is said with a decision, in its own quotes. */
const saying = (text: string | undefined): string => (text ? ` “${text}”` : '')

/** What cancelling cost, where it cost something. */
const due = (share: number): string => (share > 0 ? ` ${share} % of the price is due.` : '')
/** What one's own side of the rules gives for it. */
const given = (share = 0, unless = ''): string =>
  share > 0 ? ` By your own side of the rules they get ${share} % of the price${unless}.` : ''

const STEERED = {
  hold: 'You held back',
  release: 'You let go',
  now: 'You sent at once',
  edit: 'You rewrote',
} as const

/** By which way money came or went. */
export const PAID_BY: Record<PayWay, string> = {
  cash: 'in cash',
  card: 'by card',
  transfer: 'by transfer',
  other: '',
}
const byWay = (way: PayWay): string => (PAID_BY[way] ? ` ${PAID_BY[way]}` : '')

/**
 * The record of a booking in words, the oldest first: what happened, and by whom. What was taken back stays in it, with
 * what took it back.
 */
export function happenedWords(practice: Practice, events: readonly BookingEvent[]): string[] {
  const first = events[0]
  const currency = currencyOf(first?.type === 'asked' ? first.currency : practice.profile.currency)
  const cash = (amount: number): string => money(amount, currency)
  const at = (event: { start: BookingEvent['at']; place: string }): string =>
    `${when(practice, event.start)} ${placeOf(practice, event.place)?.name ?? ''}`.trim()
  const waits = (until: Instant | undefined): string =>
    until === undefined ? '' : ` Booked once a payment has come; waited for until ${when(practice, until)}.`
  const told: Told = {
    'taken-out': () => 'You took it out again; nobody was told.',
    asked: (event) => {
      const what = `${serviceName(practice, event.service)}, ${at(event)}`
      if (event.broughtIn !== undefined) return `You brought it in from another place: ${what}.`
      if (event.line !== undefined)
        return event.proof === 'hand'
          ? `You booked them in, who had waited: ${what}.`
          : `They took a freed time: ${what}.`
      return event.proof === 'hand' ? `You booked them in: ${what}.` : `They asked for ${what}.`
    },
    proved: () => 'They opened the link in the mail.',
    welcomed: ({ by, text, owes }) =>
      by === 'rules'
        ? owes
          ? `Welcome by your rules.${waits(owes)}`
          : 'Booked straight in, by your rules.'
        : `You welcomed them.${waits(owes)}${saying(text)}`,
    declined: ({ text, by }) =>
      by === 'rules'
        ? 'Turned down by your rules: they may not book online for a time.'
        : `You turned it down.${saying(text)}`,
    offered: ({ starts, text, gives }) =>
      `You offered ${counted(starts.length, 'other time', 'other times')}: ${starts.map(at).join('; ')}.${given(gives, ' unless they take one')}${saying(text)}`,
    accepted: (event) => `They took ${at(event)}.${waits(event.owes)}`,
    refused: ({ text }) => `None of the times suited them.${saying(text)}`,
    moved: (event) => {
      const to = `${event.service ? `${serviceName(practice, event.service)}, ` : ''}${at(event)}`
      const least = event.least ? ` Cancelling costs ${event.least} % from now on at the least.` : ''
      if (event.freed !== undefined) return `They took an earlier time that fell free: ${to}.`
      return event.by === 'client'
        ? `They moved it to ${to}.${least}`
        : `You moved it to ${to}, ${event.minutes} minutes.${saying(event.text)}`
    },
    lapsed: () => 'The hold ran out.',
    withdrawn: () => 'It was withdrawn.',
    cancelled: ({ by, share, text, gives }) =>
      `${by === 'client' ? 'They' : 'You'} cancelled.${due(share)}${given(gives)}${saying(text)}`,
    attended: ({ late, minutes }) =>
      ['They were here.', late ? `${counted(late, 'minute', 'minutes')} late.` : '']
        .concat(minutes ? `It lasted ${minutes} minutes.` : '')
        .filter(Boolean)
        .join(' '),
    missed: () => 'They did not come.',
    questioned: ({ text, until }) =>
      `You asked back, and hold it until ${when(practice, until)}.${saying(text)}`,
    replied: ({ text }) => `They answered.${saying(text)}`,
    'running-late': ({ minutes, gives }) =>
      `You told them that you come ${counted(minutes, 'minute', 'minutes')} late.${given(gives)}`,
    pleaded: ({ text }) => `They asked for an exception.${saying(text)}`,
    excepted: ({ granted, text }) =>
      `${granted ? 'You made the exception: free to cancel, or to move once.' : 'You made no exception.'}${saying(text)}`,
    paid: ({ amount, way, text, books, owes }) =>
      `They paid ${cash(amount)}${byWay(way)}.${books ? ' With that it is booked.' : waits(owes)}${saying(text)}`,
    'given-back': ({ amount, way, text }) => `You gave ${cash(amount)} back${byWay(way)}.${saying(text)}`,
    'till-asked': ({ what, amount }) =>
      what === 'card' ? 'They went to leave a card.' : `They went to pay ${cash(amount)} by card.`,
    'till-said': ({ is, text, card }) => {
      if (card)
        return `The card that ends in ${card.ends}, good until ${card.expires}, is ${card.key ? 'kept' : 'seen'}.`
      return `${is === 'over' ? 'It was not finished in time.' : 'It did not go through.'}${saying(text)}`
    },
    charged: ({ amount, text, agreed }) =>
      `You had ${cash(amount)} taken from their card, by the agreement ${agreed.slice(0, 12)}.${saying(text)}`,
    invoiced: ({ number, total, corrects, text }) =>
      corrects
        ? `You took invoice ${corrects} back by ${number}.${saying(text)}`
        : `You made invoice ${number}: ${cash(total)}.`,
    adjusted: ({ amount, text }) =>
      `You ${amount < 0 ? `took ${cash(-amount)} off` : `added ${cash(amount)} to`} what is owed.${saying(text)}`,
    agreed: ({ agreements }) =>
      `They agreed to ${agreements.map(({ terms, version }) => `“${termsTitle(practice, terms, version)}”`).join(', ')}.`,
    'asked-to-sign': ({ terms }) =>
      `You asked them to sign ${terms.map((id) => `“${termsTitle(practice, id)}”`).join(', ')}.`,
    concerns: ({ others: { comes, pays } }) =>
      comes || pays
        ? `You said who it concerns: ${[comes ? `${comes.name} comes` : '', pays ? `${pays.name} pays` : ''].filter(Boolean).join(', ')}.`
        : 'You said that it concerns nobody else.',
    forgiven: ({ text }) => `You forgave it; it no longer counts.${saying(text)}`,
    overruled: ({ outcome, text }) => `You judged it yourself: “${OUTCOME[outcome]}”.${saying(text)}`,
    coming: () => 'They said that they will be there.',
    'to-prepare': ({ what, done }) =>
      what.length === 0
        ? 'Nothing is to be prepared any more.'
        : done
          ? 'Everything that was to be prepared is done.'
          : `There is to prepare: ${what.length === 1 ? 'one thing' : `${what.length} things`}.`,
    prepared: ({ done }) =>
      done ? 'They ticked what was to be done before.' : 'They took the tick back: it is not done.',
    written: ({ channel, subject, text, own }) =>
      `You wrote to them ${channel === 'text' ? (own ? 'from your own phone' : 'by text') : 'by mail'}${subject ? `: ${subject}.` : '.'}${saying(text)}`,
    steered: ({ message, how }) => `${STEERED[how]} ${messageTitle(practice, message)}.`,
    speaks: ({ language }) => `They read in ${languageName(language)} from now on.`,
    unwanted: ({ what, on }) =>
      `They want ${what === 'texts' ? (on ? 'no more texts' : 'texts again') : on ? 'no more of what follows a session' : 'what follows a session again'}.`,
    'taken-back': ({ of }) => {
      const back = events[of - 1]
      return back && back.type !== 'taken-back' ? `Taken back: “${words(back)}”` : 'Taken back.'
    },
  }
  const words = (event: BookingEvent): string => {
    const said = (told[event.type] as (event: BookingEvent) => string)(event)
    return 'away' in event && event.away ? `${said} (Away from the desk.)` : said
  }
  return events.map(words)
}
