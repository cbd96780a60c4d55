import type { Booking, Contact, Other, Others } from './record.ts'

/** In what part somebody is written to: as who has asked, who comes, or who pays. */
export type ConcernedAs = 'asks' | 'comes' | 'pays'

/** Who else a booking concerns: as was said with it, or since. */
export const othersOf = ({ asked, others = asked.person.others ?? {} }: Booking): Others => others

/** Who comes to the session: its own person, or whoever it was booked for. */
export const whoComes = (booking: Booking): string =>
  othersOf(booking).comes?.name ?? booking.asked.person.name

/** Who comes, and who has asked for them where that is somebody else. */
export function comesAndAsks(booking: Booking): string {
  const { name } = booking.asked.person
  const { comes } = othersOf(booking)
  return comes ? `${comes.name} (${name})` : name
}

/** Whether what is to be agreed to and prepared is theirs who come, not theirs who asked. */
export const agreesThemselves = (booking: Booking): boolean => othersOf(booking).comes?.agrees === true

/** Somebody else as they were typed, without what was left empty; nothing where no name was. */
export function otherTyped({
  name,
  email,
  phone = '',
}: Record<'name' | 'email', string> & { phone?: string }): Other | undefined {
  if (!name.trim()) return undefined
  return {
    name: name.trim(),
    ...(email.trim() ? { email: email.trim() } : {}),
    ...(phone.trim() ? { phone: phone.trim() } : {}),
  }
}

/** Whom a message reaches, and in what part. */
export interface Reached {
  as: ConcernedAs
  name: string
  /** The address or number; nothing where who asked has none of the kind. */
  to: string | undefined
}

/**
 * Whom something reaches that is meant for a part: whoever has it, and who asked where there is nobody of that part, or
 * no way to them.
 */
export function reachedAs(
  { name, email, phone }: Pick<Contact, 'name' | 'email' | 'phone'>,
  { comes, pays }: Others,
  part: ConcernedAs,
  by: 'email' | 'text',
): Reached {
  const other = part === 'comes' ? comes : part === 'pays' ? pays : undefined
  const to = by === 'text' ? other?.phone : other?.email
  return other && to
    ? { as: part, name: other.name, to }
    : { as: 'asks', name, to: by === 'text' ? phone : email }
}
