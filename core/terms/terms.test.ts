import { describe, expect, it } from 'vitest'
import { instant } from '../time/index.ts'
import {
  agree,
  brokenAt,
  canonicalJson,
  chainHead,
  fingerprint,
  sha256Hex,
  shownText,
  versionFingerprint,
} from './index.ts'

describe('canonical JSON', () => {
  it('writes the example of RFC 8785 §3.2.2 and §3.2.3', () => {
    const sample = JSON.parse(`{
      "numbers": [333333333.33333329, 1E30, 4.50, 2e-3, 0.000000000000000000000000001],
      "string": "\\u20ac$\\u000F\\u000aA'\\u0042\\u0022\\u005c\\\\\\"\\/",
      "literals": [null, true, false]
    }`)
    expect(canonicalJson(sample)).toBe(
      '{"literals":[null,true,false],"numbers":[333333333.3333333,1e+30,4.5,0.002,1e-27],"string":"€$\\u000f\\nA\'B\\"\\\\\\\\\\"/"}',
    )
  })

  it('sorts keys by UTF-16 code units, as RFC 8785 §3.2.3', () => {
    const sample = {
      '\u20ac': 'Euro Sign',
      '\r': 'Carriage Return',
      '\ufb33': 'Hebrew Letter Dalet With Dagesh',
      '1': 'One',
      '\ud83d\ude00': 'Emoji: Grinning Face',
      '\u0080': 'Control',
      '\u00f6': 'Latin Small Letter O With Diaeresis',
    }
    expect(Object.values(JSON.parse(canonicalJson(sample)))).toHaveLength(7)
    expect([...canonicalJson(sample).matchAll(/:"([^"]+)"/g)].map((match) => match[1])).toEqual([
      'Carriage Return',
      'One',
      'Control',
      'Latin Small Letter O With Diaeresis',
      'Euro Sign',
      'Emoji: Grinning Face',
      'Hebrew Letter Dalet With Dagesh',
    ])
  })

  it('refuses what JSON can not hold', () => {
    expect(() => canonicalJson(undefined)).toThrow('no canonical JSON')
    expect(() => canonicalJson({ a: Number.NaN })).toThrow()
  })
})

describe('SHA-256', () => {
  // FIPS 180-4, examples of the Secure Hash Standard.
  it.each([
    ['abc', 'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad'],
    [
      'abcdbcdecdefdefgefghfghighijhijkijkljklmklmnlmnomnopnopq',
      '248d6a61d20638b8e5c026930c3e6039a33ce45964ff2167f6ecedd419db06c1',
    ],
    ['', 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855'],
  ])('of "%s"', (text, expected) => {
    expect(sha256Hex(text)).toBe(expected)
  })
})

describe('agreements', () => {
  const version = { number: 3, title: 'Studio terms', text: 'Come in time, {name}.' }
  const by = (name: string, previous: string) =>
    agree(
      { id: 'terms', version },
      { name, service: 's', at: instant(1), shown: shownText(version.text, { name }) },
      previous,
    )

  it('fingerprints the version and the text as it was shown', () => {
    const agreement = by('Tomé', '')
    expect(agreement.fingerprint).toBe(versionFingerprint('terms', version))
    expect(agreement.shown).toBe(fingerprint('Come in time, Tomé.'))
    expect(versionFingerprint('terms', { ...version, text: 'Come in time, {name}!' })).not.toBe(
      agreement.fingerprint,
    )
    expect(shownText('{unknown} {name}', { name: 'A' })).toBe('{unknown} A')
  })

  it('makes one chain in which no change and no cut end stays unnoticed', () => {
    const chain = [by('A', '')]
    for (const name of ['B', 'C', 'D']) chain.push(by(name, chainHead(chain.at(-1)!)))
    const head = chainHead(chain.at(-1)!)
    expect(brokenAt(chain, head)).toBe(-1)
    expect(brokenAt(chain.slice(0, -1), head)).toBe(3)
    expect(brokenAt(chain.with(1, { ...chain[1]!, name: 'X' }), head)).toBe(2)
    expect(brokenAt(chain.toSpliced(1, 1), head)).toBe(1)
  })
})
