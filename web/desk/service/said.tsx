import type { Practice, PracticeFault, Service } from '@acolhida/core/practice'
import { useEffect, useId, useRef, useState } from 'react'
import { useWanted } from '../parts/use-wanted.ts'
import { Fields } from '../settings/fields.tsx'
import type { SaidSentence, SaidValue, SentenceGroup } from './said-sentence.ts'

interface Around {
  of: Service
  practice: Practice
  faults: readonly PracticeFault[]
  path: string
  change: (practice: Practice, to: (service: Service) => Service) => Practice
}

/** What is set of a service, to be read; each value opens its field where it stands. */
export function SaidOf({ group, around }: { group: SentenceGroup; around: Around }) {
  return (
    <section className="sheet p-5" aria-label={group.title}>
      <h2 className="mb-2">{group.title}</h2>
      <div className="grid gap-2">
        {group.sentences.map((sentence) => (
          <OneSentence key={keyOf(sentence)} sentence={sentence} around={around} />
        ))}
      </div>
    </section>
  )
}

const valuesIn = (sentence: SaidSentence): SaidValue[] => sentence.filter((part) => typeof part !== 'string')

/** A sentence is known by what it sets: its words change with that. */
const keyOf = (sentence: SaidSentence): string => valuesIn(sentence)[0]?.of[0]?.label ?? ''

const nameOf = ({ of }: SaidValue): string => of[0]?.label ?? ''

function OneSentence({ sentence, around }: { sentence: SaidSentence; around: Around }) {
  const wanted = useWanted()
  const values = valuesIn(sentence)
  const settings = values.flatMap(({ of }) => of)
  const [open, setOpen] = useState(() => {
    const found = values.find(({ of }) => of.some(({ path, label }) => wanted === (path ?? label)))
    return found && nameOf(found)
  })
  const id = useId()
  const box = useRef<HTMLDivElement>(null)
  const buttons = useRef(new Map<string, HTMLButtonElement>())
  useEffect(() => {
    if (open === undefined) return
    const field = box.current?.querySelector<HTMLElement>('input, select, textarea')
    field?.focus()
    box.current?.scrollIntoView({ block: 'nearest' })
  }, [open])
  const close = (): void => {
    if (open !== undefined) buttons.current.get(open)?.focus()
    setOpen(undefined)
  }
  const shown = values.find((value) => nameOf(value) === open)
  const warnings = around.faults.filter(
    (fault) =>
      !shown?.of.some(({ path }) => fault.path === `${around.path}.${path}`) &&
      settings.some(({ path }) => path && fault.path === `${around.path}.${path}`),
  )
  return (
    <div>
      <p className="leading-[1.9]">
        {sentence.map((part) =>
          typeof part === 'string' ? (
            part
          ) : (
            <button
              key={nameOf(part)}
              ref={(button) => {
                if (button) buttons.current.set(nameOf(part), button)
                else buttons.current.delete(nameOf(part))
              }}
              type="button"
              className="said"
              aria-label={`${nameOf(part)}: ${part.say}`}
              aria-expanded={open === nameOf(part)}
              aria-controls={open === nameOf(part) ? id : undefined}
              onClick={() => setOpen(open === nameOf(part) ? undefined : nameOf(part))}
            >
              {part.say}
            </button>
          ),
        )}
      </p>
      {warnings.map((fault) => (
        <p key={fault.message} role="alert" className="note mt-1 bg-sun-soft text-[14px] text-sun-ink">
          {fault.message}
        </p>
      ))}
      {shown && (
        // biome-ignore lint/a11y/noStaticElementInteractions: only closes what is open
        <div
          ref={box}
          id={id}
          className="my-2 border-l-[3px] border-tile pl-4"
          onKeyDown={(event) => {
            if (event.key !== 'Escape' || event.defaultPrevented) return
            event.preventDefault()
            close()
          }}
        >
          <Fields settings={shown.of} {...around} />
          <button type="button" className="press press-quiet mt-2" onClick={close}>
            Done
          </button>
        </div>
      )}
    </div>
  )
}
