import type { HowMuch, PaymentLine, Practice, WhenPaid } from '@acolhida/core/practice'
import { freeId } from '@acolhida/core/questions'
import { duration } from '@acolhida/core/time'
import { percent } from '../settings/rules.ts'
import type { Setting } from '../settings/setting.ts'
import { idsOf } from './make.tsx'
import { withService } from './with-service.ts'

/** The most lines by which a price can be paid. */
export const MOST_LINES = 12

const MUCH: Record<HowMuch['kind'], HowMuch> = {
  rest: { kind: 'rest' },
  share: { kind: 'share', percent: 30 },
  sum: { kind: 'sum', amount: 2_000 },
}
const DUE: Record<WhenPaid['kind'], WhenPaid> = {
  asking: { kind: 'asking' },
  word: { kind: 'word' },
  before: { kind: 'before', by: duration('P7D') },
  'on-the-day': { kind: 'on-the-day' },
  after: { kind: 'after', by: duration('P14D') },
}

/** Whether what is paid then can be asked for before it is booked. */
const canBeFirst = ({ kind }: WhenPaid): boolean => kind === 'asking' || kind === 'word' || kind === 'before'

/** One line: how much, and when. */
export const LINE: readonly Setting<PaymentLine>[] = [
  {
    label: 'How much',
    what: 'how it is paid',
    is: 'choice',
    options: [
      { value: 'rest', name: 'What is left' },
      { value: 'share', name: 'A share of the price' },
      { value: 'sum', name: 'A sum' },
    ],
    read: ({ much }) => much.kind,
    write: (line, kind) => ({ ...line, much: MUCH[kind as HowMuch['kind']] }),
  },
  {
    label: 'Share',
    what: 'how it is paid',
    is: 'whole',
    suffix: '% of the price',
    show: ({ much }) => much.kind === 'share',
    read: ({ much }) => (much.kind === 'share' ? much.percent : 0),
    write: (line, share) => ({ ...line, much: { kind: 'share', percent: percent(share) } }),
  },
  {
    label: 'Sum',
    what: 'how it is paid',
    is: 'money',
    show: ({ much }) => much.kind === 'sum',
    read: ({ much }) => (much.kind === 'sum' ? much.amount : 0),
    write: (line, amount = 0) => ({ ...line, much: { kind: 'sum', amount } }),
  },
  {
    label: 'When',
    what: 'how it is paid',
    is: 'choice',
    options: [
      { value: 'asking', name: 'On asking' },
      { value: 'word', name: 'On my word' },
      { value: 'before', name: 'Before the session' },
      { value: 'on-the-day', name: 'On the day' },
      { value: 'after', name: 'After the session' },
    ],
    read: ({ due }) => due.kind,
    write: ({ first, ...line }, kind) => {
      const due = DUE[kind as WhenPaid['kind']]
      return canBeFirst(due) && first ? { ...line, due, first } : { ...line, due }
    },
  },
  {
    label: 'How long before or after',
    what: 'how it is paid',
    is: 'duration',
    show: ({ due }) => 'by' in due,
    read: ({ due }) => ('by' in due ? due.by : duration('P7D')),
    write: (line, by) => ('by' in line.due ? { ...line, due: { ...line.due, by } } : line),
  },
  {
    label: 'It is booked only when this has come',
    what: 'how it is paid',
    is: 'switch',
    help: 'Until then the time is kept, for as long as you say under Requests; then it is free again.',
    show: ({ due }) => canBeFirst(due),
    read: ({ first = false }) => first,
    write: ({ first: _, ...line }, on) => (on ? { ...line, first: true } : line),
  },
  {
    label: 'For whom',
    what: 'how it is paid',
    is: 'choice',
    options: [
      { value: '', name: 'Everybody' },
      { value: 'new', name: 'New people' },
      { value: 'known', name: 'Known people' },
    ],
    read: ({ standing }) => standing ?? '',
    write: ({ standing: _, ...line }, to) =>
      to === 'new' || to === 'known' ? { ...line, standing: to } : line,
  },
]

const withLines = (
  practice: Practice,
  service: string,
  change: (lines: PaymentLine[]) => PaymentLine[],
): Practice =>
  withService(practice, service, ({ payment = [], ...rest }) => {
    const next = change(payment)
    return next.length > 0 ? { ...rest, payment: next } : rest
  })

/** One line more: at first a deposit, then the rest. */
export const withLine = (practice: Practice, service: string): Practice =>
  withLines(practice, service, (lines) => [
    ...lines,
    {
      id: freeId(idsOf(lines), 'line'),
      much: lines.length === 0 ? MUCH.share : MUCH.rest,
      due: lines.length === 0 ? DUE.word : DUE['on-the-day'],
    },
  ])

export const withLineAt = (
  practice: Practice,
  service: string,
  id: string,
  to: (line: PaymentLine) => PaymentLine,
): Practice =>
  withLines(practice, service, (lines) => lines.map((line) => (line.id === id ? to(line) : line)))

export const withoutLine = (practice: Practice, service: string, id: string): Practice =>
  withLines(practice, service, (lines) => lines.filter((line) => line.id !== id))
