import type { DraftFault, Question, Sheet } from '@acolhida/core/questions'
import { freeId, removeQuestion } from '@acolhida/core/questions'
import type { Finding } from '@acolhida/core/questions/paths'
import { Copy, GripVertical, Trash2 } from 'lucide-react'
import { SavedField } from '../parts/saved-field.tsx'
import { useSortableRow } from '../parts/sortable-list.tsx'
import { Switch } from '../parts/switch.tsx'
import { whole } from '../service/fields.ts'
import { ConditionEdit, conditionOn } from './condition-edit.tsx'
import { asKind, changeDraft, choicesFrom, KINDS, withDraft, withQuestion } from './draft.ts'

const WHAT = 'a question'

/** A number as typed, or nothing. */
const maybeWhole = (typed: string): number | undefined => (typed.trim() === '' ? undefined : whole(typed))

/** One question of the version being written, with everything that can be said about it. */
export function QuestionCard({
  id,
  sheet,
  question,
  number,
  faults,
  findings,
}: {
  /** Of the questionnaire. */
  id: string
  sheet: Sheet
  question: Question
  number: number
  faults: readonly DraftFault[]
  findings: readonly Finding[]
}) {
  const { box, handle } = useSortableRow(question.id)
  const at = sheet.questions.indexOf(question)
  const before = sheet.questions.slice(0, at)
  const set = (change: (one: Question) => Question): Promise<void> =>
    changeDraft(id, WHAT, withQuestion(question.id, change))
  const field = (change: (one: Question, typed: string) => Question) => ({
    what: WHAT,
    change: (p: Parameters<typeof withDraft>[0], typed: string) =>
      withDraft(
        p,
        id,
        withQuestion(question.id, (one) => change(one, typed)),
      ),
  })
  const bound = (label: string, key: 'least' | 'most' | 'leastWords' | 'mostWords') => (
    <SavedField
      label={label}
      type="number"
      value={String((question as unknown as Record<string, unknown>)[key] ?? '')}
      {...field((one, typed) => {
        const { [key]: _, ...rest } = one as unknown as Record<string, unknown>
        const value = maybeWhole(typed)
        if (value === undefined && one.kind === 'scale') throw new Error('A scale has two ends.')
        return (value === undefined ? rest : { ...rest, [key]: value }) as unknown as Question
      })}
    />
  )
  return (
    <li {...box} id={`at-${question.id}`}>
      <section className="sheet grid gap-3 p-4" aria-label={question.text}>
        <div className="flex items-start gap-2">
          <button
            type="button"
            className="press press-quiet shrink-0 cursor-grab touch-none px-1.5"
            aria-label={`Drag question ${number}`}
            {...handle}
          >
            <GripVertical size={18} aria-hidden="true" />
          </button>
          <div className="grow">
            <SavedField
              label={`Question ${number}`}
              value={question.text}
              {...field((one, text) => ({ ...one, text: text.trim() }))}
            />
          </div>
          <button
            type="button"
            className="press press-quiet mt-6 px-2"
            aria-label={`Copy question ${number}`}
            onClick={() =>
              changeDraft(id, 'a question copied', (now) => {
                const copy = {
                  ...question,
                  id: freeId(
                    now.questions.map((one) => one.id),
                    `${question.id}-copy`,
                  ),
                }
                return {
                  ...now,
                  questions: [...now.questions.slice(0, at + 1), copy, ...now.questions.slice(at + 1)],
                }
              })
            }
          >
            <Copy size={16} aria-hidden="true" />
          </button>
          <button
            type="button"
            className="press press-no mt-6 px-2"
            aria-label={`Remove question ${number}`}
            onClick={() => changeDraft(id, 'a question removed', (now) => removeQuestion(now, question.id))}
          >
            <Trash2 size={16} aria-hidden="true" />
          </button>
        </div>
        <div className="grid grid-cols-2 items-end gap-3">
          <SavedField
            label="Kind"
            value={question.kind}
            options={Object.entries(KINDS).map(([value, name]) => ({ value, name }))}
            {...field((one, kind) => asKind(one, kind as Question['kind']))}
          />
          <SavedField
            label="Help beside it"
            value={question.help ?? ''}
            {...field((one, typed) => {
              const { help: _, ...rest } = one
              return (typed.trim() === '' ? rest : { ...rest, help: typed.trim() }) as Question
            })}
          />
        </div>
        {'choices' in question && (
          <SavedField
            label="Choices, a line each"
            rows={Math.min(8, question.choices.length + 1)}
            value={question.choices.map((choice) => choice.text).join('\n')}
            {...field((one, typed) =>
              'choices' in one ? { ...one, choices: choicesFrom(typed, one.choices) } : one,
            )}
          />
        )}
        {(question.kind === 'number' || question.kind === 'scale' || question.kind === 'several') && (
          <div className="grid grid-cols-3 items-end gap-3">
            {bound(question.kind === 'several' ? 'Choose at least' : 'At least', 'least')}
            {bound(question.kind === 'several' ? 'Choose at most' : 'At most', 'most')}
            {question.kind === 'number' && (
              <SavedField
                label="Unit"
                value={question.unit ?? ''}
                {...field((one, unit) => ({ ...one, unit: unit.trim() }) as Question)}
              />
            )}
          </div>
        )}
        {question.kind === 'long' && (
          <div className="grid grid-cols-2 gap-3">
            {bound('Words at least', 'leastWords')}
            {bound('Words at most', 'mostWords')}
          </div>
        )}
        {question.kind === 'scale' && (
          <div className="grid grid-cols-2 gap-3">
            <SavedField
              label="The low end means"
              value={question.leastName}
              {...field((one, leastName) => ({ ...one, leastName }) as Question)}
            />
            <SavedField
              label="The high end means"
              value={question.mostName}
              {...field((one, mostName) => ({ ...one, mostName }) as Question)}
            />
          </div>
        )}
        <Switch
          label="Must be answered"
          on={question.required}
          onChange={(required) => set((one) => ({ ...one, required }))}
        />
        {question.when ? (
          <div>
            <p className="ask mb-1">Asked only when</p>
            <ConditionEdit
              condition={question.when}
              questions={before}
              onChange={(when) =>
                set((one) => {
                  const { when: _, ...rest } = one
                  return (when ? { ...one, when } : rest) as Question
                })
              }
            />
          </div>
        ) : (
          before.length > 0 && (
            <button
              type="button"
              className="way justify-self-start text-[14px]"
              onClick={() => set((one) => ({ ...one, when: conditionOn(before.at(-1)!) }))}
            >
              Ask it only after certain answers
            </button>
          )
        )}
        <Said faults={faults} findings={findings} />
      </section>
    </li>
  )
}

/** What is wrong with a place, and what the check has found there. */
export function Said({ faults, findings }: { faults: readonly DraftFault[]; findings: readonly Finding[] }) {
  return (
    <>
      {faults.map((one) => (
        <p key={one.message} role="alert" className="text-[14px] font-semibold text-clay">
          {one.message}
        </p>
      ))}
      {findings.map((one) => (
        <p
          key={one.kind + one.message}
          className={`note text-[14px] ${one.grade === 'error' ? 'tag-closed' : 'tag-look'}`}
        >
          {one.message}
        </p>
      ))}
    </>
  )
}
