import type { LinkView } from '@acolhida/core/contract'
import { money } from '@acolhida/core/money'
import { useMutation } from '@tanstack/react-query'
import { useSearchParams } from 'react-router'
import { Notice } from '../parts/notice.tsx'
import { say } from '../parts/say.ts'
import { doorRelay } from '../visit/relay.ts'
import { keepWayBack } from '../visit/way-back.ts'

/** The way to the till, for a payment or a card, and what has become of the last one. Nothing of a card is typed here. */
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
  const going = useMutation({
    mutationFn: () => doorRelay.pay(secret, search.get('booking') ?? undefined, { what, amount }),
    onSuccess: ({ to }) => {
      keepWayBack()
      location.assign(to)
    },
  })
  const last = view.till?.what === what ? view.till : undefined
  return (
    <>
      {going.error && <Notice>{going.error.message}</Notice>}
      {last && (
        <p role="status" className="note mb-3 bg-sun-soft text-sun-ink">
          {say(`my.till-${last.is}`, { amount: money(last.amount, view.currency), what: last.what })}
          {last.text && ` ${last.text}`}
        </p>
      )}
      <button
        type="button"
        className="press"
        disabled={going.isPending || going.isSuccess}
        onClick={() => going.mutate()}
      >
        {what === 'pay'
          ? say('my.pay-by-card', { amount: money(amount, view.currency) })
          : say('my.card-leave')}
      </button>
    </>
  )
}
