import type { Practice } from '@acolhida/core/practice'
import { type ReactNode, useEffect, useId, useRef, useState } from 'react'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { WouldHurt } from '../data/would-hurt.ts'
import type { Asks } from './act.tsx'
import { DateInput } from './date-field.tsx'
import { HurtDialog } from './hurt-dialog.tsx'
import { problemWords } from './problem-words.ts'
import { noteTyping, typedBefore } from './typing.ts'
import { useWanted } from './use-wanted.ts'

/** How long after the last key a change is kept, in ms. */
const PAUSE = 500

/**
 * A field that saves as it is typed. What can't be kept as it stands stays in the field, with what is wrong
 * beside it; the practice keeps its last valid value meanwhile.
 */
export function SavedField({
  label,
  help,
  what,
  value,
  change,
  set,
  type = 'text',
  inputMode,
  rows,
  suffix,
  options,
  units,
  beside = false,
  warning,
}: {
  label: string
  help?: string
  /** What is changed, for undo: "the name". */
  what: string
  value: string
  /** The practice with what was typed; may throw with a sentence. */
  change: (practice: Practice, typed: string) => Practice
  type?: 'text' | 'email' | 'number' | 'time' | 'date'
  /** What a small keyboard offers. */
  inputMode?: 'decimal' | 'numeric'
  rows?: number
  suffix?: string
  options?: readonly { value: string; name: string }[]
  /** What is typed is an amount and one of these, as “24 hours”. */
  units?: readonly string[] | undefined
  /** Puts the label beside the field instead of above it. */
  beside?: boolean
  /** What it is called where one is led to it, besides its label (`?set=`). */
  set?: string | undefined
  /** What follows from the value kept: "Nobody can ever book this …". */
  warning?: string | undefined
}) {
  const id = useId()
  const [typed, setTyped] = useState(value)
  const [problem, setProblem] = useState<string>()
  const [asks, setAsks] = useState<Asks>()
  const fieldHere = (): HTMLElement | null => document.getElementById(id)
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined)
  const pending = useRef<string>(undefined)

  // Changes from elsewhere (undo, another tab) show, unless something is being typed here.
  useEffect(() => {
    if (pending.current === undefined) {
      setTyped(value)
      setProblem(undefined)
    }
  }, [value])

  const keep = async (): Promise<void> => {
    clearTimeout(timer.current)
    const text = pending.current
    if (text === undefined) return
    try {
      await changePractice(db, what, (practice) => change(practice, text))
      if (pending.current === text) {
        pending.current = undefined
        noteTyping(fieldHere(), label, undefined)
      }
      setProblem(undefined)
      setAsks(undefined)
    } catch (error) {
      if (error instanceof WouldHurt) ask(error)
      else setProblem(problemWords(error))
    }
  }
  const ask = ({ hurt, agree }: WouldHurt): void =>
    setAsks({
      hurt,
      yes: () => {
        agree()
        void keepRef.current()
      },
      no: () => {
        pending.current = undefined
        noteTyping(fieldHere(), label, undefined)
        setTyped(value)
        setAsks(undefined)
      },
    })
  const keepRef = useRef(keep)
  keepRef.current = keep
  useEffect(() => () => void keepRef.current(), [])
  const wanted = useWanted()
  const isWanted = wanted !== undefined && (wanted === set || wanted === label)
  useEffect(() => {
    if (!isWanted) return
    const field = document.getElementById(id)
    field?.scrollIntoView({ block: 'center' })
    field?.focus({ preventScroll: true })
  }, [isWanted, id])

  const onChange = (text: string): void => {
    setTyped(text)
    pending.current = text
    noteTyping(fieldHere(), label, { over: value, text })
    clearTimeout(timer.current)
    // A choice is made with one press; only typing is waited for.
    if (options) void keepRef.current()
    else timer.current = setTimeout(() => void keepRef.current(), PAUSE)
  }
  const onChangeRef = useRef(onChange)
  onChangeRef.current = onChange
  // Loaded anew amid typing, it goes on where it was.
  // biome-ignore lint/correctness/useExhaustiveDependencies: only as the field comes
  useEffect(() => {
    const text = typedBefore(fieldHere(), label, value)
    if (text !== undefined) onChangeRef.current(text)
  }, [])
  const common = {
    id,
    'data-saved': label,
    className: 'field mt-1',
    value: typed,
    'aria-invalid': problem ? true : undefined,
    'aria-describedby':
      [help ? `${id}-help` : '', problem ? `${id}-problem` : '', warning ? `${id}-warning` : '']
        .filter(Boolean)
        .join(' ') || undefined,
    onBlur: () => void keepRef.current(),
  }
  return (
    <div className={beside ? 'items-center gap-x-3 sm:grid sm:grid-cols-[96px_1fr]' : ''}>
      <label className="ask" htmlFor={id}>
        {label}
      </label>
      {help && (
        <p id={`${id}-help`} className="text-[13px] text-soft">
          {help}
        </p>
      )}
      <div className="flex items-center gap-2">
        {options ? (
          <select {...common} onChange={(event) => onChange(event.target.value)}>
            {options.map((choice) => (
              <option key={choice.value} value={choice.value}>
                {choice.name}
              </option>
            ))}
          </select>
        ) : units ? (
          <>
            <input
              {...common}
              className="field mt-1 min-w-16"
              inputMode="numeric"
              value={amountOf(typed)}
              onChange={(event) => onChange(`${event.target.value} ${unitOf(typed)}`)}
            />
            <select
              className="field mt-1 w-auto shrink-0"
              aria-label={`${label}, in what`}
              value={unitOf(typed)}
              onChange={(event) => {
                onChange(`${amountOf(typed)} ${event.target.value}`)
                void keepRef.current()
              }}
            >
              {units.map((unit) => (
                <option key={unit} value={unit}>
                  {unit}
                </option>
              ))}
            </select>
          </>
        ) : type === 'date' ? (
          <DateInput
            id={id}
            data-saved={label}
            value={typed}
            aria-invalid={common['aria-invalid']}
            aria-describedby={common['aria-describedby']}
            onChange={onChange}
            onDone={common.onBlur}
          />
        ) : rows ? (
          <textarea {...common} rows={rows} onChange={(event) => onChange(event.target.value)} />
        ) : (
          <input
            {...common}
            type={type}
            inputMode={inputMode}
            onChange={(event) => onChange(event.target.value)}
          />
        )}
        {suffix && <span className="shrink-0 text-soft">{suffix}</span>}
      </div>
      {asks && <HurtDialog {...asks} />}
      {warning && !problem && (
        <p
          id={`${id}-warning`}
          role="alert"
          className={`note mt-1.5 bg-sun-soft text-[14px] text-sun-ink ${beside ? 'sm:col-start-2' : ''}`}
        >
          {warning}
        </p>
      )}
      {problem && (
        <FieldProblem id={`${id}-problem`} beside={beside}>
          {problem}
        </FieldProblem>
      )}
    </div>
  )
}

/** The parts of an amount with its unit: what stands before the first space, and after it. */
const amountOf = (typed: string): string => typed.slice(0, typed.indexOf(' '))
const unitOf = (typed: string): string => typed.slice(typed.indexOf(' ') + 1)

const FieldProblem = ({ id, children, beside }: { id: string; children: ReactNode; beside: boolean }) => (
  <p
    id={id}
    role="alert"
    className={`mt-1 text-[14px] font-semibold text-clay ${beside ? 'sm:col-start-2' : ''}`}
  >
    {children} <span className="font-normal">It stays here and has not gone to your door.</span>
  </p>
)
