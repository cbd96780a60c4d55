/** A postal address as it is asked for. */
export interface PostalAddress {
  street: string
  postalCode: string
  town: string
}

/** The parts of an address answered: a line each. What is missing is empty. */
export function addressOf(answer: string): PostalAddress {
  const [street = '', postalCode = '', ...town] = answer.split('\n').map((line) => line.trim())
  return { street, postalCode, town: town.filter(Boolean).join(', ') }
}

/** An address as an answer; nothing when none of it has been written. */
export const addressAnswer = ({ street, postalCode, town }: PostalAddress): string =>
  street || postalCode || town ? [street, postalCode, town].join('\n') : ''
