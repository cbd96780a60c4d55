import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { type Agreement, agree, chainHead, shownTerms, type TermsVersion } from '@acolhida/core/terms'
import { instant } from '@acolhida/core/time'
import { expect, it } from 'vitest'

// The script stands in the document as anybody would copy it from there; only Python's own library is used.
const text = readFileSync(resolve(import.meta.dirname, '..', 'docs', 'agreements.md'), 'utf8')
const script = /```python\n([\s\S]*?)```/.exec(text)?.[1] ?? ''

const version = {
  number: 3,
  title: 'Studio terms – “fair”',
  text: 'Come in time.\n{service} with {practitioner}; ação & co. \\ "x"',
}
const values = { service: 'Voice', practitioner: 'Iria Montalvar', 'free-until': 'until 24 h before' }
const shown = shownTerms(version, values)
const by = (name: string, previous: string, of: TermsVersion = version): Agreement =>
  agree(
    { id: 'studio', version: of },
    { name, service: 'voice', at: instant(1_795_000_000_000), values },
    previous,
  )

function proved(given: object): string[] {
  const { stdout, stderr } = spawnSync('python3', ['-c', script], {
    input: JSON.stringify(given),
    encoding: 'utf8',
  })
  expect(stderr).toBe('')
  return stdout.trim().split('\n')
}
const hasPython = spawnSync('python3', ['--version']).status === 0

it.runIf(hasPython)('an agreement is proved from the documents alone, by the script in them', () => {
  const first = by('Tomé Arrais', '')
  const second = by('Öykü', chainHead(first))
  expect(proved({ agreement: second, version, shown, number: chainHead(second) })).toEqual([
    'version: True',
    'shown: True',
    'number: True',
  ])
  const text = version.text.replace('time', 'Time')
  expect(
    proved({ agreement: second, version: { ...version, text }, shown, number: chainHead(second) })[0],
  ).toBe('version: False')
  expect(
    proved({ agreement: { ...second, name: 'Oyku' }, version, shown, number: chainHead(second) })[2],
  ).toBe('number: False')
  expect(
    proved({ agreement: { ...second, previous: '' }, version, shown, number: chainHead(second) })[2],
  ).toBe('number: False')
})

it.runIf(hasPython)('so is one with clauses', () => {
  const clauses = [
    {
      ...{ id: 'a', title: 'Cancelling', short: 'Free “until” the day before' },
      text: [{ p: [{ text: 'Free ', bold: true }, { field: 'free-until' as const }] }],
    },
  ]
  const of: TermsVersion = { number: 4, title: 'Studio terms', text: '', clauses }
  const agreement = by('Tomé', '', of)
  const published = { number: 4, title: 'Studio terms', clauses }
  const given = { agreement, version: published, shown: shownTerms(of, values), number: chainHead(agreement) }
  expect(proved(given)).toEqual(['version: True', 'shown: True', 'number: True'])
})

it('the document names every field of an agreement', () => {
  for (const field of Object.keys(by('A', ''))) expect(text).toContain(`| \`${field}\` |`)
})
