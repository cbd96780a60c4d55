import { hasBegun } from '@acolhida/core/booking'
import type { LinkView } from '@acolhida/core/contract'
import { useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import { say } from '../parts/say.ts'
import type { LinkAct } from '../visit/relay.ts'
import { useLedTo } from './my-messages.tsx'

/** Withdrawing and cancelling: what it costs is said on the way, and it is done with a second press. */
export function WayOut({
  view,
  act,
  busy,
  led,
}: {
  view: LinkView
  act: (act: LinkAct) => void
  busy: boolean
  /** A message has led here: what it costs is said at once. */
  led: boolean
}) {
  const [sure, setSure] = useState(led)
  const place = useLedTo(led)
  const begun = useAt((now) => hasBegun(view, now))
  const requested = view.state === 'unproved' || view.state === 'waiting' || view.state === 'unpaid'
  const cancellable = view.state === 'booked' && !begun
  if (!requested && !cancellable) return null
  const name = say(view.state === 'unpaid' ? 'my.let-go' : requested ? 'my.withdraw' : 'my.cancel')
  const cost =
    requested || view.shareNow === 0 || view.price === 0
      ? say('my.nothing-due')
      : say('my.due', { share: view.shareNow })
  return sure ? (
    <section ref={place} tabIndex={-1} className="note mt-5 bg-clay-soft text-clay-ink outline-none">
      <p className="font-semibold" role="status">
        {name}? {cost}
      </p>
      <div className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="press"
          disabled={busy}
          onClick={() => act(requested ? { do: 'withdraw' } : { do: 'cancel', shown: view.shown })}
        >
          {say(requested ? 'my.yes-withdraw' : 'my.yes-cancel')}
        </button>
        <button type="button" className="press press-quiet" onClick={() => setSure(false)}>
          {say('my.keep')}
        </button>
      </div>
    </section>
  ) : (
    <button type="button" className="press press-no mt-5" onClick={() => setSure(true)}>
      {name}
    </button>
  )
}
