import { type Booking, type Other, type Others, othersOf, otherTyped } from '@acolhida/core/booking'
import { isMail } from '@acolhida/core/people'
import { useState } from 'react'
import { FormDialog } from '../parts/form-dialog.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { Switch } from '../parts/switch.tsx'
import { decideFor } from '../sync/acts.ts'
import { Card } from './card.tsx'

/** Who else a session concerns: who comes, who pays, and what goes to whom; nothing where it is who asked alone. */
export function Concerned({ booking }: { booking: Booking }) {
  const { comes, pays } = othersOf(booking)
  const { name } = booking.asked.person
  if (!comes && !pays) return null
  return (
    <Card title="Who it concerns">
      <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-1 text-[14px] wrap-anywhere">
        <Line part="Asks" who={{ name }} />
        <Line part="Comes" who={comes ?? { name }} />
        <Line part="Pays" who={pays ?? { name }} />
        <Line part="Agrees, prepares" who={comes?.agrees ? comes : { name }} plain />
        <Line part="Is reminded" who={comes?.reminded ? comes : { name }} plain />
      </dl>
      <SayWhoElse booking={booking} />
    </Card>
  )
}

/** Says who else a session concerns. */
export function SayWhoElse({ booking }: { booking: Booking }) {
  const [open, setOpen] = useState(false)
  const { comes, pays } = othersOf(booking)
  return (
    <>
      <button type="button" className="press press-quiet mt-1.5 -ml-2 px-2" onClick={() => setOpen(true)}>
        {comes || pays ? 'Change…' : 'Somebody else comes or pays…'}
      </button>
      {open && <WhoElse booking={booking} close={() => setOpen(false)} />}
    </>
  )
}

const Line = ({ part, who, plain = false }: { part: string; who: Other; plain?: boolean }) => (
  <>
    <dt className="text-soft">{part}</dt>
    <dd>
      {who.name}
      {!plain && [who.email, who.phone].filter(Boolean).map((way) => <span key={way}> · {way}</span>)}
    </dd>
  </>
)

interface Typed {
  name: string
  email: string
  phone: string
}
const typedOf = (other: Other | undefined): Typed => ({
  ...{ name: other?.name ?? '', email: other?.email ?? '', phone: other?.phone ?? '' },
})

function WhoElse({ booking, close }: { booking: Booking; close: () => void }) {
  const before = othersOf(booking)
  const { name } = booking.asked.person
  const [comes, setComes] = useState(() => typedOf(before.comes))
  const [pays, setPays] = useState(() => typedOf(before.pays))
  const [reminded, setReminded] = useState(before.comes?.reminded === true)
  const [agrees, setAgrees] = useState(before.comes?.agrees === true)
  const who = otherTyped(comes)
  const payer = otherTyped(pays)
  const reachable = who?.email !== undefined && isMail(who.email)
  const others: Others = {
    ...(who
      ? {
          comes: {
            ...who,
            ...(reminded && (reachable || who.phone) ? { reminded } : {}),
            ...(agrees && reachable ? { agrees } : {}),
          },
        }
      : {}),
    ...(payer ? { pays: payer } : {}),
  }
  return (
    <FormDialog
      title="Who it concerns"
      go="Keep"
      does={() => decideFor(booking, { do: 'concern', others })}
      close={close}
    >
      <p className="text-[14px] text-soft">
        {name} has asked, and decides over it. Leave a name empty where it is {name}, too.
      </p>
      <fieldset className="mt-3">
        <legend className="font-semibold">Who comes</legend>
        <Fields what="Who comes" typed={comes} set={setComes} />
        {who && (
          <>
            <Switch label="Reminders of the session go to them" on={reminded} onChange={setReminded} />
            <Switch label="They agree and prepare themselves" on={agrees} onChange={setAgrees} />
            {(agrees || reminded) && !reachable && (
              <p className="text-[14px] font-semibold text-clay" role="status">
                Without a mail address of theirs it goes to {name}.
              </p>
            )}
          </>
        )}
      </fieldset>
      <fieldset className="mt-4">
        <legend className="font-semibold">Who pays</legend>
        <Fields what="Who pays" typed={pays} set={setPays} />
        <p className="mt-1 text-[13px] text-soft">
          Invoices are made out to them; what is to be paid is told to them.
        </p>
      </fieldset>
    </FormDialog>
  )
}

const Fields = ({ what, typed, set }: { what: string; typed: Typed; set: (typed: Typed) => void }) => (
  <div className="mt-1 grid gap-2 sm:grid-cols-2">
    <PlainField label={`${what}: name`} value={typed.name} onChange={(name) => set({ ...typed, name })} />
    <PlainField
      label={`${what}: mail`}
      type="email"
      value={typed.email}
      onChange={(email) => set({ ...typed, email })}
    />
    <PlainField
      label={`${what}: phone`}
      type="tel"
      value={typed.phone}
      onChange={(phone) => set({ ...typed, phone })}
    />
  </div>
)
