import type { Cards, Practice } from '@acolhida/core/practice'
import { Fields } from '../settings/fields.tsx'
import type { Setting } from '../settings/setting.ts'
import { useRelayStatus } from '../sync/use-status.ts'

const withCards = ({ cards: _, ...practice }: Practice, cards: Cards | undefined): Practice =>
  cards ? { ...practice, cards } : practice

const WHAT = 'paying by card'

/** What can be done by card. */
const CARDS: readonly Setting<Practice>[] = [
  {
    label: 'Clients can pay by card',
    what: WHAT,
    is: 'switch',
    path: 'cards',
    read: ({ cards }) => cards !== undefined,
    write: (practice, on) => withCards(practice, on ? {} : undefined),
  },
  {
    label: 'A card is asked for with a request',
    what: WHAT,
    is: 'choice',
    options: [
      { value: '', name: 'No' },
      { value: 'check', name: 'Only looked at' },
      { value: 'keep', name: 'Kept for what may be owed' },
    ],
    show: ({ cards }) => cards !== undefined,
    read: ({ cards }) => cards?.ask ?? '',
    write: (practice, to) => {
      const { ask: _, ...cards } = practice.cards ?? {}
      return withCards(practice, to === 'check' || to === 'keep' ? { ...cards, ask: to } : cards)
    },
  },
  {
    label: 'Only of new people',
    what: WHAT,
    is: 'switch',
    show: ({ cards }) => cards?.ask !== undefined,
    read: ({ cards }) => cards?.strangers ?? false,
    write: (practice, on) => {
      const { strangers: _, ...cards } = practice.cards ?? {}
      return withCards(practice, on ? { ...cards, strangers: true } : cards)
    },
  },
]

/** Paying by card, at the till that the relay is set up with. */
export function CardsCard({ practice }: { practice: Practice }) {
  const till = useRelayStatus()?.till
  return (
    <section className="sheet grid gap-3 p-5">
      <h2>Cards</h2>
      {till ? (
        <p className="text-[14px] text-soft">
          {till === 'live'
            ? 'At your till. No number of a card comes here or to the relay.'
            : 'At a till on trial: no money moves. No number of a card comes here or to the relay.'}
        </p>
      ) : (
        <p className="text-[14px] text-soft">
          The relay is set up with no till: cards can be taken once it is.
        </p>
      )}
      {(till || practice.cards) && (
        <Fields settings={CARDS} of={practice} practice={practice} change={(p, to) => to(p)} narrow />
      )}
    </section>
  )
}
