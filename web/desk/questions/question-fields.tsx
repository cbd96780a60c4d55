import { asksSomething, KINDS, type Question, type Sheet } from '@acolhida/core/questions'
import { useRef } from 'react'
import { ProblemNote, useAct } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { Switch } from '../parts/switch.tsx'
import { ConditionEdit, conditionOn } from './condition-edit.tsx'
import { asKind, changeDraft, withDraft, withQuestion } from './draft.ts'
import { OwnSettings } from './own-settings.tsx'
import { ownValue, valued } from './valued.ts'

const WHAT = 'a question'

/** Everything that can be said about a question. */
export function QuestionFields({
  id,
  sheet,
  question,
  number,
}: {
  id: string
  sheet: Sheet
  question: Question
  number: number
}) {
  const before = sheet.questions
    .slice(0, sheet.questions.indexOf(question))
    .filter((question) => asksSomething(question) && !question.private)
  const kinds = useRef(new Map<Question['kind'], Question>())
  const act = useAct()
  const set = (change: (question: Question) => Question): void =>
    act.run(() => changeDraft(id, WHAT, withQuestion(question.id, change)))
  const field = (change: (question: Question, typed: string) => Question) => ({
    what: WHAT,
    change: (p: Parameters<typeof withDraft>[0], typed: string) =>
      withDraft(
        p,
        id,
        withQuestion(question.id, (question) => change(question, typed)),
      ),
  })
  const text = (label: string, key: string, more: object = {}) => (
    <SavedField
      label={label}
      value={String(ownValue(question, key) ?? '')}
      {...field((question, typed) => valued(question, key, typed.trim() === '' ? undefined : typed.trim()))}
      {...more}
    />
  )
  const flag = (label: string, key: string) => (
    <Switch
      label={label}
      on={Boolean(ownValue(question, key))}
      onChange={(on) => set((question) => valued(question, key, on))}
    />
  )
  const passage = question.kind === 'passage'
  return (
    <div className="mt-2 grid gap-3 border-t border-line pt-3">
      <SavedField
        label={question.kind === 'section' ? `Heading ${number}` : `Question ${number}`}
        value={question.text}
        {...field((question, typed) => ({ ...question, text: typed.trim() }))}
      />
      <div className="grid grid-cols-2 items-start gap-3">
        <SavedField
          label="Kind"
          value={question.kind}
          options={Object.entries(KINDS).map(([value, { name }]) => ({ value, name }))}
          {...field((question, kind) => {
            // Changed back, it has its choices and bounds again.
            kinds.current.set(question.kind, question)
            return asKind(question, kind as Question['kind'], kinds.current.get(kind as Question['kind']))
          })}
        />
        {text(passage ? 'What they read' : 'Help beside it', 'help', passage ? { rows: 4 } : {})}
      </div>
      <OwnSettings question={question} field={field} set={set} />
      {asksSomething(question) && (
        <div className="grid gap-x-6 sm:grid-cols-2">
          <Switch
            label="Must be answered"
            on={question.required}
            onChange={(required) => set((question) => ({ ...question, required }))}
          />
          <Switch
            label="Must be filled by me, when I enter somebody"
            on={question.requiredAtDesk ?? question.required}
            onChange={(on) => set((question) => ({ ...question, requiredAtDesk: on }))}
          />
          {flag('Private: only I read the answer', 'private')}
          {!question.private && flag('They can read their answer again', 'shownAgain')}
          {flag('Asked anew each time', 'eachTime')}
        </div>
      )}
      {question.private && (
        <p className="note tag-info text-[14px]">
          The answer is locked in their browser and opened at this desk alone; it is in no mail. Rules on it
          can make you look, give points or a tag, and no service with such a rule is booked straight in. Keep
          a backup: the key that opens these answers is in it.
        </p>
      )}
      {question.when ? (
        <div>
          <p className="ask mb-1">
            {question.kind === 'section' ? 'This part is shown only when' : 'Asked only when'}
          </p>
          <ConditionEdit
            condition={question.when}
            questions={before}
            onChange={(when) => set((question) => valued(question, 'when', when))}
          />
        </div>
      ) : (
        before.length > 0 && (
          <button
            type="button"
            className="way justify-self-start text-[14px]"
            onClick={() => set((question) => ({ ...question, when: conditionOn(before.at(-1)!) }))}
          >
            {question.kind === 'section'
              ? 'Show this part only after certain answers'
              : 'Ask it only after certain answers'}
          </button>
        )
      )}
      <ProblemNote of={act} />
    </div>
  )
}
