import {
  lateSteps,
  type Practice,
  type Sequence,
  type SequenceStep,
  withNewText,
  withSequence,
  withStep,
} from '@acolhida/core/practice'
import { newKey } from '../../relay-client/client.ts'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { asOptions } from '../parts/plain-field.tsx'
import { SavedField } from '../parts/saved-field.tsx'
import { Fields } from '../settings/fields.tsx'
import { Preview } from './preview.tsx'
import { StepConditions } from './step-conditions.tsx'
import { HOW, WHEN } from './step-settings.ts'
import { manner, whenWords } from './step-words.ts'
import { TextEdit } from './text-edit.tsx'

/** A name that has no dash or line at its beginning. */
export const newId = (what: string): string =>
  `${what}-${newKey()
    .replaceAll(/[^A-Za-z0-9]/g, '')
    .toLowerCase()
    .slice(0, 10)}`

/** One step: when it goes, how, to whom, and what it says; beside it, as somebody reads it. */
export function StepEdit({
  practice,
  sequence,
  step,
  onGone,
}: {
  practice: Practice
  sequence: Sequence
  step: SequenceStep
  onGone: () => void
}) {
  const texts = practice.texts ?? []
  const text = texts.find(({ id }) => id === step.text)
  const services = practice.services.filter((one) => one.sequence === sequence.id).map(({ id }) => id)
  const change = (p: Practice, to: (step: SequenceStep) => SequenceStep): Practice =>
    withStep(p, sequence.id, step.id, to, relayNow())
  const warnings = lateSteps(practice, sequence, step)
  const another = (): Promise<void> => {
    const made = { sequence: sequence.id, step: step.id, text: newId('text'), now: relayNow() }
    return changePractice(db, 'a text made', (p) => withNewText(p, made))
  }
  return (
    <section
      className="sheet mt-4 grid gap-5 p-5 lg:grid-cols-[1fr_360px]"
      aria-label={text?.name ?? 'A step'}
    >
      <div className="grid h-fit min-w-0 gap-4">
        <div>
          <h3 className="text-[18px]">{text?.name ?? 'A step without a text'}</h3>
          <p className="text-[14px] text-soft">
            {whenWords(step)} · {manner(practice, step)}
          </p>
          {warnings.map((warning) => (
            <p key={warning} role="alert" className="note mt-2 bg-sun-soft text-[14px] text-sun-ink">
              {warning}
            </p>
          ))}
        </div>
        <Fields settings={WHEN} of={step} practice={practice} change={change} />
        <Fields settings={HOW} of={step} practice={practice} change={change} />
        <StepConditions key={step.id} practice={practice} sequence={sequence.id} step={step} />
        <div className="grid items-end gap-3 sm:grid-cols-[1fr_auto]">
          <SavedField
            label="What it says"
            what="the text of a message"
            value={step.text}
            options={asOptions(texts)}
            change={(p, typed) => change(p, (one) => ({ ...one, text: typed }))}
          />
          <ActButton onAct={another}>Write a new text</ActButton>
        </div>
        {text && <TextEdit key={text.id} text={text} byText={step.channel === 'text'} />}
        <ActButton
          className="press press-no justify-self-start"
          onAct={() =>
            changePractice(db, 'a message taken away', (p) =>
              withSequence(p, sequence.id, (one) => ({
                ...one,
                steps: one.steps.filter(({ id }) => id !== step.id),
              })),
            )
          }
          then={onGone}
        >
          Take this message away
        </ActButton>
      </div>
      {text && <Preview practice={practice} services={services} step={step} text={text} />}
    </section>
  )
}
