import type { Practice } from '@acolhida/core/practice'
import { type Agreement, type AgreementFault, verifyAgreements } from '@acolhida/core/terms'
import { moment } from '@acolhida/core/time'
import { useState } from 'react'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { counted, homeZone } from '../parts/words.ts'

const WHAT: Record<AgreementFault['what'], string> = {
  text: 'the text it names reads otherwise than it did',
  shown: 'what it says was filled in does not give the text that was shown',
  version: 'the version it names is not here',
  previous: 'the agreement it follows has been changed, or is not here',
  twice: 'it follows the same agreement as another',
  number: 'the number is nowhere among the agreements here',
}

/** Proves every agreement there is against the texts and one another; nothing leaves the desk for it. */
export function ProveAll({ practice }: { practice: Practice }) {
  const [number, setNumber] = useState('')
  const [told, setTold] = useState<{ agreements: Agreement[]; faults: AgreementFault[]; forgotten: number }>()
  const prove = async (): Promise<void> => {
    const { agreementsOf } = await import('@acolhida/core/waiting')
    const found = agreementsOf(
      await db.bookings.toArray(),
      await db.lines.toArray(),
      await db.courses.toArray(),
    )
    const agreements = found.map(({ agreement }) => agreement)
    const { faults, forgotten } = verifyAgreements(
      practice.terms,
      agreements,
      number.trim() || undefined,
      (await db.forgotten.toArray()).flatMap((one) => one.agreements),
    )
    setTold({ agreements, faults, forgotten })
  }
  return (
    <section className="sheet p-5">
      <h2>Prove every agreement</h2>
      <p className="mt-1 text-[14px] text-soft">
        Against the texts as they were published, and one another: a changed byte is found and named.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        <div className="min-w-0 grow">
          <PlainField
            label="The number from a confirmation, if you have one"
            value={number}
            onChange={setNumber}
          />
        </div>
        <ActButton onAct={prove}>Prove them</ActButton>
      </div>
      <div role="status" className="mt-2">
        {told?.faults.length === 0 && (
          <p className="font-semibold text-leaf">
            {counted(told.agreements.length, 'agreement holds', 'agreements hold')}
            {told.forgotten > 0
              ? `, and ${told.forgotten} of people who were forgotten, by their numbers`
              : ''}
            .
          </p>
        )}
        {told?.faults.map(({ index, what }) => {
          const agreement = told.agreements[index]
          return (
            <p key={`${index} ${what}`} className="font-semibold text-clay">
              {agreement
                ? `${agreement.name}, ${moment(agreement.at, homeZone(practice))}: ${WHAT[what]}.`
                : `${WHAT[what]}.`}
            </p>
          )
        })}
      </div>
    </section>
  )
}
