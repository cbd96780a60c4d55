import type { Practice, Service } from '@acolhida/core/practice'
import { newKey } from '../../relay-client/client.ts'
import { optional, type ServiceField } from './fields.ts'

const APPROVAL = [
  { value: 'ask', name: 'Ask me' },
  { value: 'unsure', name: 'Ask me when unsure' },
  { value: 'straight', name: 'Straight in' },
]
/** For whom it is. */
export const whomFields = (practice: Practice): ServiceField[] => [
  {
    label: 'Who may book it',
    what: 'who may book',
    options: [
      { value: 'everyone', name: 'Everyone' },
      { value: 'link', name: 'Whoever has its link' },
      { value: 'invited', name: 'Only people I have invited' },
    ],
    read: (s) => s.bookableBy,
    write: (s, by) => ({
      ...s,
      bookableBy: by as Service['bookableBy'],
      // Its link stays the same for good, whoever may book it meanwhile.
      ...(by === 'everyone' || s.linkKey ? {} : { linkKey: newKey() }),
    }),
  },
  {
    label: 'New people',
    what: 'who is asked about',
    options: APPROVAL,
    read: (s) => s.approval.new,
    write: (s, to) => ({ ...s, approval: { ...s.approval, new: to as Service['approval']['new'] } }),
  },
  {
    label: 'People you know',
    what: 'who is asked about',
    options: APPROVAL,
    read: (s) => s.approval.known,
    write: (s, to) => ({ ...s, approval: { ...s.approval, known: to as Service['approval']['known'] } }),
  },
  {
    label: 'Questions',
    what: 'the questions of a service',
    options: [
      { value: '', name: 'None' },
      ...practice.questionnaires.map((one) => ({ value: one.id, name: one.name })),
    ],
    read: (s) => s.questionnaire ?? '',
    write: (s, id) => optional(s, 'questionnaire', id, (one) => one),
  },
]
