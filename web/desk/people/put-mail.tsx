import { LONGEST_REPLY } from '@acolhida/core/people'
import type { Practice } from '@acolhida/core/practice'
import { dateAt, at as dateTimeOf, instantOf, type LocalDate, time } from '@acolhida/core/time'
import { useState } from 'react'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { db } from '../data/db.ts'
import { putReply } from '../data/replies.ts'
import type { PersonRow } from '../data/rows.ts'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { DateInput } from '../parts/date-field.tsx'
import { Dialog } from '../parts/dialog.tsx'
import { Labelled } from '../parts/labelled.tsx'
import { PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { homeZone } from '../parts/words.ts'
import type { ReadMail } from './read-mail.ts'

/** A mail before it is put beside somebody. */
export function PutMail({
  practice,
  person,
  mail,
  close,
}: {
  practice: Practice
  person: PersonRow
  mail: ReadMail
  close: () => void
}) {
  const home = homeZone(practice)
  const now = relayNow()
  const begun = dateAt(home, mail.at ?? now)
  const [subject, setSubject] = useState(mail.subject)
  const [text, setText] = useState(mail.text)
  const [day, setDay] = useState<LocalDate | ''>(begun)
  const theirs = mail.from !== undefined && person.emails.includes(mail.from)
  const [address, setAddress] = useState(theirs ? mail.from! : person.emails[0]!)
  const act = useAct()
  const put = async (): Promise<void> => {
    if (!text.trim()) throw new Error('Please put in what they wrote.')
    await putReply(db, {
      ...{ id: `reply-${newKey()}`, mail: address, subject: subject.trim(), text: text.trim() },
      at: day === '' || day === begun ? (mail.at ?? now) : instantOf(home, dateTimeOf(day, time('12:00'))),
      ...(mail.attached.length > 0 ? { attached: mail.attached } : {}),
    })
  }
  return (
    <Dialog title={`A mail from ${person.name}`} close={close} wide>
      <form
        noValidate
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault()
          act.run(put, close)
        }}
      >
        {mail.from !== undefined && !theirs && (
          <p role="status" className="note bg-sun-soft text-sun-ink wrap-anywhere">
            It says that it is from {mail.from}, which is no address of {person.name} here.
          </p>
        )}
        {person.emails.length > 1 && (
          <PlainChoice
            label="From"
            value={address}
            options={person.emails.map((value) => ({ value, name: value }))}
            onChange={setAddress}
          />
        )}
        <div className="grid items-end gap-3 sm:grid-cols-[1fr_240px]">
          <PlainField label="Subject" value={subject} onChange={setSubject} />
          <Labelled
            label="Written on"
            field={(id) => <DateInput id={id} value={day} onChange={setDay} onDone={() => undefined} />}
          />
        </div>
        <PlainField
          label="What they wrote"
          value={text}
          rows={12}
          longest={LONGEST_REPLY}
          focused
          onChange={setText}
        />
        {mail.attached.length > 0 && (
          <p className="text-[14px] text-soft wrap-anywhere">
            What is attached stays in your mail: {mail.attached.join(', ')}.
          </p>
        )}
        <ProblemNote of={act} className="" />
        <button type="submit" className="press press-go justify-self-start" disabled={act.busy}>
          Put it beside {person.name}
        </button>
      </form>
    </Dialog>
  )
}
