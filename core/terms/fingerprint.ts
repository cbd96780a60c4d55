import { sha256 } from '@noble/hashes/sha2.js'
import { bytesToHex, utf8ToBytes } from '@noble/hashes/utils.js'
import canonicalize from 'canonicalize'

/**
 * The canonical JSON of a value (RFC 8785): the same value always gives the same bytes.
 * @throws TypeError for what JSON can't hold.
 */
export function canonicalJson(value: unknown): string {
  const text = canonicalize(value)
  if (text === undefined) throw new TypeError('This value has no canonical JSON.')
  return text
}

/** SHA-256 (FIPS 180-4) of a text's UTF-8 bytes, in hexadecimal. */
export const sha256Hex = (text: string): string => bytesToHex(sha256(utf8ToBytes(text)))

/** The fingerprint of a value: SHA-256 of its canonical JSON. */
export const fingerprint = (value: unknown): string => sha256Hex(canonicalJson(value))
