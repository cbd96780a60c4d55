import {
  COMPARED,
  type Condition,
  kindOf,
  type Comparing as Op,
  type Question,
} from '@acolhida/core/questions'
import { Plus, X } from 'lucide-react'
import { useShown } from '../parts/use-shown.ts'

type Comparison = Extract<Condition, { question: string }>

const OPS: Record<Op, string> = { ...COMPARED, answered: 'has an answer' }

/** The plainest condition on a question, to begin with. */
export function conditionOn(question: Question, is: Op = kindOf(question).compares[0]!): Condition {
  if (is === 'answered') return { question: question.id, is }
  return { question: question.id, is, value: kindOf(question).first(question, is) }
}

interface Group {
  join: 'all' | 'any'
  parts: Condition[]
}

/** A condition as a group of parts; a single comparison is a group of one. */
const groupOf = (condition: Condition): Group =>
  'all' in condition
    ? { join: 'all', parts: condition.all }
    : 'any' in condition
      ? { join: 'any', parts: condition.any }
      : { join: 'all', parts: [condition] }

const fromGroup = ({ join, parts }: Group): Condition => (join === 'all' ? { all: parts } : { any: parts })

/** A condition in sentences: all or any of several comparisons, each of which may be turned round, or a group again. */
export function ConditionEdit({
  condition: kept,
  questions,
  onChange,
  ofRule = false,
  deep = 0,
}: {
  condition: Condition
  /** What can be looked at. */
  questions: readonly Question[]
  /** Without a condition when the last part has been taken away. */
  onChange: (condition: Condition | undefined) => void
  /** Rules may look at tags and earlier attempts, too; the door, which asks the questions, does not know them. */
  ofRule?: boolean
  deep?: number
}) {
  const [condition, setShown] = useShown(kept)
  const group = groupOf(condition)
  const set = (parts: Condition[], join = group.join): void => {
    const next = parts.length > 0 ? fromGroup({ join, parts }) : undefined
    if (next) setShown(next)
    onChange(next)
  }
  const replace = (at: number, part: Condition | undefined): void =>
    set(group.parts.flatMap((condition, i) => (i === at ? (part ?? []) : condition)))
  const first = questions[0]
  return (
    <fieldset className={deep > 0 ? 'rounded-lg border border-line p-3' : ''}>
      <legend className="sr-only">Condition</legend>
      {(group.parts.length > 1 || deep > 0) && (
        <select
          aria-label="Which of these must hold"
          className="field mb-2 min-h-[34px] w-auto py-1"
          value={group.join}
          onChange={(event) => set(group.parts, event.target.value as Group['join'])}
        >
          <option value="all">all of these hold</option>
          <option value="any">any of these holds</option>
        </select>
      )}
      <ul className="grid gap-2">
        {group.parts.map((part, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: parts have no name but their place
          <li key={i} className="flex items-start gap-2">
            <div className="min-w-0 grow">
              <Part
                part={part}
                questions={questions}
                onChange={(next) => replace(i, next)}
                ofRule={ofRule}
                deep={deep}
              />
            </div>
            <button
              type="button"
              className="press press-quiet px-2"
              aria-label={`Take part ${i + 1} of the condition away`}
              onClick={() => replace(i, undefined)}
            >
              <X size={15} aria-hidden="true" />
            </button>
          </li>
        ))}
      </ul>
      <div className="mt-1.5 flex flex-wrap gap-3">
        {first && (
          <button
            type="button"
            className="way text-[13px]"
            onClick={() => set([...group.parts, conditionOn(first)])}
          >
            <Plus size={13} aria-hidden="true" className="inline" />{' '}
            {group.parts.length === 0 ? 'Say when' : 'another part'}
          </button>
        )}
        {first && deep < 2 && (
          <button
            type="button"
            className="way text-[13px]"
            onClick={() => set([...group.parts, { any: [conditionOn(first)] }])}
          >
            <Plus size={13} aria-hidden="true" className="inline" /> a group
          </button>
        )}
      </div>
    </fieldset>
  )
}

function Part({
  part,
  questions,
  onChange,
  ofRule,
  deep,
}: {
  part: Condition
  questions: readonly Question[]
  onChange: (part: Condition | undefined) => void
  ofRule: boolean
  deep: number
}) {
  if ('not' in part) {
    return (
      <div className="flex flex-wrap items-center gap-2">
        <Turned on onTurn={() => onChange(part.not)} />
        <Part
          part={part.not}
          questions={questions}
          onChange={(inner) => onChange(inner && { not: inner })}
          ofRule={ofRule}
          deep={deep}
        />
      </div>
    )
  }
  if ('all' in part || 'any' in part) {
    return (
      <ConditionEdit
        condition={part}
        questions={questions}
        onChange={onChange}
        ofRule={ofRule}
        deep={deep + 1}
      />
    )
  }
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Leaf leaf={part} questions={questions} onChange={onChange} ofRule={ofRule} />
      <Turned on={false} onTurn={() => onChange({ not: part })} />
    </div>
  )
}

const Turned = ({ on, onTurn }: { on: boolean; onTurn: () => void }) => (
  <label className="flex items-center gap-1.5 text-[13px]">
    <input type="checkbox" className="checkbox checkbox-primary checkbox-sm" checked={on} onChange={onTurn} />
    not
  </label>
)

type LeafCondition = Exclude<Condition, { all: unknown } | { any: unknown } | { not: unknown }>
const PERSONS = {
  new: 'the person is new',
  known: 'I know the person',
  invited: 'the person is invited',
} as const

function Leaf({
  leaf,
  questions,
  onChange,
  ofRule,
}: {
  leaf: LeafCondition
  questions: readonly Question[]
  onChange: (leaf: Condition) => void
  ofRule: boolean
}) {
  const question =
    'question' in leaf ? questions.find((question) => question.id === leaf.question) : undefined
  const subject =
    'question' in leaf
      ? `q ${leaf.question}`
      : 'person' in leaf
        ? `p ${leaf.person}`
        : 'attempts' in leaf
          ? 'attempts'
          : 'tag'
  const pick = (value: string): void => {
    if (value.startsWith('q ')) {
      const next = questions.find((question) => question.id === value.slice(2))
      if (next) onChange(conditionOn(next))
    } else if (value.startsWith('p ')) onChange({ person: value.slice(2) as 'new' })
    else onChange(value === 'tag' ? { tag: 'tag' } : { attempts: 1 })
  }
  return (
    <>
      <select
        aria-label="What is looked at"
        className="field min-h-[34px] w-auto max-w-[260px] py-1"
        value={subject}
        onChange={(event) => pick(event.target.value)}
      >
        {'question' in leaf && !question && (
          <option value={subject}>a question that is not asked before</option>
        )}
        {questions.map((question) => (
          <option key={question.id} value={`q ${question.id}`}>
            {question.text}
          </option>
        ))}
        {Object.entries(PERSONS).map(([value, name]) => (
          <option key={value} value={`p ${value}`}>
            {name}
          </option>
        ))}
        {(ofRule || 'attempts' in leaf) && (
          <option value="attempts">gave other answers before, at least so often</option>
        )}
        {(ofRule || 'tag' in leaf) && <option value="tag">the person has the tag</option>}
      </select>
      {'question' in leaf && question && <Compared leaf={leaf} question={question} onChange={onChange} />}
      {'attempts' in leaf && (
        <Typed
          label="How often"
          type="number"
          value={String(leaf.attempts)}
          onTyped={(text) => Number(text) >= 1 && onChange({ attempts: Math.floor(Number(text)) })}
        />
      )}
      {'tag' in leaf && (
        <Typed
          label="Tag"
          value={leaf.tag}
          onTyped={(text) => text.trim() && onChange({ tag: text.trim() })}
        />
      )}
    </>
  )
}

function Compared({
  leaf,
  question,
  onChange,
}: {
  leaf: Comparison
  question: Question
  onChange: (leaf: Condition) => void
}) {
  const kind = kindOf(question)
  const options = kind.listed?.(question, leaf.is)
  const numeric = kind.typed === 'number'
  const set = (value: string | number | boolean): void => {
    if (leaf.is !== 'answered') onChange({ ...leaf, value })
  }
  return (
    <>
      <select
        aria-label="How it is compared"
        className="field min-h-[34px] w-auto py-1"
        value={leaf.is}
        onChange={(event) => {
          const is = event.target.value as Op
          const fresh = conditionOn(question, is)
          const keeps = 'value' in leaf && 'value' in fresh && typeof leaf.value === typeof fresh.value
          onChange(keeps ? { ...fresh, value: leaf.value } : fresh)
        }}
      >
        {kind.compares.map((op) => (
          <option key={op} value={op}>
            {OPS[op]}
          </option>
        ))}
      </select>
      {leaf.is !== 'answered' && options && (
        <select
          aria-label="With what"
          className="field min-h-[34px] w-auto max-w-[220px] py-1"
          value={String(leaf.value)}
          onChange={(event) => set(event.target.value)}
        >
          {options.map((choice) => (
            <option key={choice.id} value={choice.id}>
              {choice.text}
            </option>
          ))}
        </select>
      )}
      {leaf.is !== 'answered' && kind.typed === 'yesno' && (
        <select
          aria-label="With what"
          className="field min-h-[34px] w-auto py-1"
          value={String(leaf.value)}
          onChange={(event) => set(event.target.value === 'true')}
        >
          <option value="true">yes</option>
          <option value="false">no</option>
        </select>
      )}
      {leaf.is !== 'answered' && !options && kind.typed !== 'yesno' && (
        <Typed
          label="With what"
          type={kind.typed}
          value={String(leaf.value)}
          onTyped={(text) => {
            if (!numeric) set(text)
            else if (text.trim() !== '' && Number.isFinite(Number(text))) set(Number(text))
          }}
        />
      )}
    </>
  )
}

/** A small field that keeps what is typed while it can't be used yet. */
function Typed({
  label,
  value,
  type = 'text',
  onTyped,
}: {
  label: string
  value: string
  type?: string
  onTyped: (text: string) => void
}) {
  const [typed, setTyped] = useShown(value)
  return (
    <input
      aria-label={label}
      type={type}
      className="field min-h-[34px] w-28 py-1"
      value={typed}
      onChange={(event) => {
        setTyped(event.target.value)
        onTyped(event.target.value)
      }}
    />
  )
}
