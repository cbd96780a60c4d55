import { agreementsIn, type Booking, isPlaced, stateAt } from '@acolhida/core/booking'
import { formatInstant, moment } from '@acolhida/core/time'
import { useState } from 'react'
import { useAt } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { useLacking } from '../parts/booking-tile.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { fileNameOf, saveFile } from '../parts/file.tsx'
import { Tick } from '../parts/tick.tsx'
import { homeZone, termsTitle } from '../parts/words.ts'
import { decideFor } from '../sync/acts.ts'
import { Card } from './card.tsx'

const fileName = (booking: Booking, what: string): string =>
  fileNameOf(`${what} ${booking.asked.person.name}`)

/** Saves what was agreed to as a PDF, or prints it. */
async function savePdf(desk: Desk, booking: Booking, print: boolean): Promise<void> {
  const [{ agreementSheet }, { pdfOf }] = await Promise.all([
    import('../proof/proof.ts'),
    import('../proof/pdf.ts'),
  ])
  const bytes = await pdfOf(agreementSheet(desk.practice, booking))
  if (!print) {
    saveFile(`${fileName(booking, 'agreement')}.pdf`, 'application/pdf', bytes)
    return
  }
  const url = URL.createObjectURL(new Blob([bytes], { type: 'application/pdf' }))
  window.open(url, '_blank', 'noopener')
  // The window that was opened has it by then.
  setTimeout(() => URL.revokeObjectURL(url), 60_000)
}

/** Saves everything about a booking twice: to be read, and as data. */
async function saveDispute(desk: Desk, booking: Booking): Promise<void> {
  const [{ disputeData, disputeSheet }, { pdfOf }] = await Promise.all([
    import('../proof/proof.ts'),
    import('../proof/pdf.ts'),
  ])
  const rows = await db.events
    .where('[booking+seq]')
    .between([booking.id, 0], [booking.id, Number.POSITIVE_INFINITY])
    .toArray()
  const mails = await db.mails.where('booking').equals(booking.id).toArray()
  const all = { booking, events: rows.map(({ event }) => event), mails }
  const name = fileName(booking, 'everything')
  saveFile(`${name}.pdf`, 'application/pdf', await pdfOf(disputeSheet(desk.practice, all)))
  saveFile(`${name}.json`, 'application/json', disputeData(desk.practice, all))
}

/** What was agreed to, what still is to be, and the files that prove it. */
export function Agreed({ desk, booking }: { desk: Desk; booking: Booking }) {
  const { practice } = desk
  const [signing, setSigning] = useState(false)
  const agreements = agreementsIn(booking)
  const lacking = useLacking(practice, booking)
  const comes = useAt((now) => {
    const state = stateAt(booking, now)
    return state.is === 'booked' && !state.over
  })
  const separate = practice.terms.filter((terms) => terms.separate)
  const here = isPlaced({ is: stateAt(booking, booking.latest).is })
  return (
    <Card title="Agreed to">
      {agreements.length === 0 && lacking.length === 0 && (
        <p className="mt-2 text-soft">There were no terms to agree to.</p>
      )}
      {lacking.length > 0 && (
        <p className="note mt-2 bg-sun-soft text-sun-ink">
          Not agreed to yet: {lacking.map(({ version }) => `“${version.title}”`).join(', ')}. They do so
          through their link
          {practice.unagreed === 'may-not' ? '; without it the session does not take place.' : '.'}
        </p>
      )}
      {agreements.map((agreement) => (
        <div key={agreement.previous + agreement.terms} className="mt-2">
          {termsTitle(practice, agreement.terms, agreement.version)}, version {agreement.version}
          <div className="text-[14px] text-soft">
            <time dateTime={formatInstant(agreement.at)}>{moment(agreement.at, homeZone(practice))}</time> ·
            typed “{agreement.name}”
            <br />
            fingerprint{' '}
            <span className="figures">
              {agreement.fingerprint.slice(0, 4)} {agreement.fingerprint.slice(4, 8)} …{' '}
              {agreement.fingerprint.slice(-4)}
            </span>
          </div>
        </div>
      ))}
      <div className="mt-3 flex flex-wrap gap-2">
        {agreements.length > 0 && (
          <>
            <ActButton className="press press-quiet px-2" onAct={() => savePdf(desk, booking, false)}>
              Save as PDF
            </ActButton>
            <ActButton className="press press-quiet px-2" onAct={() => savePdf(desk, booking, true)}>
              Open to print
            </ActButton>
          </>
        )}
        {separate.length > 0 && comes && (
          <button type="button" className="press press-quiet px-2" onClick={() => setSigning(true)}>
            Ask to sign…
          </button>
        )}
        {(here || agreements.length > 0) && (
          <ActButton className="press press-quiet px-2" onAct={() => saveDispute(desk, booking)}>
            Everything as a file
          </ActButton>
        )}
      </div>
      {signing && <AskToSign desk={desk} booking={booking} close={() => setSigning(false)} />}
    </Card>
  )
}

function AskToSign({ desk, booking, close }: { desk: Desk; booking: Booking; close: () => void }) {
  const separate = desk.practice.terms.filter((terms) => terms.separate)
  const asked = new Set(booking.toSign?.terms)
  const [terms, setTerms] = useState<string[]>([])
  const act = useAct()
  const { name } = booking.asked.person
  return (
    <Dialog title={`Ask ${name} to sign`} close={close}>
      <p className="mb-2 text-soft">
        {name} gets a mail, reads it behind their link, ticks it and types their name. It is kept in the one
        chain of agreements.
      </p>
      {separate.map(({ id, versions }) => (
        <Tick
          key={id}
          label={`${versions.at(-1)?.title ?? id}${asked.has(id) ? ' (asked already)' : ''}`}
          on={terms.includes(id)}
          onChange={(on) => setTerms((now) => (on ? [...now, id] : now.filter((one) => one !== id)))}
        />
      ))}
      <button
        type="button"
        className="press press-go mt-3"
        disabled={terms.length === 0}
        onClick={() => act.run(() => decideFor(booking, { do: 'sign', terms }), close)}
      >
        Ask for it
      </button>
      <ProblemNote of={act} />
    </Dialog>
  )
}
