import { lackingIn, type Payment, toldFrom } from '../booking/index.ts'
import { placeOf } from '../practice/index.ts'
import { isToldToWhoComes } from '../preparing/reader.ts'
import { MINUTE, shift } from '../time/index.ts'
import { type ClientStep, type LetterKind, NEWS } from './letter.ts'
import {
  afterwardsLine,
  agreedLines,
  askedLines,
  by,
  costLines,
  everythingLine,
  givenIfNoneLine,
  givenLine,
  LINKS,
  lackingLine,
  moveLine,
  prepareLine,
  startOf,
  tellsPlace,
  timeOf,
  whereLine,
} from './lines.ts'
import { firstLine, invoiceLines, onAskingLine, priceLine } from './money-lines.ts'

/** Whether a payment is money that the till has given back. */
const isBack = ({ amount, source }: Payment): boolean => amount < 0 && source?.startsWith('till ') === true

/** Every message to the client about a booking. */
export const CLIENT_LETTERS: { [S in ClientStep]: LetterKind } = {
  asked: {
    write: (w) => ({
      subject: w.say('asked.subject', { service: w.service, when: startOf(w) }),
      body: [w.say('asked', { service: w.service, when: timeOf(w) }), ...askedLines(w), onAskingLine(w)],
    }),
  },
  confirmation: {
    write: (w, now) => ({
      subject: w.say('confirmation.subject', { service: w.service, when: startOf(w) }),
      body: [
        w.say('confirmation', { service: w.service, when: timeOf(w) }),
        w.booking.text,
        whereLine(w, tellsPlace(w, now)),
        priceLine(w),
        costLines(w, now),
        moveLine(w, now),
        lackingLine(w),
        prepareLine(w),
        everythingLine(w, now),
        w.say('confirmation.looking-forward'),
        afterwardsLine(w),
        ...agreedLines(w),
      ],
      invite: 'REQUEST',
    }),
  },
  'to-pay': {
    write: (w, now) => ({
      subject: w.say('to-pay.subject', { service: w.service, when: startOf(w) }),
      body: [
        w.say('to-pay', { service: w.service, when: timeOf(w) }),
        w.booking.text,
        firstLine(w),
        costLines(w, now),
        lackingLine(w),
        w.say('to-pay.link', LINKS),
      ],
    }),
  },
  place: {
    write: (w) => ({
      subject: w.say('place.subject', { service: w.service, when: startOf(w) }),
      body: [
        w.say('place', { service: w.service, when: timeOf(w) }),
        whereLine(w, true),
        w.say('everything', LINKS),
      ],
    }),
    plan: ({ status, tells, start, placed, place: id }, practice) => {
      const place = practice && placeOf(practice, id)
      if (status !== 'booked' || place?.told !== 'last-reminder' || !place.address) return undefined
      const from = toldFrom(start)
      // What goes that late anyway tells it.
      return (tells?.due ?? 0) < from ? { anchor: placed, at: from, useful: start } : undefined
    },
  },
  declined: {
    write: (w) => ({
      subject: w.say('declined.subject', { service: w.service, when: startOf(w) }),
      body: [
        ...(w.booking.text
          ? [w.booking.text, w.say('declined.which', { service: w.service, when: timeOf(w) })]
          : [w.say('declined', { service: w.service, when: timeOf(w) })]),
        givenLine(w),
        w.say('stands', LINKS),
        w.say('again', LINKS),
      ],
    }),
  },
  offered: {
    write: (w) => ({
      subject: w.say('offered.subject', { service: w.service }),
      body: [
        w.booking.worded === undefined
          ? ''
          : w.say('offered.instead', { service: w.service, when: timeOf(w) }),
        w.booking.text,
        w.say('offered', { count: w.booking.offers.length }),
        w.booking.offers.map(({ start, place }) => `  ${timeOf(w, start, place)}`).join('\n'),
        w.say('offered.until', { until: by(w, w.booking.until), ...LINKS }),
        givenIfNoneLine(w),
      ],
      ...(w.booking.worded === undefined ? {} : { invite: 'CANCEL' as const }),
    }),
  },
  lapsed: {
    write: (w) => ({
      subject: w.say('lapsed.subject', { service: w.service, when: startOf(w) }),
      body: [
        w.say(
          w.booking.tells?.offered
            ? 'lapsed.offered'
            : w.booking.owes
              ? 'lapsed.unpaid'
              : w.booking.mailProved
                ? 'lapsed.asked'
                : 'lapsed.unproved',
          { service: w.service, when: timeOf(w) },
        ),
        givenLine(w),
        w.say('stands', LINKS),
        w.say('again', LINKS),
      ],
    }),
  },
  withdrawn: {
    write: (w) => ({
      subject: w.say('withdrawn.subject', { service: w.service, when: startOf(w) }),
      body: [
        w.say('withdrawn', { service: w.service, when: timeOf(w) }),
        givenLine(w),
        w.say('again', LINKS),
      ],
    }),
  },
  moved: {
    write: (w, now) => ({
      subject: w.say('moved.subject', { service: w.service, when: startOf(w) }),
      body: [
        w.say(w.booking.movedBy ? 'moved.by-you' : 'moved', { service: w.service, when: timeOf(w) }),
        whereLine(w, tellsPlace(w, now)),
        w.booking.text,
        priceLine(w),
        costLines(w, now),
        ...(w.booking.movedBy ? [moveLine(w, now), everythingLine(w, now)] : [w.say('moved.link', LINKS)]),
      ],
      invite: 'REQUEST',
    }),
  },
  cancelled: {
    write: (w) => {
      const mine = w.booking.cancelledBy === 'practitioner'
      const about = { service: w.service, when: timeOf(w) }
      const due = w.booking.share > 0 && w.booking.price > 0
      return {
        subject: w.say('cancelled.subject', { service: w.service, when: startOf(w) }),
        body: mine
          ? [
              w.say('cancelled.by-me', about),
              givenLine(w),
              w.booking.text,
              w.say('stands', LINKS),
              w.say('again', LINKS),
            ]
          : [
              w.say('cancelled.by-you', about),
              due ? w.say('cancelled.share', { share: w.booking.share }) : w.say('cancelled.free'),
              w.say('stands', LINKS),
              w.say('again', LINKS),
            ],
        invite: 'CANCEL',
      }
    },
  },
  agree: {
    write: (w) => ({
      subject: w.say('agree.subject', { service: w.service, when: startOf(w) }),
      body: [lackingLine(w) || w.say('everything', LINKS)],
    }),
    plan: (booking, practice) => {
      const { status, start, worded, toSign } = booking
      if (status !== 'booked' || !practice || worded === undefined) return undefined
      // Told when a version asks it of what is booked, or when something is to be signed; by hand, with the word.
      const lacking = lackingIn(practice, booking, {}, worded)
      const news = lacking.flatMap(({ version: { again, since } }) =>
        again === 'before' && since !== undefined && since > worded ? [since as number] : [],
      )
      const signing =
        toSign && lacking.some(({ id }) => toSign.terms.includes(id)) ? [toSign.due as number] : []
      // The confirmation tells who asked of it, not who comes.
      const themselves = lacking.length > 0 && isToldToWhoComes(booking) ? [worded as number] : []
      const at = Math.max(...news, ...signing, ...themselves)
      return Number.isFinite(at) ? { anchor: at, at, useful: start } : undefined
    },
  },
  invoice: {
    write: (w) => ({
      subject: w.say('invoice.subject', {
        number: w.booking.invoices?.at(-1)?.number ?? '',
        service: w.service,
      }),
      body: [...invoiceLines(w), w.say('everything', LINKS)],
    }),
    plan: ({ invoices = [] }) => {
      const last = invoices.at(-1)
      return last ? { anchor: invoices.length, at: last.at, useful: shift(last.at, NEWS) } : undefined
    },
  },
  'given-back': {
    write: (w) => {
      const amount = w.money(-(w.booking.payments?.findLast(isBack)?.amount ?? 0))
      return {
        subject: w.say('given-back.subject', { amount, service: w.service }),
        body: [w.say('given-back', { amount, service: w.service, when: timeOf(w) }), w.say('stands', LINKS)],
      }
    },
    // What goes back by itself is told; what the practitioner gives by hand, they say themselves.
    plan: ({ payments = [] }) => {
      const last = payments.findLastIndex(isBack)
      const at = payments[last]?.at
      return at === undefined ? undefined : { anchor: last, at, useful: shift(at, NEWS) }
    },
  },
  question: {
    write: (w) => ({
      subject: w.say('question.subject', { service: w.service, when: startOf(w) }),
      body: [
        w.say('question', { service: w.service, when: timeOf(w) }),
        w.booking.question?.text ?? '',
        w.say('question.answer', { until: by(w, w.booking.until), ...LINKS }),
      ],
    }),
  },
  excepted: {
    write: (w) => {
      const answer = w.booking.plea?.answer
      return {
        subject: w.say('excepted.subject', { service: w.service, when: startOf(w) }),
        body: [
          w.say(answer?.granted ? 'excepted.yes' : 'excepted.no', { service: w.service, when: timeOf(w) }),
          answer?.text ?? '',
          w.say('everything', LINKS),
        ],
      }
    },
  },
  'running-late': {
    write: (w) => {
      const minutes = w.booking.runsLate?.minutes ?? 0
      return {
        subject: w.say('running-late.subject', { service: w.service, minutes }),
        body: [
          w.say('running-late', { service: w.service, when: timeOf(w), minutes }),
          givenLine(w),
          w.say('everything', LINKS),
        ],
      }
    },
    plan: ({ status, runsLate, start }) =>
      status === 'booked' && runsLate
        ? { anchor: runsLate.seq, at: runsLate.due, useful: shift(start, (runsLate.minutes + 60) * MINUTE) }
        : undefined,
  },
}
