import { agreementsIn, type Booking, type StoredEvent, upcast } from '@acolhida/core/booking'
import type { SentMail } from '@acolhida/core/formats'
import { accountOf } from '@acolhida/core/ledger'
import { money } from '@acolhida/core/money'
import type { Practice } from '@acolhida/core/practice'
import { type Agreement, agreedText, blocksText, chainHead } from '@acolhida/core/terms'
import { formatInstant, type Instant, moment } from '@acolhida/core/time'
import { lineWords } from '../money/money-words.ts'
import { currencyOf, homeZone, serviceName, termsTitle, when } from '../parts/words.ts'
import { happenedWords } from '../request/happened-words.ts'

/** What a file that proves something is made of, before it is laid out. */
export interface ProofSheet {
  title: string
  /** What stands under the title. */
  line: string
  parts: ProofPart[]
}

export interface ProofPart {
  title: string
  /** Names with their values; what is long stands on a line of its own. */
  facts?: [name: string, value: string][]
  /** Paragraphs; what is headed has a heading of its own. */
  words?: { heading?: string; text: string }[]
  rows?: { head: string[]; body: string[][] }
  /** What a code to scan says. */
  code?: string
}

/** One agreement with everything that proves it. */
export function agreementPart(practice: Practice, agreement: Agreement): ProofPart {
  const { shown } = agreedText(practice.terms, agreement)
  return {
    title: `${termsTitle(practice, agreement.terms, agreement.version)}, version ${agreement.version}`,
    facts: [
      ['Agreed to by', agreement.name],
      ['When', `${moment(agreement.at, homeZone(practice))} (${formatInstant(agreement.at)})`],
      ['For', serviceName(practice, agreement.service)],
      ['Fingerprint of the version (SHA-256, RFC 8785)', agreement.fingerprint],
      ['Fingerprint of the text as shown', agreement.shown],
      ['The agreement before it', agreement.previous || 'none: it is the first'],
      ['The number that proves it', chainHead(agreement)],
    ],
    words:
      shown === undefined
        ? [{ text: 'The text as it was shown is in the version of that number.' }]
        : typeof shown === 'string'
          ? [{ text: shown }]
          : [
              ...shown.clauses.map(({ title, short, text }) => ({
                heading: title,
                text: [short && `In short: ${short}`, blocksText(text)].filter(Boolean).join('\n'),
              })),
              ...(shown.document ? [{ text: shown.document }] : []),
            ],
  }
}

const about = (practice: Practice, booking: Booking): string =>
  `${practice.profile.name} · ${serviceName(practice, booking.service)}, ${when(practice, booking.start)}`

/** What somebody agreed to with a booking. */
export const agreementSheet = (practice: Practice, booking: Booking): ProofSheet => ({
  title: `What ${booking.asked.person.name} agreed to`,
  line: about(practice, booking),
  parts: agreementsIn(booking).map((agreement) => agreementPart(practice, agreement)),
})

/** Everything there is about one booking. */
export interface Everything {
  booking: Booking
  events: readonly StoredEvent[]
  mails: readonly SentMail[]
}

/** One file for a dispute: what was agreed, what happened, what was written. */
export function disputeSheet(practice: Practice, { booking, events, mails }: Everything): ProofSheet {
  const record = events.map(upcast)
  const words = happenedWords(practice, record)
  const account = accountOf(booking)
  const currency = currencyOf(account.currency)
  const at = (moment_: Instant): string => moment(moment_, homeZone(practice))
  return {
    title: `Everything with ${booking.asked.person.name} about this session`,
    line: about(practice, booking),
    parts: [
      ...agreementSheet(practice, booking).parts,
      {
        title: 'What happened',
        rows: { head: ['When', 'What'], body: record.map((event, i) => [at(event.at), words[i] ?? '']) },
      },
      {
        title: 'Money',
        rows: {
          head: ['When', 'What', 'Amount'],
          body: account.lines.map((line) => [at(line.at), lineWords(line), money(line.amount, currency)]),
        },
        facts: [
          ['Owed', money(account.owed, currency)],
          ['Paid', money(account.paid, currency)],
          ['Given back', money(account.givenBack, currency)],
          ['Open', money(account.open, currency)],
        ],
      },
      {
        title: 'Messages as they went',
        words:
          mails.length === 0
            ? [{ text: 'None.' }]
            : mails.map((mail) => ({
                heading: `${at(mail.at)}, to ${mail.to}: ${mail.subject} (${mail.state})`,
                text: mail.text ?? '',
              })),
      },
    ],
  }
}

/** The same as data, for a program: with the versions that were agreed to. */
export function disputeData(practice: Practice, { booking, events, mails }: Everything): string {
  const agreements = agreementsIn(booking)
  const terms = practice.terms
    .map(({ id, versions }) => ({
      id,
      versions: versions.filter(({ number }) =>
        agreements.some((one) => one.terms === id && one.version === number),
      ),
    }))
    .filter(({ versions }) => versions.length > 0)
  const { lines: ledger } = accountOf(booking)
  const data = {
    ...{ format: 'acolhida-dispute', version: 1, booking: booking.id },
    ...{ record: events, terms, ledger, mails },
  }
  return `${JSON.stringify(data, null, 2)}\n`
}
