import { asksSomething, FILE_KINDS, type FileKind, type Question, type Sheet } from '@acolhida/core/questions'
import { Problem, useAct } from '../parts/act.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { Switch } from '../parts/switch.tsx'
import { Tick } from '../parts/tick.tsx'
import { whole } from '../service/fields.ts'
import { ConditionEdit, conditionOn } from './condition-edit.tsx'
import { asKind, changeDraft, KINDS, withDraft, withQuestion } from './draft.ts'
import { choiceLines, choicesFrom, itemLines, itemsFrom } from './lines.ts'

const WHAT = 'a question'

/** A number as typed, or nothing. */
const maybeWhole = (typed: string): number | undefined => (typed.trim() === '' ? undefined : whole(typed))

/** A question with one of its own values set, or without it. */
const valued = (one: Question, key: string, value: unknown): Question => {
  const next = Object.assign({ ...one }, { [key]: value })
  if (value === undefined || value === false) Reflect.deleteProperty(next, key)
  return next
}

/** One of a question's own values, if it has it. */
const ownValue = (one: Question, key: string): unknown => Reflect.get(one, key)

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
    .filter((one) => asksSomething(one) && !one.private)
  const act = useAct()
  const set = (change: (one: Question) => Question): void =>
    act.run(() => changeDraft(id, WHAT, withQuestion(question.id, change)))
  const field = (change: (one: Question, typed: string) => Question) => ({
    what: WHAT,
    change: (p: Parameters<typeof withDraft>[0], typed: string) =>
      withDraft(
        p,
        id,
        withQuestion(question.id, (one) => change(one, typed)),
      ),
  })
  const text = (label: string, key: string, more: object = {}) => (
    <SavedField
      label={label}
      value={String(ownValue(question, key) ?? '')}
      {...field((one, typed) => valued(one, key, typed.trim() === '' ? undefined : typed.trim()))}
      {...more}
    />
  )
  const bound = (label: string, key: string) => (
    <SavedField
      label={label}
      type="number"
      value={String(ownValue(question, key) ?? '')}
      {...field((one, typed) => {
        const value = maybeWhole(typed)
        if (value === undefined && one.kind === 'scale') throw new Error('A scale has two ends.')
        return valued(one, key, value)
      })}
    />
  )
  const flag = (label: string, key: string) => (
    <Switch
      label={label}
      on={Boolean(ownValue(question, key))}
      onChange={(on) => set((one) => valued(one, key, on))}
    />
  )
  const passage = question.kind === 'passage'
  return (
    <div className="mt-2 grid gap-3 border-t border-line pt-3">
      <SavedField
        label={question.kind === 'section' ? `Heading ${number}` : `Question ${number}`}
        value={question.text}
        {...field((one, typed) => ({ ...one, text: typed.trim() }))}
      />
      <div className="grid grid-cols-2 items-start gap-3">
        <SavedField
          label="Kind"
          value={question.kind}
          options={Object.entries(KINDS).map(([value, name]) => ({ value, name }))}
          {...field((one, kind) => asKind(one, kind as Question['kind']))}
        />
        {text(passage ? 'What they read' : 'Help beside it', 'help', passage ? { rows: 4 } : {})}
      </div>
      {'choices' in question && (
        <SavedField
          label="Choices, a line each"
          help="With points, where answers are scored: “nearly every day | 3”."
          rows={Math.min(8, question.choices.length + 1)}
          value={choiceLines(question.choices)}
          {...field((one, typed) =>
            'choices' in one ? { ...one, choices: choicesFrom(typed, one.choices) } : one,
          )}
        />
      )}
      {question.kind === 'items' && (
        <SavedField
          label="Items, a line each"
          help="With how many at most: “Wedding speech | 3”."
          rows={Math.min(8, question.items.length + 1)}
          value={itemLines(question.items)}
          {...field((one, typed) =>
            one.kind === 'items' ? { ...one, items: itemsFrom(typed, one.items) } : one,
          )}
        />
      )}
      {['number', 'scale', 'several', 'items'].includes(question.kind) && (
        <div className="grid grid-cols-3 items-end gap-3">
          {bound(question.kind === 'several' ? 'Choose at least' : 'At least', 'least')}
          {bound(question.kind === 'several' ? 'Choose at most' : 'At most', 'most')}
          {question.kind === 'number' && text('Unit', 'unit')}
        </div>
      )}
      {question.kind === 'number' && flag('Whole numbers only', 'whole')}
      {question.kind === 'long' && (
        <div className="grid grid-cols-2 gap-3">
          {bound('Words at least', 'leastWords')}
          {bound('Words at most', 'mostWords')}
          {bound('Sentences at least', 'leastSentences')}
          {bound('Sentences at most', 'mostSentences')}
        </div>
      )}
      {question.kind === 'scale' && (
        <div className="grid grid-cols-2 gap-3">
          {text('The low end means', 'leastName')}
          {text('The high end means', 'mostName')}
        </div>
      )}
      {question.kind === 'file' && (
        <fieldset>
          <legend className="ask">What may come</legend>
          {(Object.entries(FILE_KINDS) as [FileKind, string][]).map(([kind, name]) => (
            <Tick
              key={kind}
              label={name}
              on={question.accepts.includes(kind)}
              last={question.accepts.length === 1}
              onChange={(on) =>
                set((one) =>
                  one.kind === 'file'
                    ? {
                        ...one,
                        accepts: on ? [...one.accepts, kind] : one.accepts.filter((other) => other !== kind),
                      }
                    : one,
                )
              }
            />
          ))}
          <SavedField
            label="At most"
            suffix="KB"
            type="number"
            value={String(Math.round(question.mostBytes / 1024))}
            {...field((one, typed) => valued(one, 'mostBytes', whole(typed) * 1024))}
          />
        </fieldset>
      )}
      {question.kind === 'address' && flag('Its postal code says how far I travel', 'travel')}
      {asksSomething(question) && (
        <div className="grid gap-x-6 sm:grid-cols-2">
          <Switch
            label="Must be answered"
            on={question.required}
            onChange={(required) => set((one) => ({ ...one, required }))}
          />
          <Switch
            label="Must be filled by me, when I enter somebody"
            on={question.requiredAtDesk ?? question.required}
            onChange={(on) => set((one) => ({ ...one, requiredAtDesk: on }))}
          />
          {flag('Private: for my eyes alone', 'private')}
          {!question.private && flag('They can read their answer again', 'shownAgain')}
          {flag('Asked anew each time', 'eachTime')}
        </div>
      )}
      {question.private && (
        <p className="note tag-info text-[14px]">
          The answer is sealed in their browser and opened at this desk alone; it is in no mail. Rules on it
          can make you look, give points or a tag, and no service with such a rule is booked straight in. Keep
          a backup: with it goes the key that opens what has been sealed.
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
            onChange={(when) => set((one) => valued(one, 'when', when))}
          />
        </div>
      ) : (
        before.length > 0 && (
          <button
            type="button"
            className="way justify-self-start text-[14px]"
            onClick={() => set((one) => ({ ...one, when: conditionOn(before.at(-1)!) }))}
          >
            {question.kind === 'section'
              ? 'Show this part only after certain answers'
              : 'Ask it only after certain answers'}
          </button>
        )
      )}
      <Problem of={act} />
    </div>
  )
}
