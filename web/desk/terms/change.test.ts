import { lackingTerms, type Practice } from '@acolhida/core/practice'
import { asClauses, versionFingerprint } from '@acolhida/core/terms'
import { parseInstant } from '@acolhida/core/time'
import { demoBackup } from '@acolhida/demo'
import { expect, it } from 'vitest'
import { beginIn, type TextDraft, withAlso, withPublished } from './change.ts'

const now = parseInstant('2026-11-24T11:00Z')
const practice: Practice = { ...demoBackup(now).practice, languages: ['pt'] }
const [{ id, versions }] = practice.terms as [Practice['terms'][number]]
const version = versions.at(-1)!
const draft = (): TextDraft => {
  const begun = beginIn(versions, 'pt')
  return {
    ...begun,
    title: 'Condições',
    clauses: begun.clauses.map((clause) => ({ ...clause, title: `pt ${clause.title}` })),
  }
}
const spoken = withAlso(practice, id, { number: version.number, language: 'pt' }, draft())
const versionsOf = (of: Practice) => of.terms.find((one) => one.id === id)!.versions

it('a version stands in another language beside the same version, and then stays', () => {
  expect(lackingTerms(practice, 'pt').map((one) => one.id)).toContain(id)
  expect(lackingTerms(spoken, 'pt').map((one) => one.id)).not.toContain(id)
  const last = versionsOf(spoken).at(-1)!
  expect(versionsOf(spoken)).toHaveLength(versions.length)
  expect(last.also?.pt?.title).toBe('Condições')
  expect(versionFingerprint(id, last)).toBe(versionFingerprint(id, version))
  expect(() => withAlso(spoken, id, { number: version.number, language: 'pt' }, draft())).toThrow('already')
  expect(() =>
    withAlso(practice, id, { number: version.number, language: 'pt' }, { ...draft(), clauses: [] }),
  ).toThrow('at least one clause')
})

it('the next version lacks it, and begins with what has stayed the same', () => {
  const clauses = asClauses(version)
  const [first, ...others] = clauses.map((clause, i) => (i === 0 ? { ...clause, title: 'Anew' } : clause))
  const changed = { title: version.title, clauses: [first!, ...others], document: '', again: 'next' as const }
  const next = withPublished(spoken, id, changed, now)
  expect(lackingTerms(next, 'pt').map((one) => one.id)).toContain(id)
  const begun = beginIn(versionsOf(next), 'pt')
  expect(begun.title).toBe('Condições')
  expect(begun.clauses.map(({ title }) => title)).toEqual([
    'Anew',
    ...others.map(({ title }) => `pt ${title}`),
  ])
})
