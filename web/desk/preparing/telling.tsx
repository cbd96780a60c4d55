import { DOOR_TOKEN, type Letter, YOURS_TOKEN } from '@acolhida/core/messages'
import { useState } from 'react'
import { PlainField } from '../parts/plain-field.tsx'
import { Switch } from '../parts/switch.tsx'

/** What goes with something that is given: a word, or silence. */
interface Telling {
  text: string
  silent: boolean
  setText: (text: string) => void
  setSilent: (silent: boolean) => void
  /** As the relay is told it. */
  said: { text?: string }
  quiet: { silent?: true }
}

export function useTelling(): Telling {
  const [text, setText] = useState('')
  const [silent, setSilent] = useState(false)
  const word = text.trim()
  return {
    ...{ text, silent, setText, setSilent },
    said: word ? { text: word } : {},
    quiet: silent ? { silent } : {},
  }
}

/** The word that goes with it, whether anything is written at all, and how it will be read. */
export function TellThem({
  telling: { text, silent, setText, setSilent },
  name,
  letter,
  open = false,
}: {
  telling: Telling
  name: string
  letter: Letter | undefined
  open?: boolean
}) {
  return (
    <>
      <div className="mt-3 grid gap-3">
        <PlainField label="A word that goes with it, if you like" rows={3} value={text} onChange={setText} />
        <Switch label="Write nothing; I tell them myself" on={silent} onChange={setSilent} />
      </div>
      {letter && !silent && (
        <details className="mt-3" open={open}>
          <summary className="cursor-pointer font-semibold">As {name} will read it</summary>
          <p className="mt-1 font-semibold wrap-anywhere">{letter.subject}</p>
          <p className="mt-1 rounded-lg bg-shade p-3 text-[14px] whitespace-pre-line wrap-anywhere">
            {letter.text.replaceAll(YOURS_TOKEN, 'https://…').replaceAll(DOOR_TOKEN, 'https://…')}
          </p>
        </details>
      )}
    </>
  )
}
