import { spawnSync } from 'node:child_process'
import { readFileSync } from 'node:fs'
import { resolve } from 'node:path'
import { type Agreement, agree, chainHead, shownText } from '@acolhida/core/terms'
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
const shown = shownText(version.text, { service: 'Voice', practitioner: 'Iria Montalvar' })
const by = (name: string, previous: string): Agreement =>
  agree(
    { id: 'studio', version },
    { name, service: 'voice', at: instant(1_795_000_000_000), shown },
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

it('the document names every field of an agreement', () => {
  for (const field of Object.keys(by('A', ''))) expect(text).toContain(`| \`${field}\` |`)
})
