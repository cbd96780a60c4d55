import type { Reply } from '@acolhida/core/people'
import { formatInstant, moment } from '@acolhida/core/time'
import { useLiveQuery } from 'dexie-react-hooks'
import { type DragEvent, useState } from 'react'
import { db } from '../data/db.ts'
import type { Desk } from '../data/live.ts'
import { putReply, repliesOf } from '../data/replies.ts'
import type { PersonRow } from '../data/rows.ts'
import { ActButton, ProblemNote, useAct } from '../parts/act.tsx'
import { FileButton } from '../parts/file.tsx'
import { homeZone } from '../parts/words.ts'
import { Card } from '../request/card.tsx'
import { PutMail } from './put-mail.tsx'
import { type ReadMail, readMail } from './read-mail.ts'

const nothingYet: ReadMail = { subject: '', text: '', attached: [] }

const read = async (file: File): Promise<ReadMail> =>
  readMail(file.name, new Uint8Array(await file.arrayBuffer()))

/** Mails that came back from somebody: pasted, or their files dropped here. */
export function Replies({ desk: { practice }, person }: { desk: Desk; person: PersonRow }) {
  const replies = useLiveQuery(() => repliesOf(db, person), [person])
  const [putting, setPutting] = useState<readonly ReadMail[]>([])
  const [over, setOver] = useState(false)
  const [taken, setTaken] = useState<Reply>()
  const act = useAct()
  const drop = (event: DragEvent): void => {
    event.preventDefault()
    setOver(false)
    const files = [...event.dataTransfer.files]
    if (files.length > 0) act.run(async () => setPutting(await Promise.all(files.map(read))))
  }
  const take = async (reply: Reply): Promise<void> => {
    await db.replies.delete(reply.id)
    setTaken(reply)
  }
  const [first, ...others] = putting
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: files are dropped here; the button does the same by key
    <div
      className={over ? 'rounded-box outline-3 outline-offset-2 outline-leaf' : ''}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={drop}
    >
      <Card title="Mails from them">
        {replies?.length === 0 && (
          <p className="mt-1.5 text-[14px] text-soft">
            What they answer comes to your own mail. Drop its file here, or paste it, and it stands with
            everything else.
          </p>
        )}
        <ul className="mt-1.5 divide-y divide-line">
          {replies?.map((reply) => (
            <li key={reply.id} className="py-1.5">
              <details>
                <summary className="cursor-pointer wrap-anywhere">
                  <span className="font-semibold" dir="auto">
                    {reply.subject || 'No subject'}
                  </span>{' '}
                  <time className="text-[13px] text-soft" dateTime={formatInstant(reply.at)}>
                    {moment(reply.at, homeZone(practice))}
                  </time>
                </summary>
                <p className="mt-2 text-[14px] whitespace-pre-line wrap-anywhere" dir="auto">
                  {reply.text}
                </p>
                {reply.attached && (
                  <p className="mt-2 text-[13px] text-soft wrap-anywhere">
                    With {reply.attached.join(', ')}, in your mail.
                  </p>
                )}
                <span className="mt-2 block">
                  <ActButton
                    className="press press-quiet -ml-[15px]"
                    aria-label={`Take it away: ${reply.subject || 'No subject'}`}
                    onAct={() => take(reply)}
                  >
                    Take it away
                  </ActButton>
                </span>
              </details>
            </li>
          ))}
        </ul>
        {taken && (
          <p role="status" className="mt-2 flex flex-wrap items-center gap-2 text-[14px]">
            “{taken.subject || 'No subject'}” is taken away.
            <ActButton
              className="press press-quiet"
              onAct={() => putReply(db, taken)}
              then={() => setTaken(undefined)}
            >
              Put it back
            </ActButton>
          </p>
        )}
        <div className="mt-2 flex flex-wrap gap-2">
          <FileButton accept=".eml,message/rfc822" onFile={async (file) => setPutting([await read(file)])}>
            Open a mail’s file
          </FileButton>
          <button type="button" className="press press-quiet" onClick={() => setPutting([nothingYet])}>
            Paste one
          </button>
        </div>
        <ProblemNote of={act} />
      </Card>
      {first && (
        <PutMail
          key={`${putting.length}`}
          practice={practice}
          person={person}
          mail={first}
          close={() => setPutting(others)}
        />
      )}
    </div>
  )
}
