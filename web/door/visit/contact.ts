import { type Contact, type Others, otherTyped } from '@acolhida/core/booking'
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

/** Whoever comes, with what goes to them. */
function coming({ reminded, agrees, ...who }: TypedOther): Others['comes'] {
  const other = otherTyped(who)
  return other && { ...other, ...(reminded ? { reminded } : {}), ...(agrees ? { agrees } : {}) }
}

/** Who asks, as the relay is told it. @param zone their own */
export function contactOf({ phone, others = {}, ...person }: TypedPerson, zone: string): Contact {
  const comes = others.comes && coming(others.comes)
  const pays = others.pays && otherTyped(others.pays)
  return {
    ...person,
    ...{ zone, language: inForce() },
    ...(phone ? { phone } : {}),
    ...(comes || pays ? { others: { ...(comes ? { comes } : {}), ...(pays ? { pays } : {}) } } : {}),
  }
}
