import {
  type AnswerValue,
  addressAnswer,
  addressOf,
  isAttached,
  isQuantities,
  kindOfFileWords,
  type Question,
  sizeInWords,
} from '@acolhida/core/questions'
import { listed, wrongWords } from '@acolhida/core/words'
import { Minus, Paperclip, Plus } from 'lucide-react'
import { useState } from 'react'
import { useFileTaker } from './file-taker.tsx'
import { say } from './say.ts'

/** What the first control of a field carries. */
export interface Common {
  id: string
  className: string
  'aria-invalid': true | undefined
  'aria-describedby': string | undefined
  'aria-required': true | undefined
}
export type OnAnswer = (value: AnswerValue | undefined) => void

/** A phone number, written out in full once it is one; until then it stays as it is typed. */
export function PhoneField({
  value: given,
  onAnswer,
  common,
}: {
  value: AnswerValue | undefined
  onAnswer: OnAnswer
  common: Common
}) {
  const value = typeof given === 'string' ? given : ''
  const [hint, setHint] = useState<string>()
  const settle = async (): Promise<void> => {
    if (!value.trim()) return setHint(undefined)
    const { readPhone } = await import('@acolhida/core/questions/phone')
    const read = readPhone(value, new Intl.Locale(navigator.language).region)
    if (read) onAnswer(read)
    // A number that says its country is left as it is: this page may know fewer numbers than there are.
    setHint(read || value.trim().startsWith('+') ? undefined : say('phone-look'))
  }
  return (
    <>
      <input
        {...common}
        type="tel"
        inputMode="tel"
        autoComplete="tel"
        value={value}
        onChange={(e) => onAnswer(e.target.value === '' ? undefined : e.target.value)}
        onBlur={settle}
      />
      <p role="status" className={hint ? 'mt-1 text-[14px] text-soft' : 'sr-only'}>
        {hint}
      </p>
    </>
  )
}

/** Street, postal code and town, a field each. */
export function AddressField({
  value: given,
  onAnswer,
  common,
}: {
  value: AnswerValue | undefined
  onAnswer: OnAnswer
  common: Common
}) {
  const value = typeof given === 'string' ? given : ''
  const parts = addressOf(value)
  const field = (key: keyof typeof parts, label: string, autoComplete: string, width: string) => (
    <label className={`block text-[14px] ${width}`}>
      {label}
      <input
        {...common}
        id={key === 'street' ? common.id : `${common.id}-${key}`}
        autoComplete={autoComplete}
        value={parts[key]}
        onChange={(e) => onAnswer(addressAnswer({ ...parts, [key]: e.target.value }) || undefined)}
      />
    </label>
  )
  return (
    <div className="flex flex-wrap gap-3">
      {field('street', say('street'), 'street-address', 'w-full')}
      {field('postalCode', say('postal-code'), 'postal-code', 'w-36')}
      {field('town', say('town'), 'address-level2', 'min-w-40 grow')}
    </div>
  )
}

/** How many of each. */
export function ItemsField({
  question,
  value,
  onAnswer,
}: {
  question: Extract<Question, { kind: 'items' }>
  value: AnswerValue | undefined
  onAnswer: OnAnswer
}) {
  const many = isQuantities(value) ? value : {}
  const set = (id: string, count: number): void => {
    const next = { ...many, [id]: count }
    onAnswer(Object.values(next).some((value) => value > 0) ? next : undefined)
  }
  return (
    <ul className="grid gap-1">
      {question.items.map((item) => {
        const count = many[item.id] ?? 0
        return (
          <li key={item.id} className="flex min-h-[44px] items-center gap-2">
            <span className="grow">{item.text}</span>
            <button
              type="button"
              className="press px-2.5"
              aria-label={say('fewer', { item: item.text })}
              disabled={count === 0}
              onClick={() => set(item.id, count - 1)}
            >
              <Minus size={16} aria-hidden="true" />
            </button>
            <input
              className="field figures w-16 text-center"
              inputMode="numeric"
              aria-label={say('how-many', { item: item.text })}
              value={count}
              onChange={(e) => {
                const typed = Number(e.target.value)
                if (Number.isInteger(typed) && typed >= 0) set(item.id, typed)
              }}
            />
            <button
              type="button"
              className="press px-2.5"
              aria-label={say('more', { item: item.text })}
              disabled={count >= item.most}
              onClick={() => set(item.id, count + 1)}
            >
              <Plus size={16} aria-hidden="true" />
            </button>
          </li>
        )
      })}
    </ul>
  )
}

/** What browsers call the kinds of files, so that they offer those first. */
const ACCEPT = {
  picture: 'image/png,image/jpeg,image/webp',
  pdf: 'application/pdf',
  sound: 'audio/*',
  text: 'text/plain',
} as const

/** A file: taken at once, and looked at where it is taken. */
export function FileField({
  question,
  value,
  onAnswer,
  common,
}: {
  question: Extract<Question, { kind: 'file' }>
  value: AnswerValue | undefined
  onAnswer: OnAnswer
  common: Common
}) {
  const take = useFileTaker()
  const [busy, setBusy] = useState(false)
  const [problem, setProblem] = useState<string>()
  const choose = async (file: File | undefined): Promise<void> => {
    if (!file || !take) return
    setProblem(undefined)
    if (file.size > question.mostBytes) {
      setProblem(
        wrongWords({
          code: 'file-size',
          data: {
            name: file.name,
            size: sizeInWords(file.size),
            most: sizeInWords(question.mostBytes),
          },
        }),
      )
      return
    }
    setBusy(true)
    try {
      onAnswer(await take(question, file))
    } catch (error) {
      setProblem(error instanceof Error ? error.message : String(error))
    } finally {
      setBusy(false)
    }
  }
  return (
    <div>
      <p className="text-[14px] text-soft">
        {say('file-limits', {
          kinds: listed(question.accepts.map(kindOfFileWords), 'or'),
          most: sizeInWords(question.mostBytes),
        })}
      </p>
      {isAttached(value) ? (
        <p className="mt-2 flex items-center gap-3">
          <Paperclip size={16} aria-hidden="true" />
          <span className="min-w-0 grow wrap-anywhere">
            {value.name} ({sizeInWords(value.size)})
          </span>
          <button type="button" className="press" onClick={() => onAnswer(undefined)}>
            {say('file-away')}
          </button>
        </p>
      ) : (
        <input
          {...common}
          type="file"
          className="file-input mt-2 w-full"
          accept={question.accepts.map((accept) => ACCEPT[accept]).join(',')}
          disabled={busy || !take}
          onChange={(e) => choose(e.target.files?.[0])}
        />
      )}
      <p role="status" className="text-[14px] text-soft">
        {busy ? say('file-coming') : take ? '' : say('file-at-door')}
      </p>
      {problem && (
        <p role="alert" className="mt-1 text-[14px] font-semibold text-clay">
          {problem}
        </p>
      )}
    </div>
  )
}
