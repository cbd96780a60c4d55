import type { PayWay } from '@acolhida/core/booking'
import { type Currency, type Minor, money } from '@acolhida/core/money'
import { MOST_OF_A_PATH, type Practice } from '@acolhida/core/practice'
import type { Balance } from '@acolhida/core/preparing'
import { useState } from 'react'
import { WAY_OPTIONS } from '../money/money-words.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { FormDialog } from '../parts/form-dialog.tsx'
import { NumberField } from '../parts/number-field.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { counted, serviceName } from '../parts/words.ts'
import { amount as amountTyped } from '../settings/setting.ts'
import { doWithCourse } from '../sync/acts.ts'

/** A path that something is done with. */
interface Acting {
  course: string
  currency: Currency
  balance: Balance
  close: () => void
}

const asTyped = (amount: Minor, { decimals }: Currency): string => (amount / 10 ** decimals).toFixed(decimals)

/** Something has come for it. */
export function Pay({ course, currency, balance, close }: Acting) {
  const [much, setMuch] = useState(asTyped(balance.overdue || balance.open, currency))
  const [way, setWay] = useState<PayWay>('transfer')
  const [text, setText] = useState('')
  return (
    <FormDialog
      title="Something has come"
      go="Note it"
      does={() =>
        doWithCourse(course, {
          ...{ do: 'pay', amount: amountTyped(much, currency.decimals), way },
          ...(text.trim() ? { text: text.trim() } : {}),
        })
      }
      close={close}
    >
      <div className="grid gap-3">
        <PlainField label={`How much, in ${currency.code}`} value={much} onChange={setMuch} focused />
        <PlainChoice label="How" value={way} options={WAY_OPTIONS} onChange={(to) => setWay(to as PayWay)} />
        <PlainField label="A note, if you like" value={text} onChange={setText} />
      </div>
    </FormDialog>
  )
}

/** More sessions, each like one of its own. */
export function Extend({ practice, course, currency, balance, close }: Acting & { practice: Practice }) {
  const kinds = [
    ...new Map(
      balance.sessions.map(({ session }) => [`${session.service} ${session.minutes}`, session]),
    ).values(),
  ]
  const [like, setLike] = useState(kinds.at(-1)?.id ?? '')
  const [many, setMany] = useState(1)
  const [price, setPrice] = useState<string>()
  const worth = kinds.find(({ id }) => id === like)?.worth ?? 0
  const shown = price ?? asTyped(worth * many, currency)
  return (
    <FormDialog
      title="Make it longer"
      go={`Add ${counted(many, 'session', 'sessions')}`}
      does={() =>
        doWithCourse(course, { do: 'extend', like, many, price: amountTyped(shown, currency.decimals) })
      }
      close={close}
      ready={many >= 1}
    >
      <div className="grid gap-3">
        <NumberField label="How many sessions more" value={many} most={MOST_OF_A_PATH} onChange={setMany} />
        <PlainChoice
          label="Like"
          value={like}
          options={kinds.map(({ id, service, minutes }) => ({
            value: id,
            name: `${serviceName(practice, service)}, ${minutes} min`,
          }))}
          onChange={setLike}
        />
        <PlainField
          label={`What they cost together, in ${currency.code}`}
          value={shown}
          onChange={setPrice}
        />
      </div>
    </FormDialog>
  )
}

/** It ends before all of it was had: what was used, and what is to be given back. */
export function EndPath({ course, currency, balance, close }: Acting) {
  const act = useAct()
  const { used, left, planned, worth, back, paid } = balance
  const end = (given = 0): void =>
    act.run(() => doWithCourse(course, { do: 'end', ...(given > 0 ? { back: given } : {}) }), close)
  return (
    <Dialog title="End it early" close={close}>
      <p>
        {counted(used, 'session is', 'sessions are')} used, worth {money(worth, currency)} by minutes;{' '}
        {money(paid, currency)} has come.
      </p>
      <p className="mt-2 font-semibold">
        {back > 0
          ? `${money(back, currency)} is to be given back.`
          : back < 0
            ? `${money(-back, currency)} is still to be paid for what was used.`
            : 'Nothing is to be paid or given back.'}
      </p>
      {planned > 0 && (
        <p className="mt-2 text-[14px] text-soft">
          {counted(planned, 'session stays', 'sessions stay')} booked; cancel what is not to take place on its
          own page, or under “End sessions from one on”.
        </p>
      )}
      {left > 0 && (
        <p className="mt-2 text-[14px] text-soft">
          {counted(left, 'session is', 'sessions are')} left and can be planned no more.
        </p>
      )}
      <ProblemNote of={act} />
      <div className="mt-4 flex flex-wrap gap-2">
        <button type="button" className="press press-go" data-first disabled={act.busy} onClick={() => end()}>
          End it
        </button>
        {back > 0 && (
          <button type="button" className="press" disabled={act.busy} onClick={() => end(back)}>
            End it, and note {money(back, currency)} as given back
          </button>
        )}
      </div>
    </Dialog>
  )
}
