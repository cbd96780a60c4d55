import { createHash, createHmac, timingSafeEqual } from 'node:crypto'
import { type Instant, MINUTE } from '@acolhida/core/time'
import { httpbis } from 'http-message-signatures'

/** How far the moment of signing may lie from now, in ms, before or after. */
export const FRESH = 5 * MINUTE

const FIELDS = ['@method', '@path', 'content-digest']
const ALGORITHM = 'hmac-sha256'

/** The digest of a body as a header has it (RFC 9530). */
export const digestOf = (body: Uint8Array): string =>
  `sha-256=:${createHash('sha256').update(body).digest('base64')}:`

const hmac = (secret: string, data: Buffer): Buffer => createHmac('sha256', secret).update(data).digest()

/** A request as far as it is signed. */
export interface Signed {
  method: string
  path: string
  headers: Readonly<Record<string, string | string[] | undefined>>
}

/**
 * The headers that sign a request and its body: RFC 9421 by HMAC with SHA-256 (RFC 2104), over method, path and the
 * digest of the body, with the moment of signing.
 */
export async function signedHeaders(
  { method, path }: Pick<Signed, 'method' | 'path'>,
  body: Uint8Array,
  secret: string,
  now: Instant,
): Promise<Record<string, string>> {
  const { headers } = await httpbis.signMessage(
    {
      key: { id: 'till', alg: ALGORITHM, sign: async (data) => hmac(secret, data) },
      name: 'till',
      fields: FIELDS,
      params: ['created', 'keyid', 'alg'],
      paramValues: { created: new Date(now) },
    },
    // What stands before the path is not signed: who is called by which name, a proxy may change.
    { method, url: `http://relay${path}`, headers: { 'content-digest': digestOf(body) } },
  )
  return Object.fromEntries(
    Object.entries(headers).map(([name, value]) => [name.toLowerCase(), String(value)]),
  )
}

/** Whether a request and its body, as it came, were signed with a secret within five minutes. */
export async function isSigned(
  { method, path, headers }: Signed,
  raw: Uint8Array,
  secret: string,
  now: Instant,
): Promise<boolean> {
  const header = (name: string): string => {
    const value = headers[name]
    return typeof value === 'string' && value.length <= 1_000 ? value : ''
  }
  const names = ['content-digest', 'signature', 'signature-input']
  const given = Object.fromEntries(names.map((name) => [name, header(name)]))
  if (names.some((name) => given[name] === '') || given['content-digest'] !== digestOf(raw)) return false
  try {
    const verified = await httpbis.verifyMessage(
      {
        keyLookup: async ({ created, alg }) => {
          const at = created instanceof Date ? created.getTime() : Number.NaN
          if (alg !== ALGORITHM || !(Math.abs(at - now) <= FRESH)) return null
          return {
            algs: [ALGORITHM],
            verify: async (data, signature) => {
              const own = hmac(secret, data)
              return own.length === signature.length && timingSafeEqual(own, signature)
            },
          }
        },
        requiredFields: FIELDS,
        requiredParams: ['created', 'keyid', 'alg'],
        // Its freshness is looked at above, by the relay's own clock.
        notAfter: now + FRESH,
        all: true,
      },
      { method, url: `http://relay${path}`, headers: given },
    )
    return verified === true
  } catch {
    return false
  }
}
