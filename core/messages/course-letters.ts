import type { Booking } from '../booking/index.ts'
import { ibanWords, referenceOf } from '../ledger/index.ts'
import { decimals } from '../money/currency.ts'
import { money } from '../money/words.ts'
import { clientClocks, inLanguage, type Practice, preparationOf, serviceOf } from '../practice/index.ts'
import {
  type Course,
  courseAt,
  nextPay,
  openOfInvoice,
  readerOfCourse,
  type StationState,
  stillToDo,
} from '../preparing/index.ts'
import { type Instant, moment, zone, zonePlace } from '../time/index.ts'
import { lettersIn } from './catalogue.ts'
import type { Letter, Which } from './letter.ts'
import { languageFor, letterText, PAGE } from './lines.ts'
import { invoiceRows } from './money-lines.ts'
import { isOfMoney } from './readers.ts'

/**
 * A message about what somebody was given to do, from how things stand when it goes; nothing where nothing is left.
 * @param booking the one it goes with
 */
export function courseLetter(
  written: Practice,
  course: Course,
  booking: Booking | undefined,
  { step, anchor }: Pick<Which, 'step' | 'anchor'>,
  now: Instant,
): Letter | undefined {
  const { person, path } = course.given
  const { name: reader } = readerOfCourse(course, booking)
  const left = stillToDo(courseAt(written, course, booking, now))
  const isGiven = path !== undefined && step === 'to-prepare' && course.ended === undefined
  if (left.length === 0 && !isGiven && !isOfMoney(step)) return undefined
  const language = languageFor(written, person)
  const say = lettersIn(written, language)
  const practice = inLanguage(written, language)
  const clock = booking ? clientClocks(practice, booking.place, person.zone).first : zone(person.zone)
  const at = (due: Instant): string =>
    say('moment', { moment: moment(due, clock, language), place: zonePlace(clock.name, language) })
  const named = ({ station }: StationState): string =>
    preparationOf(practice, station.preparation)?.name ?? station.name
  const line = (state: StationState): string => {
    const { due, station, progress } = state
    const said = { name: named(state), minutes: station.minutes ?? 0 }
    const begun = progress.filled && progress.filled.answered > 0 ? progress.filled : undefined
    return [
      say('prepare.line', said),
      begun ? say('prepare.begun', { answered: begun.answered, of: begun.of }) : '',
      due === undefined ? '' : say('prepare.by', { due: at(due) }),
    ]
      .filter(Boolean)
      .join(' · ')
  }
  const [first] = left
  const what = { count: left.length, more: left.length - 1, first: first ? named(first) : '' }
  const list = left.map(line).join('\n')
  const page = say('prepare.page', PAGE)
  const text = course.tells?.text ?? ''
  const mail = (subject: string, head: string, said = ''): Letter => ({
    to: 'client',
    subject,
    text: letterText({ practice, say }, reader, [said, head, list, page]),
  })
  const currency = path && { code: path.currency, decimals: decimals(path.currency) }
  const cash = (amount: number): string => (currency ? money(amount, currency, language) : '')
  switch (step) {
    case 'to-prepare':
      if (path) return pathGiven()
      return mail(say('to-prepare.subject', what), say('to-prepare', what), text)
    case 'prepare-chased':
      return mail(say('prepare-chased.subject', what), say('prepare-chased', what), text)
    case 'prepare-soon':
      return mail(say('prepare-soon.subject', what), say('prepare-soon', what))
    case 'path-pay':
      return path && payDue(path.name)
    case 'path-invoice':
      return path && invoiced(path.name)
    default:
      return undefined
  }

  function pathGiven(): Letter {
    const { name, sessions, pays } = path!
    const counted = new Map<string, number>()
    for (const one of sessions) {
      const called = say('path.session', {
        name: serviceOf(practice, one.service)?.name ?? one.name,
        minutes: one.minutes,
      })
      counted.set(called, (counted.get(called) ?? 0) + 1)
    }
    const many = [...counted].map(([called, count]) => say('path.sessions', { called, count }))
    const money = pays.map(({ amount, due }) => say('price-line', { amount: cash(amount), when: at(due) }))
    return {
      to: 'client',
      subject: say('path.subject', { name }),
      text: letterText({ practice, say }, reader, [
        text,
        [say('path.given', { name }), ...many].join('\n'),
        money.length > 0 ? [say('path.price', { price: cash(path!.price) }), ...money].join('\n') : '',
        left.length > 0 ? `${say('to-prepare', what)}\n${list}` : '',
        sessions.length > 0 ? say('path.plan', PAGE) : page,
      ]),
    }
  }

  /** What is due of a path by its next date; nothing where it has come. */
  function payDue(name: string): Letter | undefined {
    const owed = nextPay(course)
    if (!owed || anchor !== owed.due) return undefined
    return {
      to: 'client',
      subject: say('path-pay.subject', { name }),
      text: letterText({ practice, say }, person.name, [
        say('path-pay', { name, amount: cash(owed.amount), when: at(owed.due) }),
        transferred(),
        say('path.page', PAGE),
      ]),
    }
  }

  /** How money can come by a transfer; nothing where it can't. */
  function transferred(): string {
    const { transfer } = practice
    return transfer
      ? say('path.transfer', {
          name: transfer.name,
          iban: ibanWords(transfer.iban),
          reference: referenceOf(course),
        })
      : ''
  }

  /** An invoice of parts of the price: what it is for, and what of it is open. */
  function invoiced(name: string): Letter | undefined {
    const invoice = course.invoices?.[anchor - 1]
    if (!invoice) return undefined
    const { number, corrects, text: why = '' } = invoice
    const open = openOfInvoice(course, invoice, now)
    return {
      to: 'client',
      subject: say('invoice.subject', { number, service: name }),
      text: letterText({ practice, say }, person.name, [
        corrects
          ? say('path-invoice.back', { number, corrects, name })
          : say('path-invoice', { number, name }),
        why,
        invoiceRows(invoice, say, cash),
        !corrects && open > 0
          ? [say('invoice.open', { amount: cash(open) }), transferred()].filter(Boolean).join('\n')
          : '',
        say('path.page', PAGE),
      ]),
    }
  }
}
