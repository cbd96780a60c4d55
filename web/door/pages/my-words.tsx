import type { LinkView } from '@acolhida/core/contract'
import { useEffect, useId, useState } from 'react'
import { rich, say } from '../parts/say.ts'
import type { LinkAct } from '../visit/relay.ts'

/** What is written through the link: an answer, or why an exception is asked for. Kept until it has gone. */
function Words({
  name,
  label,
  send,
  busy,
  onSend,
}: {
  /** Under which what is typed is kept. */
  name: string
  label: string
  send: string
  busy: boolean
  onSend: (text: string) => void
}) {
  const id = useId()
  const [text, setText] = useState(() => localStorage.getItem(name) ?? '')
  const [wrong, setWrong] = useState(false)
  return (
    <form
      noValidate
      className="mt-3 grid gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        if (!text.trim()) {
          setWrong(true)
          document.getElementById(id)?.focus()
          return
        }
        onSend(text.trim())
      }}
    >
      <label className="ask" htmlFor={id}>
        {label}
      </label>
      <textarea
        id={id}
        dir="auto"
        className="field min-h-24"
        maxLength={2_000}
        value={text}
        aria-invalid={wrong}
        aria-describedby={wrong ? `${id}-wrong` : undefined}
        onChange={(event) => {
          setText(event.target.value)
          setWrong(false)
          localStorage.setItem(name, event.target.value)
        }}
      />
      {wrong && (
        <p id={`${id}-wrong`} className="font-semibold text-clay">
          {say('my.write-something')}
        </p>
      )}
      <button type="submit" className="press press-go justify-self-start" disabled={busy}>
        {send}
      </button>
    </form>
  )
}

/** What was kept while it was typed goes once it has arrived. */
function useArrived(name: string, arrived: boolean): void {
  useEffect(() => {
    if (arrived) localStorage.removeItem(name)
  }, [name, arrived])
}

/** What the practitioner has asked back, and the answer: written here, or as it was. */
export function AskedBack({
  view,
  act,
  busy,
}: {
  view: LinkView & { question: NonNullable<LinkView['question']> }
  act: (act: LinkAct) => void
  busy: boolean
}) {
  const { question } = view
  const name = `acolhida-reply ${view.start}`
  useArrived(name, question.reply !== undefined)
  return (
    <section className="sheet mt-4 p-5">
      <h2>{say('my.asks', { name: view.practitioner })}</h2>
      <p className="mt-2 border-l-4 border-line pl-3 whitespace-pre-line wrap-anywhere" dir="auto">
        {question.text}
      </p>
      {question.reply !== undefined && (
        <>
          <p className="mt-3 text-[14px] text-soft">{say('my.replied')}</p>
          <p className="whitespace-pre-line wrap-anywhere" dir="auto">
            {question.reply}
          </p>
        </>
      )}
      {question.reply === undefined && view.state === 'waiting' && (
        <Words
          name={name}
          label={say('my.reply')}
          send={say('my.send-reply')}
          busy={busy}
          onSend={(text) => act({ do: 'reply', text })}
        />
      )}
    </section>
  )
}

/** Asking for an exception once the rules say no, and what came of it. */
export function Exception({
  view,
  act,
  busy,
}: {
  view: LinkView
  act: (act: LinkAct) => void
  busy: boolean
}) {
  const [open, setOpen] = useState(false)
  const { plea, practitioner: name } = view
  const kept = `acolhida-plead ${view.start}`
  useArrived(kept, plea !== undefined)
  if (plea)
    return (
      <p className="note mt-5 bg-tile-soft text-tile-ink" role="status">
        {rich(plea.granted === undefined ? 'my.plead-waits' : plea.granted ? 'my.plead-yes' : 'my.plead-no', {
          name,
        })}
      </p>
    )
  if (!view.canPlead) return null
  if (!open)
    return (
      <button type="button" className="press press-quiet mt-5" onClick={() => setOpen(true)}>
        {say('my.plead')}
      </button>
    )
  return (
    <section className="sheet mt-5 p-5">
      <h2>{say('my.plead')}</h2>
      <p className="mt-1 text-soft">{say('my.plead-what', { name })}</p>
      <Words
        name={kept}
        label={say('my.plead-why')}
        send={say('my.plead-send')}
        busy={busy}
        onSend={(text) => act({ do: 'plead', text })}
      />
    </section>
  )
}
