import type { LinkView } from '@acolhida/core/contract'
import { type Currency, money } from '@acolhida/core/money'
import { useMutation } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { Notice } from '../parts/notice.tsx'
import { say } from '../parts/say.ts'
import { doorRelay } from '../visit/relay.ts'
import { keepWayBack } from '../visit/way-back.ts'

/** The way to the till for a booking: for a payment, or a card. */
export function AtTill({
  view,
  secret,
  what,
  amount = 0,
}: {
  view: LinkView
  secret: string
  what: 'pay' | 'card'
  amount?: number
}) {
  const [search] = useSearchParams()
  return (
    <TillButton
      {...{ what, amount, currency: view.currency }}
      last={view.till?.what === what ? view.till : undefined}
      ask={() => doorRelay.pay(secret, search.get('booking') ?? undefined, { what, amount })}
    />
  )
}

/** The way to the till, and what has become of the last one. Nothing of a card is typed here. */
export function TillButton({
  what,
  amount,
  currency,
  last,
  ask,
}: {
  what: 'pay' | 'card'
  amount: number
  currency: Currency
  last: Pick<NonNullable<LinkView['till']>, 'is' | 'amount' | 'text'> | undefined
  /** Asks for a page of the till. */
  ask: () => Promise<{ to: string }>
}) {
  const going = useMutation({
    mutationFn: ask,
    onSuccess: ({ to }) => {
      keepWayBack()
      location.assign(to)
    },
  })
  return (
    <>
      {going.error && <Notice>{going.error.message}</Notice>}
      {last && (
        <p role="status" className="note mb-3 bg-sun-soft text-sun-ink">
          {say(`my.till-${last.is}`, { amount: money(last.amount, currency), what })}
          {last.text && ` ${last.text}`}
        </p>
      )}
      <button
        type="button"
        className="press"
        disabled={going.isPending || going.isSuccess}
        onClick={() => going.mutate()}
      >
        {what === 'pay' ? say('my.pay-by-card', { amount: money(amount, currency) }) : say('my.card-leave')}
      </button>
    </>
  )
}
