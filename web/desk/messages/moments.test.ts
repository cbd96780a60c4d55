import { desk, door } from '@acolhida/core/contract'
import { receiverOf, type Step } from '@acolhida/core/messages'
import { bookIn } from '@acolhida/core/words'
import '@acolhida/core/words/all'
import { expect, it } from 'vitest'
import { isClients } from './moments.ts'

const codesOf = (endpoints: object): Set<string> =>
  new Set(Object.values(endpoints).flatMap(({ codes }: { codes: readonly string[] }) => [...codes]))

it('what a client can be refused with is theirs to be said otherwise, and what only the desk can is not', () => {
  const theirs = codesOf(door)
  // What only a program of somebody’s own making could meet, and what is said to clients in words of its own.
  const others = new Set(['key-reused', 'no-key', 'not-waiting', 'not-booked'])
  for (const code of Object.keys(bookIn('en', 'refusals'))) {
    if (code.includes('.')) continue
    if (theirs.has(code)) expect([code, isClients(`refusals.${code}`)]).toEqual([code, !others.has(code)])
    else if (codesOf(desk).has(code)) expect([code, isClients(`refusals.${code}`)]).toEqual([code, false])
  }
})

it('letters to the practitioner are not the client’s', () => {
  for (const key of Object.keys(bookIn('en', 'letters'))) {
    const step = key.split('.')[0] as Step
    if (receiverOf(step) === 'practitioner') expect([key, isClients(`letters.${key}`)]).toEqual([key, false])
  }
})
