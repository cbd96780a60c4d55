import { describe, expect, it } from 'vitest'
import { instant } from '../time/index.ts'
import {
  agree,
  agreedText,
  asClauses,
  brokenAt,
  type Clause,
  canonicalJson,
  chainHead,
  clauseFault,
  fieldsIn,
  fingerprint,
  sha256Hex,
  shownAsText,
  shownTerms,
  shownText,
  type TermsVersion,
  verifyAgreements,
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
  const version = { number: 3, title: 'Studio terms', text: 'Come in time, {service}.' }
  const by = (name: string, previous: string) =>
    agree(
      { id: 'terms', version },
      { name, service: 's', at: instant(1), values: { service: name, practitioner: 'Iria' } },
      previous,
    )

  it('fingerprints the version and the text as it was shown', () => {
    const agreement = by('Tomé', '')
    expect(agreement.fingerprint).toBe(versionFingerprint('terms', version))
    expect(agreement.shown).toBe(fingerprint('Come in time, Tomé.'))
    expect(versionFingerprint('terms', { ...version, text: 'Come in time, {service}!' })).not.toBe(
      agreement.fingerprint,
    )
    expect(shownText('{unknown} {name}', { name: 'A' })).toBe('{unknown} A')
  })

  it('holds a text in another language as it was read; the version is the same in each', () => {
    const also = { pt: { title: 'Condições', text: 'Chegue a horas: {service}.' } }
    const both = { ...version, also }
    const read = (language?: string) =>
      agree(
        { id: 'terms', version: both },
        {
          ...{ name: 'Tomé', service: 's', at: instant(1), values: { service: 'Voz' } },
          ...(language ? { language } : {}),
        },
        '',
      )
    const agreement = read('pt')
    expect(agreement).toMatchObject({
      language: 'pt',
      fingerprint: versionFingerprint('terms', version),
      shown: fingerprint('Chegue a horas: Voz.'),
    })
    // What it is not there in, and what it was written in, is read as first written.
    for (const other of [read('fr'), read()]) {
      expect(other.language).toBeUndefined()
      expect(other.shown).toBe(fingerprint('Come in time, Voz.'))
    }
    const whole = [{ id: 'terms', versions: [both] }]
    expect(agreedText(whole, agreement)).toMatchObject({ title: 'Condições', shown: 'Chegue a horas: Voz.' })
    expect(verifyAgreements(whole, [agreement]).faults).toEqual([])
    for (const versions of [[version], [{ ...both, also: { pt: { ...also.pt, text: 'Outra coisa.' } } }]])
      expect(verifyAgreements([{ id: 'terms', versions }], [agreement]).faults).toEqual([
        { index: 0, what: 'shown' },
      ])
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

describe('terms made of clauses', () => {
  const clauses: Clause[] = [
    {
      id: 'a',
      title: 'Cancelling',
      short: 'Free until the day before.',
      text: [
        {
          p: [
            { text: 'Free of charge ' },
            { field: 'free-until' },
            { text: ', then ' },
            { field: 'late-cost' },
          ],
        },
        {
          list: [[{ text: 'Bold', bold: true }], [{ text: 'more', href: 'https://example.org/x' }]],
          ordered: true,
        },
      ],
    },
  ]
  const version: TermsVersion = {
    number: 4,
    title: 'T',
    text: '',
    clauses,
    document: 'https://example.org/long',
  }
  const values = { 'free-until': 'until 24 h before', 'late-cost': '100 %', grace: 'unused' }

  it('have their fields filled with the rules, and say with what', () => {
    expect(fieldsIn(version)).toEqual(['free-until', 'late-cost'])
    const agreement = agree({ id: 't', version }, { name: 'N', service: 's', at: instant(1), values }, '')
    expect(agreement.fields).toEqual({ 'free-until': 'until 24 h before', 'late-cost': '100 %' })
    const shown = shownTerms(version, agreement.fields!)
    expect(agreement.shown).toBe(fingerprint(shown))
    expect(shownAsText(shown)).toBe(
      [
        'Cancelling\nFree of charge until 24 h before, then 100 %',
        '1. Bold\n2. more (https://example.org/x)',
        'https://example.org/long',
      ].join('\n\n'),
    )
    expect(fingerprint({ id: 't', number: 4, title: 'T', clauses, document: version.document })).toBe(
      versionFingerprint('t', version),
    )
    // Who must agree again, and when it was published, are no part of what is agreed to.
    const told: TermsVersion = { ...version, again: 'before', since: instant(9) }
    expect(versionFingerprint('t', told)).toBe(versionFingerprint('t', version))
  })

  it('are a clause of their own where a plain text is written on', () => {
    const plain: TermsVersion = { number: 1, title: 'T', text: 'With {practitioner}.\n\nCome in {time}.' }
    expect(asClauses(plain)).toEqual([
      {
        ...{ id: 'clause-1', title: 'T', short: '' },
        text: [
          { p: [{ text: 'With ' }, { field: 'practitioner' }, { text: '.' }] },
          { p: [{ text: 'Come in {time}.' }] },
        ],
      },
    ])
    expect(clauseFault({ id: 'x', title: ' ', short: '', text: [] })).toMatch('title')
    expect(clauseFault({ id: 'x', title: 'X', short: '', text: [{ p: [{ text: ' ' }] }] })).toMatch('nothing')
    expect(clauseFault(clauses[0]!)).toBeUndefined()
  })

  it('whose filled text was changed afterwards are found', () => {
    const one = agree({ id: 't', version }, { name: 'N', service: 's', at: instant(1), values }, '')
    const terms = [{ id: 't', versions: [version] }]
    expect(verifyAgreements(terms, [one]).faults).toEqual([])
    const changed = { ...one, fields: { ...one.fields!, 'late-cost': '50 %' } }
    expect(verifyAgreements(terms, [changed]).faults).toEqual([{ index: 0, what: 'shown' }])
  })
})
