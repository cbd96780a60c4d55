import type { Practice, Preparation } from '@acolhida/core/practice'
import { asOptions } from '../parts/plain-field.tsx'
import type { Setting } from '../settings/setting.ts'
import { under } from '../settings/setting.ts'

const changed = (one: Preparation, parts: object): Preparation => ({ ...one, ...parts }) as Preparation
const what = 'what clients prepare'

/** Everything that is set of something to prepare, but for a letter's text. */
export const preparationSettings = ({ terms, questionnaires }: Practice): Setting<Preparation>[] => [
  {
    is: 'text',
    label: 'What it is called',
    what,
    ...under<Preparation, 'name'>('name'),
    write: (one, name) => {
      if (!name?.trim()) throw new Error('Please give it a name; clients read it.')
      return changed(one, { name: name.trim() })
    },
  },
  {
    is: 'whole',
    label: 'About how long it takes',
    what,
    suffix: 'min',
    least: 1,
    empty: true,
    ...under<Preparation, 'minutes'>('minutes'),
  },
  {
    is: 'duration',
    label: 'By when',
    what,
    path: 'due.by',
    read: ({ due }) => due.by,
    write: (one, by) => changed(one, { due: { ...one.due, by } }),
  },
  {
    is: 'choice',
    label: 'Counted',
    what,
    path: 'due.from',
    options: [
      { value: 'start', name: 'back from the start of the session' },
      { value: 'end', name: 'on from the end of the session' },
      { value: 'given', name: 'on from when they are given it' },
    ],
    read: ({ due }) => due.from,
    write: (one, from) => changed(one, { due: { ...one.due, from } }),
  },
  {
    is: 'choice',
    label: 'The text to sign',
    what,
    path: 'terms',
    show: ({ is }) => is === 'sign',
    options: terms.map(({ id, versions }) => ({ value: id, name: versions.at(-1)?.title ?? id })),
    read: (one) => (one.is === 'sign' ? one.terms : ''),
    write: (one, id) => changed(one, { terms: id }),
  },
  {
    is: 'choice',
    label: 'The questions',
    what,
    path: 'questionnaire',
    show: ({ is }) => is === 'answer',
    options: asOptions(questionnaires),
    read: (one) => (one.is === 'answer' ? one.questionnaire : ''),
    write: (one, id) => changed(one, { questionnaire: id }),
  },
  {
    is: 'text',
    label: 'What they read beside it',
    what,
    rows: 3,
    empty: true,
    show: ({ is }) => is === 'bring' || is === 'tick',
    read: (one) => (one.is === 'bring' || one.is === 'tick' ? one.text : ''),
    write: (one, text) => changed(one, { text: text ?? '' }),
  },
  {
    is: 'text',
    label: 'Where it is, if it is a page',
    what,
    path: 'address',
    empty: true,
    show: ({ is }) => is === 'tick',
    read: (one) => (one.is === 'tick' ? one.address : undefined),
    write: (one, address) => {
      const to = address?.trim()
      if (to && !/^https?:\/\/[^\s/]+(\/\S*)?$/i.test(to)) throw new Error('A page begins with https://')
      return under<Preparation & { address?: string }, 'address'>('address').write(
        one,
        to || undefined,
      ) as Preparation
    },
  },
  {
    is: 'switch',
    label: 'Once for each person, however often they book',
    what,
    read: ({ once }) => once === true,
    write: (one, on) => under<Preparation, 'once'>('once').write(one, on || undefined),
  },
]
