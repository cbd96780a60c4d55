import type { AnswerValue, Question } from '@acolhida/core/questions'
import {
  type ComponentType,
  type HTMLAttributes,
  type InputHTMLAttributes,
  type ReactNode,
  useState,
} from 'react'
import {
  AddressField,
  type Common,
  FileField,
  ItemsField,
  type OnAnswer,
  PhoneField,
} from './more-fields.tsx'
import { say } from './say.ts'

type Of<K extends Question['kind']> = Extract<Question, { kind: K }>

/** What a field is drawn with. */
interface Asked<K extends Question['kind']> {
  question: Of<K>
  value: AnswerValue | undefined
  onAnswer: OnAnswer
  /** Names the whole question; its first control is named by `common`. */
  id: string
  common: Common
}

/** How a kind of question is asked. */
interface Field<K extends Question['kind']> {
  Field: ComponentType<Asked<K>>
  /** Its field is several controls, which belong together. */
  several?: true
  /** It is read and not answered. */
  Read?: ComponentType<{ question: Of<K> }>
}

const BOX = 'flex min-h-[44px] cursor-pointer items-center gap-3 rounded-lg px-2 hover:bg-leaf-soft/50'
const nothing = () => null

const textOf = (value: AnswerValue | undefined): string => (typeof value === 'string' ? value : '')

/** A field of one line. */
const line =
  <K extends Question['kind']>(more: InputHTMLAttributes<HTMLInputElement>): ComponentType<Asked<K>> =>
  ({ value, onAnswer, common }) => (
    <input
      {...common}
      {...more}
      value={textOf(value)}
      onChange={({ currentTarget }) => onAnswer(currentTarget.value === '' ? undefined : currentTarget.value)}
    />
  )

/** A field for each kind of question. */
const FIELDS: { [K in Question['kind']]: Field<K> } = {
  short: { Field: line({ dir: 'auto', maxLength: 500 }) },
  long: { Field: LongField },
  one: { Field: OneField, several: true },
  several: { Field: SeveralField, several: true },
  yesno: { Field: YesNoField, several: true },
  number: { Field: NumberField },
  scale: { Field: ScaleField, several: true },
  items: { Field: ItemsField, several: true },
  date: { Field: line({ type: 'date' }) },
  time: { Field: line({ type: 'time', className: 'field max-w-40' }) },
  email: { Field: line({ type: 'email', inputMode: 'email', autoComplete: 'email' }) },
  phone: { Field: PhoneField },
  url: { Field: line({ inputMode: 'url', autoComplete: 'url' }) },
  address: { Field: AddressField, several: true },
  file: { Field: FileField },
  passage: { Field: nothing, Read: Passage },
  section: { Field: nothing, Read: Section },
}

/** The field of a question. */
export const fieldOf = (question: Question): Field<Question['kind']> =>
  FIELDS[question.kind] as Field<Question['kind']>

function LongField({ value, onAnswer, common }: Asked<'long'>) {
  return (
    <textarea
      {...common}
      dir="auto"
      value={textOf(value)}
      onChange={({ currentTarget }) => onAnswer(currentTarget.value === '' ? undefined : currentTarget.value)}
    />
  )
}

/** A choice with its control. */
const Choice = ({
  children,
  ...control
}: InputHTMLAttributes<HTMLInputElement> & HTMLAttributes<Element>) => (
  <label className={BOX}>
    <input
      className={control.type === 'radio' ? 'radio radio-primary' : 'checkbox checkbox-primary'}
      {...control}
    />
    {children}
  </label>
)

function OneField({ question, value, onAnswer, id }: Asked<'one'>) {
  return (
    <Choices>
      {question.choices.map((choice) => (
        <Choice
          key={choice.id}
          type="radio"
          name={id}
          checked={value === choice.id}
          onChange={() => onAnswer(choice.id)}
        >
          {choice.text}
        </Choice>
      ))}
    </Choices>
  )
}

function YesNoField({ value, onAnswer, id }: Asked<'yesno'>) {
  return (
    <Choices inline>
      {[true, false].map((answer) => (
        <Choice
          key={String(answer)}
          type="radio"
          name={id}
          checked={value === answer}
          onChange={() => onAnswer(answer)}
        >
          {say(answer ? 'yes' : 'no')}
        </Choice>
      ))}
    </Choices>
  )
}

function SeveralField({ question, value, onAnswer }: Asked<'several'>) {
  const chosen = Array.isArray(value) ? value : []
  const toggle = (choice: string): void => {
    const next = question.choices
      .map((choice) => choice.id)
      .filter((other) => (other === choice ? !chosen.includes(other) : chosen.includes(other)))
    onAnswer(next.length > 0 ? next : undefined)
  }
  return (
    <Choices>
      {question.choices.map((choice) => (
        <Choice
          key={choice.id}
          type="checkbox"
          checked={chosen.includes(choice.id)}
          onChange={() => toggle(choice.id)}
        >
          {choice.text}
        </Choice>
      ))}
    </Choices>
  )
}

function ScaleField({ question, value, onAnswer, id }: Asked<'scale'>) {
  const steps = Array.from({ length: question.most - question.least + 1 }, (_, i) => question.least + i)
  return (
    <div>
      <div className="flex flex-wrap gap-1.5">
        {steps.map((step) => (
          <label
            key={step}
            className={`figures flex h-11 min-w-11 cursor-pointer items-center justify-center rounded-lg border font-semibold has-focus-visible:outline-3 has-focus-visible:outline-offset-2 has-focus-visible:outline-sun ${
              value === step
                ? 'border-leaf bg-leaf text-primary-content'
                : 'border-line bg-card hover:bg-leaf-soft/50'
            }`}
          >
            <input
              type="radio"
              className="sr-only"
              name={id}
              checked={value === step}
              onChange={() => onAnswer(step)}
            />
            {step}
          </label>
        ))}
      </div>
      <div className="mt-1 flex justify-between text-[13px] text-soft">
        <span>{say('scale-end', { number: question.least, name: question.leastName })}</span>
        <span>{say('scale-end', { number: question.most, name: question.mostName })}</span>
      </div>
    </div>
  )
}

function Section({ question }: { question: Of<'section'> }) {
  return (
    <div>
      <h2>{question.text}</h2>
      {question.help && <p className="mt-1 text-soft">{question.help}</p>}
    </div>
  )
}

function Passage({ question }: { question: Of<'passage'> }) {
  return (
    <section className="sheet p-4" aria-label={question.text}>
      <p className="ask">{question.text}</p>
      {question.help && <p className="mt-1 whitespace-pre-line">{question.help}</p>}
    </section>
  )
}

const Choices = ({ children, inline = false }: { children: ReactNode; inline?: boolean }) => (
  <div className={inline ? 'flex gap-4' : 'grid gap-0.5'}>{children}</div>
)

/** Keeps what was typed until it is a number, so that nothing typed is lost. */
function NumberField({ question: { unit }, value, onAnswer, common }: Asked<'number'>) {
  const [typed, setTyped] = useState(value === undefined ? '' : String(value))
  return (
    <div className="flex items-center gap-2">
      <input
        {...common}
        className="field max-w-36"
        inputMode="decimal"
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value)
          const text = e.target.value.trim().replace(',', '.')
          onAnswer(text === '' ? undefined : Number.isFinite(Number(text)) ? Number(text) : e.target.value)
        }}
      />
      {unit && <span className="text-soft">{unit}</span>}
    </div>
  )
}
