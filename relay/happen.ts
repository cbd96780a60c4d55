import type { Booking, BookingEvent } from '@acolhida/core/booking'
import { type Letter, lettersFor } from '@acolhida/core/messages'
import type { Practice } from '@acolhida/core/practice'
import type { Instant } from '@acolhida/core/time'
import { invitation } from './mail/invitation.ts'
import type { Store } from './store/store.ts'

/** How addresses of the door are written in messages. */
export type DoorAddress = (path: string) => string

/**
 * Makes events happen to a booking: appends them to its record and plans the messages that follow from each.
 * Runs inside `store.act`.
 */
export function happen(
  store: Store,
  practice: Practice,
  address: DoorAddress,
  id: string,
  events: readonly BookingEvent[],
  now: Instant,
): Booking {
  let booking = store.booking(id)
  const first = booking?.seq ?? 0
  for (const event of events) {
    booking = store.appendEvent(id, event)
    if (event.type === 'taken-back') takeBack(store, booking, event.of, now)
    if (event.type === 'withdrawn') dropLetters(store, booking.id)
    const ended = !['requested', 'booked'].includes(booking.status) || event.type === 'welcomed'
    if (ended || event.type === 'offered') dropReminder(store, booking.id)
  }
  if (!booking) throw new Error(`Nothing happened to ${id}.`)
  // Straight in: the confirmation says what the receipt would have said.
  const told = events.some((e) => e.type === 'asked') && events.some((e) => e.type === 'welcomed')
  for (const [i, event] of events.entries()) {
    if (told && event.type === 'asked') continue
    for (const letter of lettersFor(practice, booking, event)) {
      post(store, practice, address, booking, first + i + 1, letter, now)
    }
  }
  return booking
}

/** Puts a message into the outbox; one that is there already is not put there again. */
export function post(
  store: Store,
  practice: Practice,
  address: DoorAddress,
  booking: Booking,
  seq: number,
  letter: Letter,
  now: Instant,
): void {
  const link = letter.text.includes('{link}')
    ? address(`/${practice.profile.slug}/my/${store.addLink(booking.id, true)}`)
    : ''
  store.post({
    key: `${booking.id}/${letter.step}/email/${seq}`,
    booking: booking.id,
    seq,
    step: letter.step,
    due: letter.due,
    recipient: letter.to === 'client' ? booking.asked.person.email : practice.profile.email,
    subject: letter.subject,
    body: letter.text.replace('{link}', () => link),
    calendar: letter.invite ? invitation(practice, booking, letter.invite, now) : '',
  })
}

/** A decision taken back takes its message with it, and a reminder of the word is due again. */
function takeBack(store: Store, booking: Booking, of: number, now: Instant): void {
  for (const row of store.waitingLetters(booking.id)) {
    if (row.seq === of) store.settleLetter(row.key, 'taken-back')
  }
  const reminder = store.sleepingReminder(booking.id)
  if (reminder && reminder.due > now) store.wakeReminder(reminder.key)
}

/** Withdrawing while a decision could still be undone: its message would answer what nobody asks any more. */
function dropLetters(store: Store, booking: string): void {
  for (const row of store.waitingLetters(booking)) store.settleLetter(row.key, 'taken-back')
}

function dropReminder(store: Store, booking: string): void {
  for (const row of store.waitingLetters(booking)) {
    if (row.step === 'word-due') store.sleepReminder(row.key)
  }
}
