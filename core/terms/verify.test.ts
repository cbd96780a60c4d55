import { createHash } from 'node:crypto'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { parseInstant, shift } from '../time/index.ts'
import { type Agreement, agree, chainHead, type Terms, verifyAgreements } from './index.ts'

const version = { number: 1, title: 'Terms', text: 'A time is yours once it is confirmed.' }
const terms: Terms[] = [{ id: 't', versions: [version, { ...version, number: 2, text: 'Otherwise.' }] }]
const from = parseInstant('2026-11-24T11:00Z')

/** So many agreements, each following the one before. */
function chain(length: number): Agreement[] {
  const made: Agreement[] = []
  for (let i = 0; i < length; i++) {
    const by = { name: `Somebody ${i}`, service: 's', at: shift(from, i * 1_000), values: {} }
    const previous = made.at(-1)
    made.push(
      agree(
        { id: 't', version: terms[0]!.versions[i % 2]! },
        by,
        previous === undefined ? '' : chainHead(previous),
      ),
    )
  }
  return made
}

describe('a list of agreements', () => {
  it('holds in any order, and ends with the number of the last (by node:crypto)', () => {
    const whole = chain(20)
    const last = whole.at(-1)!
    const keys = Object.keys(last).sort()
    const plain = JSON.stringify(last, keys)
    const head = createHash('sha256').update(plain).digest('hex')
    fc.assert(
      fc.property(fc.shuffledSubarray(whole, { minLength: 20 }), (given) => {
        expect(verifyAgreements(terms, given, head)).toEqual({ head, forgotten: 0, faults: [] })
      }),
      { numRuns: 20 },
    )
    expect(verifyAgreements(terms, [])).toEqual({ head: '', forgotten: 0, faults: [] })
  })

  it('names where a changed byte is: that one, or the one that follows it', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 12 }),
        fc.nat(),
        fc.constantFrom('name', 'service', 'shown', 'fingerprint', 'at', 'version', 'previous'),
        (length, nth, key) => {
          const given = chain(length)
          const at = nth % length
          const old = given[at]!
          given[at] = {
            ...old,
            [key]: typeof old[key] === 'number' ? (old[key] as number) + 1 : `${old[key]}x`,
          }
          const head = chainHead(chain(length).at(-1)!)
          const { faults } = verifyAgreements(terms, given, head)
          expect(faults.length).toBeGreaterThan(0)
          for (const { index, what, after } of faults) {
            expect([at, at + 1, ...(what === 'number' ? [index] : [])]).toContain(index)
            if (what === 'previous') expect([at - 1, at]).toContain(after)
          }
        },
      ),
    )
  })

  it('finds one taken out, a cut end where its number is known, one put in, and a text changed afterwards', () => {
    const whole = chain(6)
    const head = chainHead(whole.at(-1)!)
    expect(verifyAgreements(terms, whole.toSpliced(2, 1), head).faults).toEqual([
      { index: 2, what: 'previous', after: 1 },
    ])
    expect(verifyAgreements(terms, whole.slice(0, 4), head).faults).toEqual([{ index: 3, what: 'number' }])
    expect(verifyAgreements(terms, whole.slice(0, 4)).faults).toEqual([])
    const put = { ...whole[3]!, name: 'Somebody else' }
    expect(verifyAgreements(terms, [...whole, put], head).faults).toEqual([{ index: 6, what: 'twice' }])
    const other = [{ ...terms[0]!, versions: [version, { ...version, number: 2, text: 'otherwise.' }] }]
    expect(verifyAgreements(other, whole, head).faults).toEqual([
      { index: 1, what: 'text' },
      { index: 3, what: 'text' },
      { index: 5, what: 'text' },
    ])
    expect(verifyAgreements([], whole.slice(0, 1)).faults).toEqual([{ index: 0, what: 'version' }])
  })
})
