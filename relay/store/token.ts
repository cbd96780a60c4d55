import { randomBytes } from 'node:crypto'

/** 128 bits of randomness, fit for an address. */
export const token = (): string => randomBytes(16).toString('base64url')
