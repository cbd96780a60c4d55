import {
  type Practice,
  type SequenceStep,
  STEP_LOOKS,
  type StepCondition,
  withStep,
} from '@acolhida/core/practice'
import { X } from 'lucide-react'
import { useState } from 'react'
import { relayNow } from '../../relay-client/clock.ts'
import { changePractice } from '../data/change.ts'
import { db } from '../data/db.ts'
import { ActButton } from '../parts/act.tsx'
import { asOptions, PlainChoice, PlainField } from '../parts/plain-field.tsx'
import { OUTCOME } from '../parts/words.ts'
import { stepConditionWords } from './step-words.ts'

type Look = StepCondition['if']
const NAMED: readonly Look[] = ['place', 'service', 'outcome', 'tag']
const needsName = (look: Look): boolean => NAMED.includes(look)

/** What must hold for a step to go: each can be taken away, and others put beside it. */
export function StepConditions({
  practice,
  sequence,
  step,
}: {
  practice: Practice
  sequence: string
  step: SequenceStep
}) {
  const [look, setLook] = useState<Look>('first-time')
  const [not, setNot] = useState('')
  const [name, setName] = useState('')
  const when = step.when ?? []
  const put = (next: StepCondition[]): Promise<void> =>
    changePractice(db, 'what a message asks for', (p) =>
      withStep(
        p,
        sequence,
        step.id,
        ({ when: _, ...rest }) => (next.length > 0 ? { ...rest, when: next } : rest),
        relayNow(),
      ),
    )
  const options =
    look === 'place'
      ? asOptions(practice.places)
      : look === 'service'
        ? asOptions(practice.services)
        : Object.entries(OUTCOME).map(([value, name]) => ({ value, name }))
  const add = (): Promise<void> => {
    const is = name.trim() || (look === 'tag' ? '' : (options[0]?.value ?? ''))
    if (needsName(look) && !is) throw new Error('Please write which tag.')
    return put([
      ...when,
      { if: look, ...(needsName(look) ? { is: [is] } : {}), ...(not === 'not' ? { not: true } : {}) },
    ])
  }
  return (
    <div>
      <h4 className="ask">Only if</h4>
      {when.length === 0 && <p className="text-[14px] text-soft">It goes to everybody.</p>}
      <ul className="grid gap-1">
        {when.map((condition, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: conditions have no names of their own
          <li key={i} className="flex items-center justify-between gap-2">
            <span>{stepConditionWords(practice, condition)}</span>
            <ActButton
              className="press press-quiet px-2"
              aria-label={`Take “${stepConditionWords(practice, condition)}” away`}
              onAct={() => put(when.filter((_, at) => at !== i))}
            >
              <X size={16} aria-hidden="true" />
            </ActButton>
          </li>
        ))}
      </ul>
      <div className="mt-2 grid items-end gap-2 sm:grid-cols-[1fr_1fr_auto]">
        <PlainChoice
          label="Something else that must hold"
          value={`${not}:${look}`}
          options={STEP_LOOKS.flatMap((one) =>
            ['', 'not'].map((way) => ({
              value: `${way}:${one}`,
              name: stepConditionWords(practice, { if: one, ...(way ? { not: true } : {}) }),
            })),
          )}
          onChange={(value) => {
            const [way = '', one = 'first-time'] = value.split(':')
            setNot(way)
            setLook(one as Look)
            setName('')
          }}
        />
        {needsName(look) &&
          (look === 'tag' ? (
            <PlainField label="Which" value={name} onChange={setName} />
          ) : (
            <PlainChoice
              label="Which"
              value={name || (options[0]?.value ?? '')}
              options={options}
              onChange={setName}
            />
          ))}
        <ActButton onAct={add}>Ask for it</ActButton>
      </div>
    </div>
  )
}
