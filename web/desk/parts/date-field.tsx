import { dateAt, dateTyped, dateWords, type LocalDate, date as readDate } from '@acolhida/core/time'
import { CalendarDays } from 'lucide-react'
import { lazy, type ReactNode, Suspense, useEffect, useRef, useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { useDesk } from '../data/live.ts'
import { Labelled } from './labelled.tsx'
import { homeZone } from './words.ts'

// The month is drawn by a library of its own, loaded when one is opened for the first time.
const MonthChoice = lazy(() => import('./month-choice.tsx'))

/** A date in words as far as it is one. */
function written(value: string): string {
  try {
    return value ? dateWords(readDate(value)) : ''
  } catch {
    return value
  }
}

/**
 * A field for a date, written and typed as one writes it, with a month to pick from. What can't be read stays in it,
 * with what is wrong.
 * @param onChange told `YYYY-MM-DD`, or nothing where it is empty
 */
export function DateInput({
  value,
  onChange,
  onDone,
  onUnread,
  ...rest
}: {
  id: string
  value: string
  onChange: (value: LocalDate | '') => void
  /** The field is left, or a day was picked. */
  onDone?: () => void
  /** It is left with what can't be read. */
  onUnread?: () => void
  'aria-invalid'?: boolean | undefined
  'data-saved'?: string
  'aria-describedby'?: string | undefined
}) {
  const { practice } = useDesk()
  const home = homeZone(practice)
  const [typed, setTyped] = useState<string>()
  const [problem, setProblem] = useState<string>()
  const [open, setOpen] = useState(false)
  const field = useRef<HTMLInputElement>(null)
  const today = (): LocalDate => dateAt(home, relayNow())
  const read = (text: string): LocalDate | '' => (text.trim() ? dateTyped(text, today()) : '')
  const type = (text: string): void => {
    setTyped(text)
    setProblem(undefined)
    try {
      onChange(read(text))
    } catch {
      // It may be half typed: whether it is a date is asked when the field is left.
    }
  }
  const leave = (): void => {
    try {
      if (typed !== undefined) onChange(read(typed))
      setTyped(undefined)
    } catch (error) {
      setProblem((error as Error).message)
      onUnread?.()
      return
    }
    onDone?.()
  }
  const close = (): void => {
    setOpen(false)
    field.current?.focus()
  }
  const describedBy = [rest['aria-describedby'], problem && `${rest.id}-unread`].filter(Boolean).join(' ')
  return (
    // biome-ignore lint/a11y/noStaticElementInteractions: only closes what is open inside it
    <span
      className="relative block grow font-normal"
      onKeyDown={(event) => {
        if (event.key !== 'Escape' || !open) return
        event.preventDefault()
        event.stopPropagation()
        close()
      }}
    >
      <span className="flex items-center gap-1.5">
        <input
          {...rest}
          ref={field}
          className="field min-w-0 grow"
          autoComplete="off"
          value={typed ?? written(value)}
          aria-invalid={problem ? true : rest['aria-invalid']}
          aria-describedby={describedBy || undefined}
          onChange={(event) => type(event.target.value)}
          onBlur={leave}
        />
        <button
          type="button"
          className="press press-quiet shrink-0 px-2"
          aria-label="Pick from a month"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
        >
          <CalendarDays size={17} aria-hidden="true" />
        </button>
      </span>
      {open && (
        <span className="sheet absolute top-full right-0 z-20 mt-1 block p-2 shadow-lg">
          <Suspense fallback="…">
            <MonthChoice
              value={value ? (value as LocalDate) : undefined}
              today={today()}
              weekStart={practice.profile.weekStart}
              onChoose={(on) => {
                setTyped(undefined)
                setProblem(undefined)
                onChange(on)
                close()
                onDone?.()
              }}
            />
          </Suspense>
        </span>
      )}
      {problem && (
        <span
          id={`${rest.id}-unread`}
          role="alert"
          className="mt-1 block text-[14px] font-semibold text-clay"
        >
          {problem}
        </span>
      )}
    </span>
  )
}

/** A date with its label, in a form that is sent as a whole. */
export function DateField({
  label,
  value,
  onChange,
}: {
  label: ReactNode
  value: string
  onChange: (value: LocalDate | '') => void
}) {
  return (
    <Labelled
      label={label}
      field={(id) => (
        <div className="mt-1">
          <DateInput id={id} value={value} onChange={onChange} onUnread={() => onChange('')} />
        </div>
      )}
    />
  )
}

/** A time of day as it is typed, in a form that is sent as a whole; told as HH:MM once it can be read. */
export function TimeField({
  label,
  value,
  onChange,
}: {
  label: string
  value: string
  onChange: (value: string) => void
}) {
  const [typed, setTyped] = useState(value)
  const latest = useRef(value)
  useEffect(() => {
    // A time from elsewhere shows; what is being typed here stays as it is typed.
    if (value !== latest.current) setTyped(value)
    latest.current = value
  }, [value])
  return (
    <Labelled
      label={label}
      field={(id) => (
        <input
          id={id}
          className="field figures mt-1"
          autoComplete="off"
          value={typed}
          onChange={(event) => {
            setTyped(event.target.value)
            latest.current = asTime(event.target.value)
            onChange(latest.current)
          }}
          onBlur={() => latest.current && setTyped(latest.current)}
        />
      )}
    />
  )
}

/** HH:MM of what is typed, or what is typed where that is none. */
function asTime(typed: string): string {
  const match = /^(\d{1,2})(?:[:.h]?(\d{2}))?$/.exec(typed.trim())
  if (!match || Number(match[1]) > 23 || Number(match[2] ?? 0) > 59) return typed.trim()
  return `${match[1]!.padStart(2, '0')}:${match[2] ?? '00'}`
}
