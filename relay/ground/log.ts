import pino from 'pino'

/**
 * What the relay says of itself, a line of JSON each, on the error stream. No line holds anything of a client's: a call is
 * named by its pattern in the contract, never by its address, for secrets stand in addresses.
 */
export const log = pino(
  { base: null, timestamp: pino.stdTimeFunctions.isoTime },
  pino.destination({ fd: 2, sync: true }),
)
