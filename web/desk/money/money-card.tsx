import {
  agreementsIn,
  type Booking,
  canCharge,
  type DeskDoes,
  expiresBefore,
  type PayWay,
  planOf,
} from '@acolhida/core/booking'
import { accountOf, forLength, lengthWords, referenceOf } from '@acolhida/core/ledger'
import { money } from '@acolhida/core/money'
import { placeOf, zoneOf } from '@acolhida/core/practice'
import { chainHead } from '@acolhida/core/terms'
import { moment } from '@acolhida/core/time'
import { useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import type { Desk } from '../data/live.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { currencyOf, homeZone } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { amount as amountTyped } from '../settings/setting.ts'
import { decideFor } from '../sync/acts.ts'
import { Invoices } from './invoices.tsx'
import { lineWords, PLANNED, WAY_OPTIONS } from './money-words.ts'

/** What one booking costs, how it is to be paid, and what has come. */
export function MoneyCard({ desk, booking }: { desk: Desk; booking: Booking }) {
  const { practice } = desk
  const [doing, setDoing] = useState<Doing>()
  const currency = currencyOf(booking.asked.currency)
  const { lines, open, owed } = accountOf(booking)
  const plan = planOf(booking, zoneOf(practice, placeOf(practice, booking.place)))
  if (booking.price === 0 && lines.length === 0) return null
  const chargeable = open > 0 && canCharge(booking)
  const longer = forLength(booking)
  const outstanding = desk.intentions.some(
    (one) =>
      one.booking === booking.id &&
      !one.refused &&
      ['pay', 'give-back', 'adjust', 'charge'].includes(one.command.do),
  )
  return (
    <Card
      title="Money"
      aside={
        open > 0
          ? `${money(open, currency)} open`
          : open < 0
            ? `${money(-open, currency)} to give back`
            : 'settled'
      }
    >
      {(booking.status === 'requested' || booking.status === 'booked') && (
        <ul className="mt-2 grid gap-0.5 text-[14px] text-soft">
          {plan.map(({ amount, due, kind, first }) => (
            <li key={`${due} ${kind} ${amount}`}>
              {money(amount, currency)} {first ? 'before it is booked' : PLANNED[kind]},{' '}
              {moment(due, homeZone(practice))}
            </li>
          ))}
        </ul>
      )}
      <dl className="figures mt-2 grid gap-1">
        {lines.map((line, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a ledger only grows at its end
          <div key={i} className="flex justify-between gap-4">
            <dt className="min-w-0 wrap-anywhere">{lineWords(line)}</dt>
            <dd>{money(line.amount, currency)}</dd>
          </div>
        ))}
        {lines.length > 1 && (
          <div className="flex justify-between gap-4 border-t border-line pt-1 font-bold">
            <dt>{open < 0 ? 'To give back' : 'Open'}</dt>
            <dd>{money(Math.abs(open), currency)}</dd>
          </div>
        )}
      </dl>
      {practice.transfer && (
        <p className="mt-2 text-[13px] text-soft">
          Reference for transfers: <span className="figures select-all">{referenceOf(booking)}</span>
        </p>
      )}
      <AtTheTill booking={booking} />
      <div className="mt-2 flex flex-wrap gap-2">
        {longer !== 0 && !outstanding && (
          <ActButton
            onAct={() => decideFor(booking, { do: 'adjust', amount: longer, text: lengthWords(booking) })}
          >
            {lengthWords(booking)}: {longer > 0 ? '+' : '−'}
            {money(Math.abs(longer), currency)}
          </ActButton>
        )}
        {open > 0 && owed > 0 && !outstanding && (
          <ActButton onAct={() => decideFor(booking, { do: 'pay', amount: open, way: 'cash' })}>
            {money(open, currency)} paid in cash
          </ActButton>
        )}
        {(['pay', 'give-back', 'adjust', ...(chargeable ? (['charge'] as const) : [])] as const).map(
          (one) => (
            <button key={one} type="button" className="press press-quiet px-2" onClick={() => setDoing(one)}>
              {TITLES[one]}…
            </button>
          ),
        )}
      </div>
      <Invoices desk={desk} booking={booking} />
      {outstanding && (
        <p className="mt-1 text-[14px] font-semibold text-sun-ink">Noted; it has not gone out yet.</p>
      )}
      {doing && <Note booking={booking} open={open} doing={doing} close={() => setDoing(undefined)} />}
    </Card>
  )
}

/** What the till has said, and the card that is kept: how its number ends, and whether it is good until then. */
function AtTheTill({ booking }: { booking: Booking }) {
  const { card, till = [] } = booking
  const currency = currencyOf(booking.asked.currency)
  const open = till.filter(({ is }) => is === 'open')
  const failed = till.at(-1)?.is === 'failed' ? till.at(-1) : undefined
  return (
    <>
      {card && (
        <p className="mt-2 text-[14px]">
          Card that ends in {card.ends}, good until {card.expires}, {card.key ? 'kept' : 'looked at'}.
          {expiresBefore(booking) && <b className="text-clay-ink"> It expires before the session.</b>}
        </p>
      )}
      {open.map(({ payment, what, amount }) => (
        <p key={payment} className="mt-2 text-[14px] text-sun-ink">
          {what === 'card' ? 'They are leaving a card.' : `${money(amount, currency)} by card: under way.`}
        </p>
      ))}
      {failed && (
        <p className="mt-2 text-[14px] text-clay-ink">By card it did not go through. {failed.text}</p>
      )}
    </>
  )
}

type Doing = 'pay' | 'give-back' | 'adjust' | 'charge'
const TITLES: Record<Doing, string> = {
  pay: 'Note a payment',
  'give-back': 'Give something back',
  adjust: 'Change what is owed',
  charge: 'Charge the card',
}

function Note({
  booking,
  open,
  doing,
  close,
}: {
  booking: Booking
  open: number
  doing: Doing
  close: () => void
}) {
  const currency = currencyOf(booking.asked.currency)
  const inUnits = (minor: number): string => (minor / 10 ** currency.decimals).toFixed(currency.decimals)
  const [typed, setTyped] = useState(() =>
    (doing === 'pay' || doing === 'charge') && open > 0
      ? inUnits(open)
      : doing === 'give-back' && open < 0
        ? inUnits(-open)
        : '',
  )
  const [less, setLess] = useState('less')
  const [way, setWay] = useState<PayWay>(doing === 'pay' ? 'transfer' : 'cash')
  const [text, setText] = useState('')
  const act = useAct()
  const agreement = agreementsIn(booking).at(-1)
  const command = (): DeskDoes => {
    const amount = amountTyped(typed, currency.decimals)
    if (amount === 0) throw new Error('Please write an amount.')
    const said = text.trim() ? { text: text.trim() } : {}
    if (doing === 'pay' || doing === 'give-back') return { do: doing, amount, way, ...said }
    if (!text.trim()) throw new Error('Please write why; it stands in the record and on the invoice.')
    if (doing === 'charge') {
      if (amount > open) throw new Error(`That is more than the ${inUnits(open)} that are open.`)
      return { do: 'charge', payment: newKey(), amount, text: text.trim() }
    }
    return { do: 'adjust', amount: less === 'less' ? -amount : amount, text: text.trim() }
  }
  return (
    <Dialog title={TITLES[doing]} close={close}>
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          act.run(() => decideFor(booking, command()), close)
        }}
      >
        {doing === 'adjust' && (
          <PlainChoice
            label="They owe"
            value={less}
            options={[
              { value: 'less', name: 'less' },
              { value: 'more', name: 'more' },
            ]}
            onChange={setLess}
          />
        )}
        {doing === 'charge' && agreement && (
          <p className="text-[14px] text-soft">
            It rests on what they agreed to, number{' '}
            <span className="figures wrap-anywhere">{chainHead(agreement)}</span>. It goes after eight
            seconds.
          </p>
        )}
        <PlainField label={`How much, in ${currency.code}`} value={typed} onChange={setTyped} focused />
        {(doing === 'pay' || doing === 'give-back') && (
          <PlainChoice
            label="How"
            value={way}
            options={WAY_OPTIONS}
            onChange={(to) => setWay(to as PayWay)}
          />
        )}
        <PlainField
          label={doing === 'adjust' || doing === 'charge' ? 'Why' : 'A note, if you like'}
          value={text}
          onChange={setText}
        />
        <ProblemNote of={act} className="" />
        <button type="submit" className="press press-go justify-self-start">
          {doing === 'charge' ? 'Charge it' : 'Keep it'}
        </button>
      </form>
    </Dialog>
  )
}
