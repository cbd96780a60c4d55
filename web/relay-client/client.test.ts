import { letIn } from '@acolhida/core/schemas'
import { id } from '@acolhida/core/shape'
import { bookingName } from '@acolhida/core/shape/plain'
import { afterEach, expect, it, vi } from 'vitest'
import { newKey } from './client.ts'

afterEach(() => {
  vi.restoreAllMocks()
})

it('names what is new by a name that every schema takes, whatever chance gives', () => {
  for (const byte of [0x00, 0x7f, 0x80, 0xf8, 0xfb, 0xfc, 0xff]) {
    vi.spyOn(crypto, 'getRandomValues').mockImplementation((into) => {
      if (into instanceof Uint8Array) into.fill(byte)
      return into
    })
    const key = newKey()
    expect(key).toMatch(/^[A-Za-z][\w-]{21}$/)
    expect(letIn(id, key, 'A name')).toBe(key)
    expect(letIn(bookingName, key, 'A name')).toBe(key)
  }
})
