import { segmentsOf } from '@acolhida/core/messages'
import type { MessageText, Practice } from '@acolhida/core/practice'
import { withText } from '@acolhida/core/practice'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { SavedField } from '../parts/saved-field.tsx'
import { counted } from '../parts/words.ts'
import { ChipText } from './chip-text.tsx'
import { useSaved } from './use-saved.ts'

/** A text of the practitioner's: its name, and what it says, with fields as chips. */
export function TextEdit({ text, byText }: { text: MessageText; byText: boolean }) {
  const put = (practice: Practice, change: (text: MessageText) => MessageText): Practice => {
    const now = practice.texts?.find(({ id }) => id === text.id) ?? text
    return withText(practice, change(now))
  }
  const subject = useSaved((typed) =>
    changePractice(db, 'what a message says', (p) => put(p, (one) => ({ ...one, subject: typed }))),
  )
  const body = useSaved((typed) =>
    changePractice(db, 'what a message says', (p) => put(p, (one) => ({ ...one, body: typed }))),
  )
  const { segments, left, because } = segmentsOf(text.body)
  return (
    <div className="grid gap-3">
      <SavedField
        label="Name of this text"
        what="the name of a text"
        value={text.name}
        change={(p, typed) => put(p, (one) => ({ ...one, name: typed.trim() }))}
      />
      {!byText && (
        <div>
          <ChipText label="Subject" value={text.subject ?? ''} lines={1} onChange={subject.type} />
          <Wrong problem={subject.problem} />
        </div>
      )}
      <div>
        <ChipText label="What it says" value={text.body} lines={byText ? 3 : 7} onChange={body.type} />
        <Wrong problem={body.problem} />
        {byText && (
          <p className="mt-1 text-[13px] text-soft" role="status">
            {counted(segments, 'segment', 'segments')} as it stands, {left} left in the last
            {because ? `; “${because}” makes each shorter` : ''}. Fields grow when they are filled.
          </p>
        )}
      </div>
    </div>
  )
}

const Wrong = ({ problem }: { problem: string | undefined }) =>
  problem === undefined ? null : (
    <p role="alert" className="mt-1 text-[14px] font-semibold whitespace-pre-line text-clay">
      {problem} <span className="font-normal">It stays here and is not sent.</span>
    </p>
  )
