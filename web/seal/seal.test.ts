import { createDecipheriv, createHash, createPrivateKey, createPublicKey, diffieHellman } from 'node:crypto'
import fc from 'fast-check'
import { expect, it } from 'vitest'
import { newSealKeys, openAll, publicHalf, type SealKeys } from './open.ts'
import { canSeal, seal } from './seal.ts'

/**
 * Opens by the text of the standards and Node.js alone: ECDH-ES with the Concat KDF (RFC 7518 §4.6.2), then
 * AES-256-GCM over the parts of the compact form (RFC 7516 §5.2).
 */
function openByHand(sealed: string, keys: SealKeys): string {
  const [head, empty, iv, text, tag] = sealed.split('.')
  expect(empty).toBe('')
  const header = JSON.parse(Buffer.from(head!, 'base64url').toString())
  expect([header.alg, header.enc]).toEqual(['ECDH-ES', 'A256GCM'])
  const secret = diffieHellman({
    privateKey: createPrivateKey({ key: { ...keys }, format: 'jwk' }),
    publicKey: createPublicKey({ key: header.epk, format: 'jwk' }),
  })
  const number = (n: number): Buffer => Buffer.from(Uint8Array.of(n >>> 24, n >>> 16, n >>> 8, n))
  const field = (bytes: Buffer): Buffer => Buffer.concat([number(bytes.length), bytes])
  const info = [field(Buffer.from('A256GCM')), field(Buffer.alloc(0)), field(Buffer.alloc(0)), number(256)]
  const key = createHash('sha256')
    .update(Buffer.concat([number(1), secret, ...info]))
    .digest()
  const opener = createDecipheriv('aes-256-gcm', key, Buffer.from(iv!, 'base64url'))
  opener.setAAD(Buffer.from(head!, 'ascii'))
  opener.setAuthTag(Buffer.from(tag!, 'base64url'))
  return Buffer.concat([opener.update(Buffer.from(text!, 'base64url')), opener.final()]).toString()
}

it('seals any answer so that the desk opens it as it was', async () => {
  expect(canSeal()).toBe(true)
  const keys = await newSealKeys()
  await fc.assert(
    fc.asyncProperty(
      fc.oneof(
        fc.string({ unit: 'grapheme', maxLength: 200 }),
        fc.boolean(),
        fc.integer(),
        fc.array(fc.string(), { maxLength: 4 }),
      ),
      async (value) => {
        const answers = { q: await seal('q', value, publicHalf(keys)), open: 'as it is' }
        expect(await openAll(answers, keys)).toEqual({ q: value, open: 'as it is' })
      },
    ),
    { numRuns: 40 },
  )
})

it('writes what the standards say, as Node.js reads it by itself', async () => {
  const keys = await newSealKeys()
  const { sealed } = await seal('ill', 'ção 🎶', publicHalf(keys))
  expect(JSON.parse(openByHand(sealed, keys))).toEqual({ question: 'ill', value: 'ção 🎶' })
})

it('seals the same answer otherwise each time, and hides it', async () => {
  const keys = await newSealKeys()
  const once = await seal('q', 'my secret', publicHalf(keys))
  expect(await seal('q', 'my secret', publicHalf(keys))).not.toEqual(once)
  const parts = once.sealed.split('.').map((part) => Buffer.from(part, 'base64url').toString('latin1'))
  expect(parts.join(' ')).not.toContain('secret')
})

it('leaves sealed what was meant for another desk, changed on the way, or put in another place', async () => {
  const keys = await newSealKeys()
  const right = await seal('q', true, publicHalf(keys))
  const other = await seal('q', true, publicHalf(await newSealKeys()))
  // Each part but the empty one: a letter in its middle is another (its last may carry bits that count for nothing).
  const parts = right.sealed.split('.')
  const another = (letter: string): string => (letter === 'A' ? 'B' : 'A')
  for (const [i, part] of parts.entries()) {
    if (part === '') continue
    const at = Math.floor(part.length / 2)
    const bent = part.slice(0, at) + another(part[at]!) + part.slice(at + 1)
    const changed = { sealed: parts.with(i, bent).join('.') }
    expect(await openAll({ q: changed }, keys)).toEqual({ q: changed })
  }
  expect(await openAll({ q: other }, keys)).toEqual({ q: other })
  expect(await openAll({ p: right }, keys)).toEqual({ p: right })
  expect(Object.keys(publicHalf(keys)).sort()).toEqual(['crv', 'kty', 'x', 'y'])
})
