import { useState } from 'react'
import { FormDialog } from '../parts/form-dialog.tsx'
import { PlainField } from '../parts/plain-field.tsx'
import { counted } from '../parts/words.ts'
import { doWithCourse } from '../sync/acts.ts'
import type { GivenTo } from './use-courses.ts'

/** Asks one or several people again for what is not done: one message each, which lists it and leads to their page. */
export function Chase({ given, close }: { given: readonly GivenTo[]; close: () => void }) {
  const [text, setText] = useState('')
  const people = new Set(given.map(({ row }) => row.mail)).size
  const send = async (): Promise<void> => {
    for (const { row } of given) await doWithCourse(row.id, { do: 'chase', text: text.trim() })
  }
  return (
    <FormDialog title="Ask again" go="Ask again" does={send} close={close}>
      <p className="text-[14px] text-soft">
        {given.length === 1
          ? `One message goes to ${given[0]?.row.course.given.person.name}. It lists what is open, by when, and leads to their page.`
          : `${given.length} messages go to ${counted(people, 'person', 'people')}: each lists what is open of what was given at once.`}
      </p>
      <div className="mt-3">
        <PlainField
          label="A word that goes with it, if you like"
          rows={3}
          value={text}
          onChange={setText}
          focused
        />
      </div>
    </FormDialog>
  )
}
