import type { Contact, Other } from '@acolhida/core/booking'
import { inForce } from '@acolhida/core/time'

/** Somebody else, as they are typed. */
export interface TypedOther {
  name: string
  email: string
  /** Of who comes: what goes to them. */
  reminded?: boolean
  agrees?: boolean
}

export interface TypedOthers {
  comes?: TypedOther
  pays?: TypedOther
}

/** Who asks, as they are typed. */
export interface TypedPerson {
  name: string
  email: string
  phone: string
  /** Who else it concerns. */
  others?: TypedOthers
}

const sent = ({ name, email, reminded, agrees }: TypedOther): Other & { reminded?: true; agrees?: true } => ({
  name: name.trim(),
  ...(email.trim() ? { email: email.trim() } : {}),
  ...(reminded ? { reminded } : {}),
  ...(agrees ? { agrees } : {}),
})

/** Who asks, as the relay is told it. @param zone their own */
export function contactOf({ phone, others = {}, ...person }: TypedPerson, zone: string): Contact {
  const { comes, pays } = others
  const besides = { ...(comes ? { comes: sent(comes) } : {}), ...(pays ? { pays: sent(pays) } : {}) }
  return {
    ...person,
    ...{ zone, language: inForce() },
    ...(phone ? { phone } : {}),
    ...(comes || pays ? { others: besides } : {}),
  }
}
