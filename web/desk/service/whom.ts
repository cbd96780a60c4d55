import type { Practice, Service } from '@acolhida/core/practice'
import { newKey } from '../../relay-client/client.ts'
import { type Setting, under } from '../settings/setting.ts'

/** Whether my word is needed, as it is chosen, and as it is said of people. */
export const APPROVAL = [
  { value: 'ask', name: 'Ask me', said: 'wait for my word' },
  { value: 'unsure', name: 'Ask me when unsure', said: 'wait for my word if a rule says so' },
  { value: 'straight', name: 'Straight in', said: 'are booked at once' },
]

const asked = (label: string, of: 'new' | 'known'): Setting<Service> => ({
  label,
  what: 'who is asked about',
  is: 'choice',
  options: APPROVAL,
  path: `approval.${of}`,
  read: ({ approval }) => approval[of],
  write: (service, to) => ({
    ...service,
    approval: { ...service.approval, [of]: to as Service['approval']['new'] },
  }),
})

/** A word that booking or finishing it sets by itself. */
const moved = (label: string, of: 'booked' | 'attended'): Setting<Service> => ({
  label,
  what: 'how far one has come',
  is: 'text',
  empty: true,
  path: `moves.${of}`,
  read: ({ moves }) => moves?.[of],
  write: ({ moves = {}, ...service }, typed) => {
    const { [of]: _, ...others } = moves
    const word = typed?.trim().slice(0, 60)
    const next = word ? { ...others, [of]: word } : others
    return Object.keys(next).length > 0 ? { ...service, moves: next } : service
  },
})

/** For whom it is. */
export const whomFields = (practice: Practice): readonly Setting<Service>[] => [
  {
    label: 'Who may book it',
    what: 'who may book',
    is: 'choice',
    options: [
      { value: 'everyone', name: 'Everyone' },
      { value: 'link', name: 'Whoever has its link' },
      { value: 'invited', name: 'Only people I have invited' },
    ],
    path: 'bookableBy',
    read: ({ bookableBy }) => bookableBy,
    write: (service, by) => ({
      ...service,
      bookableBy: by as Service['bookableBy'],
      // Its link stays the same for good, whoever may book it meanwhile.
      ...(by === 'everyone' || service.linkKey ? {} : { linkKey: newKey() }),
    }),
  },
  moved('Once it is booked, the word for them is', 'booked'),
  moved('Once it has taken place', 'attended'),
  asked('New people', 'new'),
  asked('People you know', 'known'),
  {
    label: 'Questions',
    what: 'the questions of a service',
    is: 'choice',
    options: [
      { value: '', name: 'None' },
      ...practice.questionnaires.map((questionnaire) => ({
        value: questionnaire.id,
        name: questionnaire.name,
      })),
    ],
    path: 'questionnaire',
    read: ({ questionnaire }) => questionnaire ?? '',
    write: (service, id) =>
      under<Service, 'questionnaire'>('questionnaire').write(service, id === '' ? undefined : id),
  },
]
